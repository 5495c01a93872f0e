package org.protypos.runtime.xml;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Predicate;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.Attachment;

/**
 * Reads elements of simple types, text and attributes, as the text that they are, and keeps beside it what a message says
 * with them that their types have no place for.
 */
public abstract sealed class TextInput extends ScalarInput permits XmlInput {
    final XmlCursor cursor;
    final XmlAttributes attributes;
    final XmlTypes types;
    XmlObject current;
    String standard;
    String bodyText;
    Attachment hadIncluded;
    boolean lacking;

    TextInput(XmlCursor cursor, XmlTypes types) {
        this.cursor = cursor;
        this.attributes = cursor.attributes();
        this.types = types;
    }

    /** Reads an element of which the type is declared as simple, and named by the message as a complex one with text. */
    abstract String extended(XmlObject extension, QName type);

    final boolean takeLacking() {
        boolean lacks = lacking;
        lacking = false;
        return lacks;
    }

    /** Takes all attributes that nobody has taken. */
    public final void anyAttributes(Map<QName, String> into) {
        take(into, namespace -> true);
    }

    /** Takes the attributes of another namespace than this one that nobody has taken. */
    public final void otherAttributes(Map<QName, String> into, String namespace) {
        take(into, other -> !other.isEmpty() && !other.equals(namespace));
    }

    /** Takes the attributes of some namespaces that nobody has taken. */
    public final void attributesOf(Map<QName, String> into, String... namespaces) {
        take(into, List.of(namespaces)::contains);
    }

    /** What the contract leaves open may hold names, so the prefixes that it may use stay declared. */
    final void take(Map<QName, String> into, Predicate<String> allowed) {
        Map<String, String> prefixes = new LinkedHashMap<>();
        attributes.takeRest(into, prefixes, allowed);
        keepPrefixes(prefixes);
    }

    private void keepPrefixes(Map<String, String> prefixes) {
        if (!prefixes.isEmpty()) {
            cursor.affordNotes(current, 1 + prefixes.size(), 0);
            current.notes().keepPrefixes(prefixes);
        }
    }

    /** Keeps what a message says of a child beside its value. */
    final void keepChild(Notes.Child child) {
        int kept = 1
                + (child.type() == null ? 0 : 1)
                + (child.prefixes().isEmpty() ? 0 : 1 + child.prefixes().size());
        cursor.affordNotes(current, kept, 0);
        current.notes().keepChild(child);
    }

    /** Reads an element of a simple type. */
    public final String text() {
        return simple(false, false);
    }

    /** Reads an element of a simple type in whose text qualified names may stand: their prefixes stay declared. */
    public final String textWithNames() {
        return simple(false, true);
    }

    /** Reads an element of binary content: its text, or nothing when the content is beside the message. */
    public final String binaryText() {
        return simple(true, false);
    }

    private String simple(boolean binary, boolean names) {
        if (takeLacking()) {
            return null;
        }
        takeRefused();
        cursor.loadAttributes();
        if (attributes.statedType() == null && attributes.ofInstance().isEmpty() && !names) {
            cursor.rejectUnknownAttributes();
            return binary ? includedOrText() : cursor.text();
        }
        int ordinal = cursor.ordinal();
        String name = cursor.localName();
        Map<String, String> instance = attributes.ofInstance();
        QName type = statedName();
        XmlObject extension = type == null ? null : types.complexType(type);
        String text;
        if (extension == null) {
            cursor.rejectUnknownAttributes();
            text = binary ? includedOrText() : cursor.text();
        } else {
            text = extended(extension, type);
        }
        if (current != null && text != null) {
            Map<String, String> prefixes = prefixesIn(text, names || type != null && types.holdsNames(type));
            if (type != null || !instance.isEmpty() || !prefixes.isEmpty()) {
                Attachment content = binary ? hadIncluded : null;
                keepChild(new Notes.Child(ordinal, name, text, content, type, instance, prefixes, extension));
            }
        }
        return text;
    }

    final QName statedName() {
        String stated = attributes.statedType();
        return stated == null ? null : cursor.resolve(stated);
    }

    /**
     * The prefixes that a text uses or may use, with their namespaces.
     *
     * @param names whether names stand in it for sure, so that those without a prefix are in the default namespace
     */
    final Map<String, String> prefixesIn(String text, boolean names) {
        Map<String, String> prefixes = new LinkedHashMap<>();
        cursor.rememberPrefixes(text, prefixes);
        if (names) {
            cursor.keepDefault(prefixes);
        }
        return prefixes;
    }

    /** The prefixes that a text uses or may use of which nobody knows whether names stand in it. */
    final Map<String, String> prefixesInAny(String text) {
        return prefixesIn(text, XmlCursor.mayBeNames(text));
    }

