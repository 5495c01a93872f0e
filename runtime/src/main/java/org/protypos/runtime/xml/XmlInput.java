package org.protypos.runtime.xml;

import java.io.InputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.MimePackage;
import org.protypos.runtime.parse.MessageScanner;

/**
 * A message being read, element by element, by the types it is made of.
 *
 * <p>The input stands either on the start tag of an element not yet taken, or on the end tag of the element around it.
 * Reading methods take one whole element and leave the input behind it. Every method throws
 * {@link XmlFormatException} when the message is not well-formed, breaks the contract or passes a limit.
 */
public final class XmlInput extends TextInput {
    private static final int MOST_HEADS = 100;

    private SharedValues shared;
    private boolean keepForeign;
    private boolean untyped;

    XmlInput(XmlCursor cursor, XmlTypes types) {
        super(cursor, types);
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
        return new XmlInput(new XmlCursor(XmlCursor.parser(stream, encoding, limits), limits, null), types);
    }

    /** Opens a message with a scanner that may have read others. */
    static XmlInput open(MessageScanner parser, InputStream stream, String encoding, XmlTypes types, XmlLimits limits) {
        return new XmlInput(new XmlCursor(XmlCursor.parser(parser, stream, encoding, limits), limits, null), types);
    }

    /** Ends the reading. */
    void close() {
        cursor.close();
    }

    /** Says which package the message is the root of: binary content may be in its parts (XOP 1.0, section 3.2). */
    public void setParts(MimePackage around) {
        cursor.setParts(around);
    }

    /** From now on elements may be {@linkplain #markShared marked} as copies: they are read as one value. */
    public void setShared(SharedValues values) {
        shared = values;
        attributes.setSharing();
    }

    /** Marks an element as a copy of one that the message refers to by an identifier. */
    public static void markShared(XmlTree copy, String id) {
        copy.attributes().put(new QName(Names.SHARED, "id"), id);
    }

