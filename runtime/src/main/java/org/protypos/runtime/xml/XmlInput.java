package org.protypos.runtime.xml;

import java.io.InputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.MimePackage;

/**
 * A message being read, element by element, by the types it is made of.
 *
 * <p>The input stands either on the start tag of an element not yet taken, or on the end tag of the element around it.
 * Reading methods take one whole element and leave the input behind it. Every method throws
 * {@link XmlFormatException} when the message is not well-formed, breaks the contract or passes a limit.
 */
public final class XmlInput extends ScalarInput {
    private static final int MOST_HEADS = 100;

    private final XmlCursor cursor;
    private final XmlTypes types;
    private XmlObject current;
    private String standard;
    private boolean untyped;

    private XmlInput(XmlCursor cursor, XmlTypes types) {
        this.cursor = cursor;
        this.types = types;
    }

    /**
     * Opens a message and moves to its root element.
     *
     * @param stream the bytes; the caller closes it
     * @param encoding the encoding that the transport names, or null to take it from the message itself
     * @param types what the contract declares by name
     * @param limits the bounds to hold the message to
     */
    public static XmlInput open(InputStream stream, String encoding, XmlTypes types, XmlLimits limits) {
        return new XmlInput(new XmlCursor(stream, encoding, limits), types);
    }

    /** Says which package the message is the root of: binary content may be in its parts (XOP 1.0, section 3.2). */
    public void setParts(MimePackage around) {
        cursor.setParts(around);
    }

    /** Whether an element of this name comes next. */
    public boolean at(String namespace, String name) {
        return cursor.at(namespace, name);
    }

    /** Whether any element comes next, rather than the end tag of the one around it. */
    public boolean atElement() {
        return cursor.atElement();
    }

    /** The namespace of the element that comes next, empty for none. */
    public String namespace() {
        return cursor.namespace();
    }

    /** The local name of the element that comes next. */
    public String localName() {
        return cursor.localName();
    }

    /** Goes into the element that comes next: from its start tag to its first child or its end tag. */
    public void enter() {
        standard = null;
        cursor.enter();
    }

    /** Goes out of an element, at whose end tag the input must stand. */
    public void leave() {
        if (cursor.atElement()) {
            throw unexpected();
        }
        cursor.leave();
    }

    /** Passes over the element that comes next. */
    public void skip() {
        cursor.skip();
    }

    /** Makes sure that nothing follows the root element. */
    public void finish() {
        cursor.finish();
    }

    /**
     * Reads an element of a complex type.
     *
     * @param declared the type that the contract declares
     * @param plain an empty value of that type, or null when it is abstract
     * @return the value, of the type that {@code xsi:type} names if it names one
     */
    public <T extends XmlObject> T object(Class<T> declared, T plain) {
        cursor.loadAttributes();
        String stated = cursor.statedType();
        if (stated != null) {
            return fill(stated(declared, plain, stated));
        }
        if (plain == null) {
            throw error("the type " + declared.getSimpleName()
                    + " is abstract: xsi:type must say which type derived from it is meant");
        }
        return fill(plain);
    }

    /**
     * Reads an element of a complex type with simple content that stands for a value of its own when it is empty (XML Schema
     * Part 1, section 3.3.1).
     */
    public <T extends XmlObject> T object(Class<T> declared, T plain, String standardText) {
        standard = standardText;
        T value = object(declared, plain);
        standard = null;
        return value;
    }

    private <T extends XmlObject> T stated(Class<T> declared, T plain, String stated) {
        QName name = cursor.resolve(stated);
        if (plain != null && name.equals(plain.xmlType())) {
            plain.stateType();
            return plain;
        }
        XmlObject value = types.typeOrBuiltin(name.getNamespaceURI(), name.getLocalPart());
        if (value == null) {
            throw error("xsi:type names " + name + ", a type that the contract does not have or that is abstract");
        }
        if (!declared.isInstance(value)) {
            throw error("xsi:type names " + name + ", which is not derived from " + declared.getSimpleName());
        }
        value.stateType();
        return declared.cast(value);
    }

    /** Reads an element of type {@code xs:anyType}: typed when {@code xsi:type} says how, as a tree otherwise. */
    public XmlObject any() {
        cursor.loadAttributes();
        String stated = cursor.statedType();
        XmlObject value = null;
        if (stated != null) {
            QName name = cursor.resolve(stated);
            value = types.typeOrBuiltin(name.getNamespaceURI(), name.getLocalPart());
        }
        if (value != null) {
            value.stateType();
        }
        return fill(value == null ? new XmlTree() : value);
    }

    /** Reads whatever element comes next: typed when the contract declares it, as a tree otherwise. */
    public XmlElement<?> element() {
        return element(null);
    }

