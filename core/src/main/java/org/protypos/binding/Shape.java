package org.protypos.binding;

import java.util.List;
import javax.xml.namespace.QName;

/**
 * What somebody wants of the API of a component beyond its name; each part may be null, for what the tool does on its own.
 *
 * @param conversion the target's type that stands for text of a simple type
 * @param existing the class that is there already and is used in place of a generated one
 * @param optional whether the getter of what may be absent gives an optional value
 * @param unwrapped whether an element that holds nothing but a list is taken for the list
 * @param carried the element that a text holds as a document
 * @param interfaces the interfaces that a class implements besides
 * @param documentation what is said about the component besides what the contract says
 * @param plainParameters whether an operation has a parameter for each member of its request, rather than the request
 * @param async whether an operation can also be called without waiting
 * @param room what a record of fixed length has room for
 */
public record Shape(
        Conversion conversion,
        String existing,
        Boolean optional,
        Boolean unwrapped,
        QName carried,
        List<String> interfaces,
        String documentation,
        Boolean plainParameters,
        Boolean async,
        Room room) {
    /**
     * What a record of fixed length has room for; each part may be null.
     *
     * @param room characters of text or bytes; 0 leaves out what it is about
     * @param times entries of what comes several times
     * @param digits digits of a number, those behind the point among them
     * @param decimals digits behind the point
     * @param usage how a number is kept: {@code packed}, {@code binary} or {@code zoned}
     * @param inParts whether a date or a time is kept as the numbers that it is made of
     * @param file whether bytes are in a file, of which the record holds the name
     * @param varying whether the record ends with the last of the entries that are there
     */
    public record Room(
            Integer room,
            Integer times,
            Integer digits,
            Integer decimals,
            String usage,
            Boolean inParts,
            Boolean file,
            Boolean varying) {
        boolean isNothing() {
            return equals(new Room(null, null, null, null, null, null, null, null));
        }
    }

    /**
     * How text becomes a value of some type of the target, and a value text.
     *
     * @param type the type
     * @param parse what makes a value of text: a static method with its class, or {@code new}; null for the target's own way
     * @param print what makes text of a value: a static method with its class, or a method of the value; null likewise
     */
    public record Conversion(String type, String parse, String print) {}

    /** The same with nothing in it that names a class of the user's. */
    Shape withoutForeignClasses() {
        return new Shape(
                conversion == null || conversion.parse() != null ? null : conversion,
                null,
                optional,
                unwrapped,
                carried,
                null,
                documentation,
                plainParameters,
                async,
                room);
    }

    boolean isNothing() {
        return equals(new Shape(null, null, null, null, null, null, null, null, null, null));
    }

    /** Whether it says what only an operation has. */
    boolean isOfOperation() {
        return plainParameters != null || async != null;
    }

    /** Whether it says what only a component of a schema has. */
    boolean isOfSchema() {
        return conversion != null
                || existing != null
                || optional != null
                || unwrapped != null
                || carried != null
                || interfaces != null;
    }
}
