package org.protypos.wire;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.Message;

/**
 * A part of a message as it travels.
 *
 * @param part what the contract says of it
 * @param element the element that it is on the wire, or the name of the MIME part or field
 * @param isGlobal whether that is an element that a schema declares, rather than one called after the part
 * @param type the type of what it holds
 * @param mediaType the media type of what travels as bytes, empty for any
 * @param beginnings the elements of which one stands first when the body itself is of its type; otherwise none
 */
public record WirePart(
        Message.Part part,
        QName element,
        boolean isGlobal,
        TypeReference type,
        String mediaType,
        List<QName> beginnings) {
    /** Its name in the message. */
    public String name() {
        return part.name();
    }
}