    private XmlElement<?> element(XmlObject inner) {
        if (untyped) {
            return tree();
        }
        QName name = new QName(cursor.namespace(), cursor.localName());
        cursor.loadAttributes();
        if (cursor.statedType() != null) {
            return new XmlElement<>(name, any());
        }
        XmlObject value = inner != null ? inner : types.element(name.getNamespaceURI(), name.getLocalPart());
        return new XmlElement<>(name, fill(value == null ? new XmlTree() : value));
    }

    /** Makes sure that a part was among those that may come in any order. */
    public void came(int[] parts, int count, int wanted, String expected) {
        for (int i = 0; i < count; i++) {
            if (parts[i] == wanted) {
                return;
            }
        }
        throw missing(expected);
    }

    /** Reads the members of a model group, which has no element of its own. */
    public <T extends XmlObject> T group(T group) {
        group.readElements(this);
        return group;
    }

    private <T extends XmlObject> T fill(T value) {
        boolean nil = cursor.statedNil();
        if (!cursor.instanceAttributes().isEmpty() && !(value instanceof XmlTree)) {
            value.notes().keepOwn(cursor.instanceAttributes());
        }
        XmlObject around = current;
        current = value;
        value.readAttributes(this);
        cursor.rejectUnknownAttributes();
        if (nil) {
            value.markNil(true);
            cursor.enter();
            leave();
        } else {
            value.readBody(this);
        }
        current = around;
        return value;
    }

    /** Takes the element that comes next if it is nil and says nothing else, and tells whether it did. */
    public boolean takeNil() {
        cursor.loadAttributes();
        if (!cursor.statedNil() || cursor.hasAttributes()) {
            return false;
        }
        cursor.enter();
        leave();
        return true;
    }

    /** Makes sure that an element of this name comes next. */
    public void expect(String namespace, String name) {
        if (!cursor.at(namespace, name)) {
            throw missing("<" + name + ">");
        }
    }

    /** Whether an element comes next that may stand for the head of a substitution group, or the head itself. */
    public boolean atMember(String namespace, String head) {
        if (!cursor.atElement()) {
            return false;
        }
        QName name = new QName(cursor.namespace(), cursor.localName());
        for (int steps = 0; name != null && steps < MOST_HEADS; steps++) {
            if (name.getLocalPart().equals(head) && name.getNamespaceURI().equals(namespace)) {
                return true;
            }
            name = types.head(name.getNamespaceURI(), name.getLocalPart());
        }
        return false;
    }

    /** Whether an element of another namespace than this one comes next, and not one without a namespace. */
    public boolean atOther(String namespace) {
        return cursor.atElement()
                && !cursor.namespace().isEmpty()
                && !cursor.namespace().equals(namespace);
    }