    /** Whether an element of this name comes next. */
    public boolean at(String namespace, String name) {
        lacking = false;
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
        lacking = false;
        if (cursor.isLenient()) {
            cursor.passOverRest(this::unexpected);
        } else if (cursor.atElement()) {
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
        if (takeLacking()) {
            return null;
        }
        cursor.loadAttributes();
        String id = attributes.shared();
        if (id != null && declared.isInstance(shared.known(id))) {
            cursor.skip();
            return declared.cast(shared.known(id));
        }
        String stated = attributes.statedType();
        T value = stated == null ? plain : stated(declared, plain, stated);
        if (value != null) {
            if (id != null) {
                shared.keep(id, value);
            }
            return fill(value);
        }
        if (stated == null) {
            cursor.tolerate(error("the type " + declared.getSimpleName()
                    + " is abstract: xsi:type must say which type derived from it is meant"));
        }
        cursor.skip();
        return null;
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
        QName name = toQName(stated);
        if (name == null) {
            return plain;
        }
        if (plain != null && name.equals(plain.xmlType())) {
            plain.stateType();
            return plain;
        }
        XmlObject value = types.typeOrBuiltin(name.getNamespaceURI(), name.getLocalPart());
        if (value == null) {
            cursor.tolerate(
                    error("xsi:type names " + name + ", a type that the contract does not have or that is abstract"));
            return plain;
        }
        if (!declared.isInstance(value)) {
            cursor.tolerate(
                    error("xsi:type names " + name + ", which is not derived from " + declared.getSimpleName()));
            return plain;
        }
        value.stateType();
        return declared.cast(value);
    }

    /** Reads an element of type {@code xs:anyType}: typed when {@code xsi:type} says how, as a tree otherwise. */
    public XmlObject any() {
        if (takeLacking()) {
            return null;
        }
        cursor.loadAttributes();
        XmlObject value = statedOrNull();
        return fill(value == null ? new XmlTree() : value);
    }

    /** An empty value of the type that the element being read names; null when it names none, or one that nobody knows. */
    private XmlObject statedOrNull() {
        String stated = attributes.statedType();
        QName name = stated == null ? null : toQName(stated);
        XmlObject value = name == null ? null : types.typeOrBuiltin(name.getNamespaceURI(), name.getLocalPart());
        if (value != null) {
            value.stateType();
        }
        return value;
    }

    /** Reads whatever element comes next: typed when the contract declares it, as a tree otherwise. */
    public XmlElement<?> element() {
        return element(null);
    }

    /**
     * Reads a header block, which may carry attributes of other namespaces than its own, whatever its type says of them: an
     * identifier to sign it by, a language (SOAP 1.1, section 4.2; Web Services Security 1.1, section 4.2). They stay with it.
     */
    public XmlElement<?> block() {
        keepForeign = true;
        XmlElement<?> block = element();
        keepForeign = false;
        return block;
    }

    private XmlElement<?> element(XmlObject inner) {
        if (untyped) {
            return tree();
        }
        if (takeLacking()) {
            return null;
        }
        QName name = new QName(cursor.namespace(), cursor.localName());
        cursor.loadAttributes();
        XmlObject declared = inner != null ? inner : types.element(name.getNamespaceURI(), name.getLocalPart());
        XmlObject value = attributes.statedType() == null ? declared : statedOrNull();
        boolean known = value != null;
        if (!known) {
            value = new XmlTree();
        } else if (value != declared && declared != null && declared.standing() != null) {
            XmlTypes.standing(value, declared.standing());
        }
        XmlElement<?> element = new XmlElement<>(name, fill(value, known));
        standard = null;
        return element;
    }

    /** Makes sure that a part was among those that may come in any order. */
    public void came(int[] parts, int count, int wanted, String expected) {
        for (int i = 0; i < count; i++) {
            if (parts[i] == wanted) {
                return;
            }
        }
        cursor.tolerate(missing(expected));
    }

    /** Reads the members of a model group, which has no element of its own. */
    public <T extends XmlObject> T group(T group) {
        if (takeLacking()) {
            return null;
        }
        cursor.afford(group);
        group.readElements(this);
        return group;
    }

    private <T extends XmlObject> T fill(T value) {
        return fill(value, true);
    }

    /** Reads an element into a value; what nobody has declared may say that it is nil and have content all the same. */
    private <T extends XmlObject> T fill(T value, boolean declared) {
        if (value.standing() != null) {
            standard = value.standing();
        }
        boolean nil = attributes.statedNil();
        if (!attributes.ofInstance().isEmpty() && !(value instanceof XmlTree)) {
            cursor.affordNotes(value, 0, 0);
            value.notes().keepOwn(attributes.ofInstance());
        }
        cursor.afford(value);
        XmlObject around = current;
        boolean foreign = keepForeign;
        keepForeign = false;
        current = value;
        value.readAttributes(this);
        if (foreign && !(value instanceof XmlTree)) {
            Map<QName, String> kept = new LinkedHashMap<>();
            take(kept, namespace -> !namespace.isEmpty());
            value.notes().keepForeign(kept);
        }
        cursor.rejectUnknownAttributes();
        if (nil && !declared && value instanceof XmlTree tree) {
            tree.readNil(this);
        } else if (nil) {
            value.markNil(true);
            cursor.enter();
            leave();
        } else {
            value.readBody(this);
        }
        current = around;
        takeRefused();
        return value;
    }

    /**
     * Takes the element that comes next if it is nil and says nothing else, and tells whether it did. The type that it may
     * name is kept.
     */
    public boolean takeNil() {
        return takeNil(false);
    }

    /** Does what {@link #takeNil} does for an element of a simple type: what a type that it names adds to it is kept. */
    public boolean takeSimpleNil() {
        return takeNil(true);
    }

    private boolean takeNil(boolean simple) {
        if (lacking) {
            return false;
        }
        cursor.loadAttributes();
        if (!attributes.statedNil()) {
            return false;
        }
        QName type = statedName();
        XmlObject extension = type != null && attributes.areThere() ? types.complexType(type) : null;
        if (attributes.areThere() && !(simple && extension != null)) {
            return false;
        }
        Map<String, String> instance = attributes.ofInstance();
        if (current != null && (type != null || !instance.isEmpty())) {
            keepChild(new Notes.Child(
                    cursor.ordinal(), cursor.localName(), null, null, type, instance, Map.of(), extension));
        }
        if (extension != null) {
            XmlObject around = current;
            cursor.afford(extension);
            extension.stateType();
            extension.markNil(true);
            fillAttributes(extension);
            current = around;
        }
        cursor.enter();
        leave();
        return true;
    }

    /** Makes sure that an element of this name comes next; a lenient reading goes on without it. */
    public void expect(String namespace, String name) {
        if (!isOnItsWay(namespace, name)) {
            lack("<" + name + ">");
        }
    }

    /** Makes sure that an element of this name comes next, without which nothing can be read. */
    public void demand(String namespace, String name) {
        if (!isOnItsWay(namespace, name)) {
            throw missing("<" + name + ">");
        }
    }

    /**
     * Makes sure that an element comes, whatever it is called.
     *
     * @param name what it is called as a rule
     */
    public void demandAny(String name) {
        if (!cursor.atElement()) {
            throw missing("<" + name + ">");
        }
    }

    private boolean isOnItsWay(String namespace, String name) {
        lacking = false;
        if (cursor.at(namespace, name)) {
            return true;
        }
        cursor.makeWayFor(name);
        return false;
    }

    /** Says that something required does not come next; a lenient reading gives nothing to who reads it nevertheless. */
    public void lack(String expected) {
        cursor.tolerate(missing(expected));
        lacking = true;
    }

    /** Adds what was read to a list, unless a lenient reading has passed over it. */
    public <T> void add(List<? super T> list, T value) {
        if (value != null && !takeRefused()) {
            list.add(value);
        }
    }

    /** Gives what was read, or nothing when a lenient reading has passed over it. */
    public <T> T given(T value) {
        return takeRefused() ? null : value;
    }

    /** Whether an element comes next that may stand for the head of a substitution group, or the head itself. */
    public boolean atMember(String namespace, String head) {
        lacking = false;
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
        if (element == null) {
            return null;
        }
        if (!content.isInstance(element.value())) {
            cursor.tolerate(error(
                    "the content of <" + element.name().getLocalPart() + "> is not a " + content.getSimpleName()));
            return null;
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
        if (takeLacking()) {
            return null;
        }
        QName name = new QName(cursor.namespace(), cursor.localName());
        cursor.loadAttributes();
        return new XmlElement<>(name, fill(new XmlTree(), false));
    }

    @Override
    String extended(XmlObject extension, QName type) {
        XmlObject around = current;
        cursor.afford(extension);
        extension.stateType();
        bodyText = null;
        hadIncluded = null;
        String own = standard;
        fillAttributes(extension);
        standard = own;
        extension.readBody(this);
        standard = null;
        current = around;
        if (bodyText == null) {
            cursor.tolerate(error("xsi:type names " + type + ", which holds elements where the contract has text"));
            return null;
        }
        if (hadIncluded != null) {
            setIncluded(hadIncluded, cursor.bytes());
        }
        return bodyText;
    }

    private void fillAttributes(XmlObject value) {
        if (!attributes.ofInstance().isEmpty()) {
            value.notes().keepOwn(attributes.ofInstance());
        }
        current = value;
        value.readAttributes(this);
        cursor.rejectUnknownAttributes();
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
        attributes.setAside(namespace);
    }

    /** An attribute set aside on the element that comes next, or null when it is absent. */
    public String asideAttribute(String name) {
        cursor.loadAttributes();
        return attributes.aside(name);
    }

    /** Whether the element being read has any attribute but nil. */
    boolean hasAttributes() {
        return attributes.areAnyThere();
    }

    /** The element being read is kept as it is. */
    void beginTree() {
        cursor.noteDefault();
    }

    void takeAttributes(Map<QName, String> into, Map<String, String> prefixes) {
        attributes.takeAll(into, prefixes);
    }

    private XmlFormatException unexpected() {
        return error("<" + localName() + ">"
                + (namespace().isEmpty() ? "" : " of namespace " + namespace())
                + " is not expected here");
    }
}
