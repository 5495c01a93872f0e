package org.protypos.naming;

import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * A component that gets a name.
 *
 * @param kind what it is
 * @param designator how rules speak of it: for components of a schema in the abbreviated form of W3C XML Schema Component
 *     Designators, with namespaces in braces instead of prefixes
 * @param place where it is in the contract, or null when no one place has it
 */
public record Subject(Kind kind, String designator, Place place) {
    private static final Pattern NUMBERED = Pattern.compile("\\[[0-9]+\\]$");

    /** What kinds of components get names. */
    public enum Kind {
        TYPE("type"),
        ELEMENT("element"),
        MEMBER("element"),
        ATTRIBUTE("attribute"),
        VALUE("value"),
        PORT_TYPE("port type"),
        OPERATION("operation"),
        PARAMETER("parameter"),
        SERVICE("service"),
        PORT("port"),
        FAULT("fault"),
        MESSAGE("message"),
        PART("part");

        private final String text;

        Kind(String text) {
            this.text = text;
        }

        /** The standards' word for it. */
        public String text() {
            return text;
        }
    }

    /** A global type. */
    public static Subject type(QName name, Place place) {
        return new Subject(Kind.TYPE, "~" + text(name), place);
    }

    /** The anonymous type of an element. */
    public static Subject typeOf(String element, Place place) {
        return new Subject(Kind.TYPE, element + "/~0", place);
    }

    /** A global element. */
    public static Subject element(QName name, Place place) {
        return new Subject(Kind.ELEMENT, text(name), place);
    }

    /** An element inside a type. */
    public static Subject element(String around, QName name, Place place) {
        return new Subject(Kind.MEMBER, around + "/" + text(name), place);
    }

    /** An attribute of a type. */
    public static Subject attribute(String around, QName name, Place place) {
        return new Subject(Kind.ATTRIBUTE, around + "/@" + text(name), place);
    }

    /**
     * What stands in a type without a name: a group that repeats ({@code choice}, {@code sequence}, {@code all}), room for any element or
     * attribute ({@code any}, {@code @any}), or text ({@code text}).
     */
    public static Subject unnamed(Kind kind, String around, String what, Place place) {
        return new Subject(kind, around + "/" + what + "()", place);
    }

    /** A value of an enumeration. */
    public static Subject value(String around, String value, Place place) {
        return new Subject(Kind.VALUE, around + "='" + value + "'", place);
    }

    /** A global component of a WSDL document. */
    public static Subject wsdl(Kind kind, QName name, Place place) {
        String word =
                kind == Kind.FAULT || kind == Kind.MESSAGE ? "message" : kind == Kind.SERVICE ? "service" : "portType";
        return new Subject(kind, word + " " + text(name), place);
    }

    /** As the platform writes names, whose own code for it is linked at run time. */
    private static String text(QName name) {
        return name.getNamespaceURI().isEmpty()
                ? name.getLocalPart()
                : "{" + name.getNamespaceURI() + "}" + name.getLocalPart();
    }

    /** The one of so many components with one designator. */
    Subject numbered(int number) {
        return new Subject(kind, designator + "[" + number + "]", place);
    }

    /** Whether it is not the first with its designator. */
    public boolean isNumbered() {
        return NUMBERED.matcher(designator).find();
    }

    /** What is inside a component of a WSDL document. */
    public Subject inside(Kind inner, String name, Place where) {
        return new Subject(inner, designator + "/" + name, where);
    }
}
