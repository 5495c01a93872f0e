package org.protypos.wsdl;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A message (WSDL 1.1, section 2.3). */
public record Message(QName name, List<Part> parts, String documentation, Place place) {
    /**
     * A part of a message.
     *
     * @param element the global element it consists of, or null
     * @param type the type it is of, or null
     */
    public record Part(String name, QName element, QName type, Place place) {}

    /** The part of a name, or null. */
    public Part part(String wanted) {
        for (Part part : parts) {
            if (part.name().equals(wanted)) {
                return part;
            }
        }
        return null;
    }
}