    /** Whether an element of one of these namespaces comes next. */
    public boolean atAnyOf(String... namespaces) {
        if (cursor.atElement()) {
            for (String namespace : namespaces) {
                if (cursor.namespace().equals(namespace)) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Whether an element comes next that is among these, each given as namespace, space and local name. */
    public boolean atOneOf(Set<String> names) {
        return cursor.atElement() && names.contains(cursor.namespace() + " " + cursor.localName());
    }

    /** Reads an element that stands for the head of a substitution group, with content derived from the head's. */
    public <T extends XmlObject> XmlElement<? extends T> member(Class<T> content) {
        XmlElement<?> element = element();
        if (!content.isInstance(element.value())) {
            throw error("the content of <" + element.name().getLocalPart() + "> is not a " + content.getSimpleName());
        }
        return new XmlElement<>(element.name(), content.cast(element.value()));
    }

    /** Reads whatever element comes next as a tree, and all in it, even where types are named. */
    public XmlElement<?> wholeTree() {
        untyped = true;
        XmlElement<?> tree = tree();
        untyped = false;
        return tree;
    }

    /** Reads whatever element comes next as a tree. */
    public XmlElement<?> tree() {
        QName name = new QName(cursor.namespace(), cursor.localName());
        cursor.loadAttributes();
        return new XmlElement<>(name, fill(new XmlTree()));
    }

    /** Takes all attributes that nobody has taken. */
    public void anyAttributes(Map<QName, String> into) {
        take(into, namespace -> true);
    }

    /** Takes the attributes of another namespace than this one that nobody has taken. */
    public void otherAttributes(Map<QName, String> into, String namespace) {
        take(into, other -> !other.isEmpty() && !other.equals(namespace));
    }

    /** Takes the attributes of some namespaces that nobody has taken. */
    public void attributesOf(Map<QName, String> into, String... namespaces) {
        take(into, List.of(namespaces)::contains);
    }

    /** What the contract leaves open may hold names, so the prefixes that it may use stay declared. */
    private void take(Map<QName, String> into, Predicate<String> allowed) {
        Map<String, String> prefixes = new LinkedHashMap<>();
        cursor.takeAttributes(into, prefixes, allowed);
        if (!prefixes.isEmpty()) {
            current.notes().keepPrefixes(prefixes);
        }
    }

    /** Reads an element of a simple type. */
    public String text() {
        beforeText();
        return cursor.text();
    }

    /** Reads an element of binary content: its text, or nothing when the content is beside the message. */
    public String binaryText() {
        beforeText();
        return includedOrText();
    }

    /** Reads binary content of an element of which the attributes have been taken, in the way of {@link #binaryText}. */
    public String binaryBody() {
        String text = includedOrText();
        boolean empty = standard != null && text.isEmpty() && !hasIncluded();
        noteStandard(empty);
        return empty ? standard : text;
    }

    private String includedOrText() {
        String text = cursor.binaryText();
        setIncluded(cursor.takeIncluded(), cursor.bytes());
        return text;
    }

    private void beforeText() {
        cursor.loadAttributes();
        cursor.rejectUnknownAttributes();
        String stated = cursor.statedType();
        if (current != null && (stated != null || !cursor.instanceAttributes().isEmpty())) {
            QName type = stated == null ? null : cursor.resolve(stated);
            current.notes().keepChild(cursor.ordinal(), cursor.localName(), type, cursor.instanceAttributes());
        }
    }

    /**
     * Reads an element of a simple type that stands for a value of its own when it is empty (XML Schema Part 1, section
     * 3.3.1).
     */
    public String textOr(String standard) {
        String text = text();
        noteStandard(text.isEmpty());
        return text.isEmpty() ? standard : text;
    }

    /** Reads the text of an element of which the attributes have been taken. */
    public String body() {
        return cursor.text();
    }

    /** Reads the text of an element of which the attributes have been taken, or what an empty one stands for. */
    public String standardBody() {
        String text = cursor.text();
        boolean empty = standard != null && text.isEmpty();
        noteStandard(empty);
        return empty ? standard : text;
    }

    /** Reads mixed content into a list of strings and elements. */
    public void mixed(List<Object> content) {
        cursor.enterMixed();
        boolean more;
        do {
            String text = cursor.nextMixed();
            if (!text.isEmpty()) {
                content.add(text);
            }
            more = cursor.atMixedElement();
            if (more) {
                content.add(element(current.inner(cursor.namespace(), cursor.localName())));
            }
        } while (more);
        cursor.leave();
    }

    /**
     * Sets the attributes of a namespace aside from now on: they belong to an envelope and not to the content.
     *
     * @param namespace the namespace of the envelope
     */
    public void setAside(String namespace) {
        cursor.setAside(namespace);
    }

    /** An attribute set aside on the element that comes next, or null when it is absent. */
    public String asideAttribute(String name) {
        cursor.loadAttributes();
        return cursor.aside(name);
    }

    void takeAttributes(Map<QName, String> attributes, Map<String, String> prefixes) {
        cursor.takeAttributes(attributes, prefixes);
    }

    /** Takes an attribute, or gives null when it is absent. */
    public String attribute(String namespace, String name) {
        return cursor.attribute(namespace, name);
    }

    /** Takes an attribute that must be there. */
    public String requiredAttribute(String namespace, String name) {
        String value = cursor.attribute(namespace, name);
        if (value == null) {
            throw error("the required attribute " + name + " is missing");
        }
        return value;
    }

    /** The failure to report when something required does not come. */
    public XmlFormatException missing(String expected) {
        if (!cursor.atElement()) {
            return error("expected " + expected + ", but the element ends");
        }
        // Where both have the same name, what differs is the namespace.
        boolean alike = expected.equals("<" + localName() + ">");
        return error("expected " + expected + ", but <" + localName() + ">"
                + (alike ? " of namespace \"" + namespace() + "\"" : "") + " came");
    }

    private XmlFormatException unexpected() {
        return error("<" + localName() + ">"
                + (namespace().isEmpty() ? "" : " of namespace " + namespace())
                + " is not expected here");
    }

    /** The failure to report at this place of the message. */
    public XmlFormatException error(String message) {
        return cursor.error(message, null);
    }

    /** The failure to report for text that is not of the type expected. */
    @Override
    public XmlFormatException invalid(String text, String type) {
        return cursor.invalid(text, type);
    }

    /**
     * Makes sure that text was found among the values of an enumeration.
     *
     * @param found the value, or null when the text read last is none
     * @param type the name to show when there is none
     */
    public <T> T known(T found, String type) {
        if (found == null) {
            throw invalid(cursor.lastText(), type);
        }
        return found;
    }

    /** Reads {@code xs:QName} and {@code xs:NOTATION}: the prefix is looked up where the value stands. */
    public QName toQName(String text) {
        return cursor.resolve(text);
    }
}