    /** Keeps the prefixes declared that a text of the element being read uses, in which qualified names may stand. */
    private String keepNames(String text) {
        if (text != null) {
            keepPrefixes(prefixesIn(text, true));
        }
        return text;
    }

    /** Reads binary content of an element of which the attributes have been taken, in the way of {@link #binaryText}. */
    public final String binaryBody() {
        String text = includedOrText();
        boolean empty = standard != null && text.isEmpty() && !hasIncluded();
        noteStandard(empty);
        bodyText = text;
        return empty ? standard : text;
    }

    private String includedOrText() {
        String text = cursor.binaryText();
        hadIncluded = cursor.takeIncluded();
        setIncluded(hadIncluded, cursor.bytes());
        return text;
    }

    /**
     * Reads an element of a simple type that stands for a value of its own when it is empty (XML Schema Part 1, section
     * 3.3.1).
     */
    public final String textOr(String standardText) {
        return orStandard(standardText, false);
    }

    /** Does what {@link #textOr} does for text in which qualified names may stand. */
    public final String textWithNamesOr(String standardText) {
        return orStandard(standardText, true);
    }

    private String orStandard(String standardText, boolean names) {
        standard = standardText;
        String text = simple(false, names);
        standard = null;
        if (text == null) {
            return null;
        }
        noteStandard(text.isEmpty());
        return text.isEmpty() ? standardText : text;
    }

    /** Reads the text of an element of which the attributes have been taken. */
    public final String body() {
        bodyText = cursor.text();
        return bodyText;
    }

    /** Does what {@link #body} does for text in which qualified names may stand. */
    public final String bodyWithNames() {
        return keepNames(body());
    }

    /** Reads the text of an element of which the attributes have been taken, or what an empty one stands for. */
    public final String standardBody() {
        String text = body();
        boolean empty = standard != null && text.isEmpty();
        noteStandard(empty);
        return empty ? standard : text;
    }

    /** Does what {@link #standardBody} does for text in which qualified names may stand. */
    public final String standardBodyWithNames() {
        return keepNames(standardBody());
    }

    /** Takes an attribute, or gives null when it is absent. */
    public final String attribute(String namespace, String name) {
        takeRefused();
        return attributes.take(namespace, name);
    }

    /** Takes what an array says of itself, which it says anew when it is written (SOAP 1.1, section 5.4.2). */
    public final void arrayOf() {
        attribute(Names.SOAP_ENCODING, "arrayType");
    }

    /** Takes an attribute in which qualified names may stand, or gives null when it is absent. */
    public final String attributeWithNames(String namespace, String name) {
        return keepNames(attribute(namespace, name));
    }

    /** Takes an attribute that must be there and in which qualified names may stand. */
    public final String requiredAttributeWithNames(String namespace, String name) {
        return keepNames(requiredAttribute(namespace, name));
    }

    /** Takes an attribute that must be there. */
    public final String requiredAttribute(String namespace, String name) {
        String value = attribute(namespace, name);
        if (value == null) {
            cursor.tolerate(error("the required attribute " + name + " is missing"));
        }
        return value;
    }

    /** The failure to report when something required does not come. */
    public final XmlFormatException missing(String expected) {
        if (!cursor.atElement()) {
            return error("expected " + expected + ", but the element ends");
        }
        // Where both have the same name, what differs is the namespace.
        boolean alike = expected.equals("<" + cursor.localName() + ">");
        return error("expected " + expected + ", but <" + cursor.localName() + ">"
                + (alike ? " of namespace \"" + cursor.namespace() + "\"" : "") + " came");
    }

    /** The failure to report at this place of the message. */
    public final XmlFormatException error(String message) {
        return cursor.error(message, null);
    }

    @Override
    final void complain(String text, String type) {
        cursor.tolerate(cursor.invalid(text, type));
    }

    @Override
    final void affordBinary(long length) {
        cursor.affordBinary(length);
    }

    /**
     * Finds the value of an enumeration.
     *
     * @param text what was read, in the form in which the enumeration has its values
     * @param find gives the value, or null when there is none
     * @param type the name to show when there is none
     */
    public final <V, T> T known(V text, Function<V, T> find, String type) {
        if (text == null) {
            return null;
        }
        T found = find.apply(text);
        if (found == null) {
            refuse(String.valueOf(text), type);
        }
        return found;
    }

    /** Reads {@code xs:QName} and {@code xs:NOTATION}: the prefix is looked up where the value stands. */
    public final QName toQName(String text) {
        return text == null ? null : cursor.resolve(text);
    }
}
