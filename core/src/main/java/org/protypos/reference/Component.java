package org.protypos.reference;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * A component of a contract that can be asked for by its name.
 *
 * @param name its name; that of an operation is in the namespace of its port type
 * @param within the port type of an operation; empty for all else
 * @param designator how rules speak of it
 * @param documentation what the contract says about it, empty for nothing
 * @param place where it is defined
 */
public record Component(Kind kind, QName name, String within, String designator, String documentation, Place place) {
    /** What kinds there are, in the order in which one asks for them. */
    public enum Kind {
        OPERATION("operation"),
        MESSAGE("message"),
        ELEMENT("element"),
        TYPE("type"),
        GROUP("group"),
        ATTRIBUTE("attribute"),
        ATTRIBUTE_GROUP("attribute group");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** The standards' word for it. */
        public String words() {
            return words;
        }
    }

    /** A short name that tells it from components of other kinds, such as {@code element:berth}. */
    public String handle() {
        return kind.words().replace(' ', '-') + ":" + name.getLocalPart();
    }

    /** Its local name; of several operations of one name the second and those behind it have numbers, as in rules. */
    public String called() {
        int number = kind == Kind.OPERATION && designator.endsWith("]") ? designator.lastIndexOf('[') : -1;
        return name.getLocalPart() + (number < 0 ? "" : designator.substring(number));
    }

    /** Its kind and its name. */
    public String title() {
        return kind.words() + " " + called() + (within.isEmpty() ? "" : " of " + within);
    }
}
