package org.protypos.runtime.xml;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;

/**
 * A message being written. Namespaces are declared on the root element, each once, under the prefixes asked for or
 * under made-up ones; content that brings prefixes of its own declares them where it stands.
 */
public final class XmlOutput {
    private static final String DECLARATION = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n";

    private final XmlTypes types;
    private final Utf8Buffer body = new Utf8Buffer();
    private final Map<String, String> rootPrefixes = new HashMap<>();
    private final List<String[]> rootDeclarations = new ArrayList<>();
    private final List<String[]> localDeclarations = new ArrayList<>();
    private final Map<String, String> localPrefixes = new HashMap<>();
    private String[] openNames = new String[64];
    private int[] localCounts = new int[32];
    private int[] children = new int[33];
    private XmlObject current;
    private int depth;
    private boolean tagOpen;
    private int rootTagEnd = -1;
    private OutgoingPackage parts;
    private SharedValues shared;
    private String envelope;
    private boolean counting;
    private Set<String> onRoot = Set.of();
    private QName pendingType;

    /**
     * Starts a message.
     *
     * @param types what the contract declares by name
     */
    public XmlOutput(XmlTypes types) {
        this.types = types;
        rootPrefixes.put(Names.XML, "xml");
    }

    /** Says where binary content may go rather than into the message (XOP 1.0, section 3.1). */
    public void setParts(OutgoingPackage around) {
        parts = around;
    }

    /**
     * Writes in the SOAP encoding from now on: values say their types, and those that stand in several places are written
     * once.
     *
     * @param values knows which those are
     * @param trial whether nothing but that is to be found out
     */
    public void encode(SharedValues values, boolean trial) {
        shared = values;
        counting = trial;
    }

    /**
     * Says in what envelope it is written.
     *
     * @param namespace the namespace of the envelope
     */
    public void inEnvelope(String namespace) {
        envelope = namespace;
        prefer("soap", namespace);
    }

    /** Writes the values that others have referred to. */
    public void sharedValues() {
        for (XmlObject value : shared.all()) {
            open("", "shared", value.localPrefixes());
            attribute("", "id", shared.id(value));
            // SOAP 1.1, sections 4.1.1 and 5.6: they stand outside of the call that says how it is written, and are no
            // call.
            encodingStyle(envelope);
            attribute(Names.SOAP_ENCODING, "root", "0");
            stateType(value);
            content(value);
        }
    }

    /** Says of what type the element is that is written next, for encodings that want to be told. */
    public void typed(String namespace, String name) {
        if (shared != null) {
            pendingType = new QName(namespace, name);
        }
    }

    /**
     * Asks that a namespace be declared under a prefix.
     *
     * @param prefix the prefix, an NCName not used twice
     */
    public void prefer(String prefix, String namespace) {
        if (rootPrefixes.putIfAbsent(namespace, prefix) == null) {
            rootDeclarations.add(new String[] {prefix, namespace});
        }
    }

    private String prefix(String namespace) {
        String known = rootPrefixes.get(namespace);
        if (known == null) {
            known = freePrefix(namespace.equals(Names.XSI) ? "xsi" : namespace.equals(Names.XSD) ? "xs" : "n");
            rootPrefixes.put(namespace, known);
            rootDeclarations.add(new String[] {known, namespace});
        }
        return isHidden(known, namespace) ? null : known;
    }

    /** A prefix that the root element does not declare by itself. */
    private String freePrefix(String wanted) {
        String next = wanted + (rootDeclarations.size() + 1);
        String free = wanted.equals("n") ? next : wanted;
        for (int number = 1; onRoot.contains(free); number++) {
            free = next + "-" + number;
        }
        return free;
    }

    /** Whether a declaration inside the content hides that of the root. */
    private boolean isHidden(String prefix, String namespace) {
        String local = localDeclarations.isEmpty() ? null : localPrefixes.get(prefix);
        return local != null && !local.equals(namespace);
    }

    /** A prefix in place of one that is hidden, which no content declares by itself. */
    private String unused(String wanted) {
        String free = wanted;
        for (int number = 1; localPrefixes.containsKey(free); number++) {
            free = wanted + "-" + number;
        }
        return free;
    }

    /** The prefix to use inside the tag just opened, declared there when that of the root is hidden. */
    private String prefixInTag(String namespace) {
        String known = prefix(namespace);
        if (known == null) {
            known = unused("h" + depth + "-" + localDeclarations.size());
            declare(known, namespace);
        }
        return known;
    }

    /** Opens an element. */
    public void open(String namespace, String name) {
        open(namespace, name, Map.of());
    }

    /** Opens an element and declares prefixes on it, which its own name must not fall under. */
    private void open(String namespace, String name, Map<String, String> wanted) {
        closeTag();
        Map<String, String> prefixes = wanted.isEmpty() || localPrefixes.isEmpty() ? wanted : undeclared(wanted);
        if (depth == localCounts.length) {
            localCounts = Arrays.copyOf(localCounts, depth * 2);
            children = Arrays.copyOf(children, depth * 2 + 1);
            openNames = Arrays.copyOf(openNames, depth * 4);
        }
        localCounts[depth] = localDeclarations.size();
        if (depth == 0) {
            onRoot = prefixes.keySet();
        }
        prefixes.forEach(this::bind);
        String known = namespace.isEmpty() ? "" : prefix(namespace);
        String prefix = known == null ? unused("h" + depth) : known;
        openNames[2 * depth] = prefix;
        openNames[2 * depth + 1] = name;
        children[depth++]++;
        children[depth] = 0;
        body.ascii('<');
        qualified(prefix, name);
        tagOpen = true;
        prefixes.forEach((declared, uri) -> declaration(body, declared, uri));
        if (known == null) {
            declare(prefix, namespace);
        } else if (namespace.isEmpty() && isHidden("", "")) {
            declare("", "");
        }
    }

    /** The prefixes among some that do not stand for the same already where the next element begins. */
    private Map<String, String> undeclared(Map<String, String> wanted) {
        Map<String, String> missing = new LinkedHashMap<>(wanted);
        missing.entrySet().removeIf(one -> one.getValue().equals(localPrefixes.get(one.getKey())));
        return missing;
    }

    private void qualified(String prefix, String name) {
        if (!prefix.isEmpty()) {
            body.text(prefix);
            body.ascii(':');
        }
        body.text(name);
    }

    private void closeTag() {
        if (tagOpen) {
            if (depth == 1) {
                rootTagEnd = body.length();
            }
            body.ascii('>');
            tagOpen = false;
        }
    }

    /** Closes the element opened last. */
    public void close() {
        depth--;
        if (tagOpen) {
            if (depth == 0) {
                rootTagEnd = body.length();
            }
            body.text("/>");
            tagOpen = false;
        } else {
            body.text("</");
            qualified(openNames[2 * depth], openNames[2 * depth + 1]);
            body.ascii('>');
        }
        while (localDeclarations.size() > localCounts[depth]) {
            String[] ended = localDeclarations.remove(localDeclarations.size() - 1);
            if (ended[1] == null) {
                localPrefixes.remove(ended[0]);
            } else {
                localPrefixes.put(ended[0], ended[1]);
            }
        }
    }

    /** Notes a declaration inside the content, with what the prefix stood for there before it. */
    private void bind(String prefix, String namespace) {
        localDeclarations.add(new String[] {prefix, localPrefixes.put(prefix, namespace)});
    }

    /** Declares one more prefix on the element just opened. */
    private void declare(String prefix, String namespace) {
        bind(prefix, namespace);
        declaration(body, prefix, namespace);
    }

    private static void declaration(Utf8Buffer to, String prefix, String namespace) {
        to.text(prefix.isEmpty() ? " xmlns" : " xmlns:");
        to.text(prefix);
        to.text("=\"");
        to.escaped(namespace, true);
        to.ascii('"');
    }

    /** Adds an attribute to the element just opened, unless the value is null. */
    public void attribute(String namespace, String name, String value) {
        if (value == null) {
            return;
        }
        String prefix = namespace.isEmpty() ? "" : prefixInTag(namespace);
        body.ascii(' ');
        qualified(prefix, name);
        body.text("=\"");
        body.escaped(value, true);
        body.ascii('"');
    }

    /** Writes text content. */
    public void text(String value) {
        closeTag();
        body.escaped(value, false);
    }

    /** The text of a qualified name, its namespace declared; asked for while its tag is open (XML Schema Part 2, section 3.2.18). */
    public String name(QName name) {
        if (!name.getNamespaceURI().isEmpty()) {
            return prefixInTag(name.getNamespaceURI()) + ":" + name.getLocalPart();
        }
        if (isHidden("", "")) {
            declare("", "");
        }
        return name.getLocalPart();
    }

    /** Writes an element of a simple type, unless the value is null. */
    public void element(String namespace, String name, String value) {
        if (value == null) {
            pendingType = null;
            return;
        }
        Notes.Child note = note(name);
        Notes.Child kept = note == null ? null : note.before(value);
        if (extended(namespace, name, kept)) {
            return;
        }
        openChild(namespace, name, kept);
        if (!value.isEmpty()) {
            text(value);
        }
        close();
    }

    /** What the message had on the child that is about to be written and its type has no place for, or null. */
    private Notes.Child note(String name) {
        Notes notes = current == null || pendingType != null ? null : current.notesIfAny();
        return notes == null ? null : notes.child(children[depth] + 1, name);
    }

    /** Writes the value of a complex type that stood for a simple one, if there is one. */
    private boolean extended(String namespace, String name, Notes.Child kept) {
        XmlObject extension = kept == null ? null : kept.extension();
        object(namespace, name, extension, null);
        return extension != null;
    }

    /** Opens an element of a simple type, with what the message had on it beside its value. */
    private void openChild(String namespace, String name, Notes.Child kept) {
        open(namespace, name, kept == null ? Map.of() : kept.prefixes());
        if (pendingType != null) {
            attribute(Names.XSI, "type", name(pendingType));
            pendingType = null;
        } else if (kept != null) {
            kept.write(this);
        }
    }

    /** Opens an element of a simple type of which the text depends on what is declared there. */
    public void openChild(String namespace, String name) {
        Notes.Child note = note(name);
        openChild(namespace, name, note == null ? null : note.anew(true));
    }

    /**
     * Writes an element that refers to binary content beside the message, if there is a place for it.
     *
     * @return whether that was done, so that the content need not go into the message
     */
    public boolean attached(String namespace, String name, byte[] value) {
        return parts != null && parts.takes(value.length) && refer(namespace, name, Attachment.of(value));
    }

    /** Does what {@link #attached(String, String, byte[])} does for content that need not fit into memory. */
    public boolean attached(String namespace, String name, Attachment value) {
        return parts != null && parts.takes(value.length()) && refer(namespace, name, value);
    }

    /** Refers to binary content beside the message from the element just opened, if there is a place for it. */
    public boolean attached(byte[] value) {
        return parts != null && parts.takes(value.length) && refer(Attachment.of(value));
    }

    /** Does what {@link #attached(byte[])} does for content that need not fit into memory. */
    public boolean attached(Attachment value) {
        return parts != null && parts.takes(value.length()) && refer(value);
    }

    private boolean refer(String namespace, String name, Attachment value) {
        Notes.Child note = note(name);
        Notes.Child kept = note == null ? null : note.before(value);
        if (!extended(namespace, name, kept)) {
            openChild(namespace, name, kept);
            refer(value);
            close();
        }
        return true;
    }

    private boolean refer(Attachment value) {
        open(Names.XOP, "Include");
        attribute("", "href", parts.refer(value));
        close();
        return true;
    }

    /** Writes an element that is nil and has nothing else. */
    public void nil(String namespace, String name) {
        Notes.Child note = note(name);
        Notes.Child kept = note == null ? null : note.before((String) null);
        if (extended(namespace, name, kept)) {
            return;
        }
        openChild(namespace, name, kept);
        attribute(Names.XSI, "nil", "true");
        close();
    }

    /**
     * Writes an element of a complex type, unless the value is null.
     *
     * @param declared the class of the declared type: a value of another class says so with {@code xsi:type}
     */
    public void object(String namespace, String name, XmlObject value, Class<? extends XmlObject> declared) {
        if (value == null) {
            return;
        }
        if (shared != null && isElsewhere(namespace, name, value)) {
            return;
        }
        open(namespace, name, value.localPrefixes());
        if (value.getClass() != declared || value.typeStated() || shared != null) {
            stateType(value);
        }
        content(value);
    }

    /** Refers to a value that is written elsewhere, because it stands in several places. */
    private boolean isElsewhere(String namespace, String name, XmlObject value) {
        if (counting) {
            return shared.meet(value);
        }
        String id = shared.id(value);
        if (id != null) {
            open(namespace, name);
            attribute("", "href", "#" + id);
            close();
        }
        return id != null;
    }

    /** Says on the tag just opened that it is an array of so many items (SOAP 1.1, section 5.4.2). */
    public void arrayOf(String namespace, String type, int size) {
        attribute(Names.SOAP_ENCODING, "arrayType", name(new QName(namespace, type)) + "[" + size + "]");
    }

    /** Says on the tag just opened that what is in it is in the SOAP encoding (SOAP 1.1, section 4.1.1). */
    public void encodingStyle(String envelope) {
        attribute(this.envelope == null ? envelope : this.envelope, "encodingStyle", Names.SOAP_ENCODING);
    }

    /** Writes an element of type {@code xs:anyType}, unless the value is null. */
    public void any(String namespace, String name, XmlObject value) {
        object(namespace, name, value, XmlTree.class);
    }

    private void stateType(XmlObject value) {
        QName type = value.xmlType();
        if (type != null) {
            attribute(Names.XSI, "type", name(type));
        }
    }

    private void content(XmlObject value) {
        if (value.nil()) {
            attribute(Names.XSI, "nil", "true");
        }
        if (value.notesIfAny() != null) {
            value.notesIfAny().writeOwn(this);
        }
        XmlObject around = current;
        current = value;
        value.writeAttributes(this);
        if (!value.nil()) {
            value.writeBody(this);
        }
        current = around;
        close();
    }

    /** Writes an element of which the contract leaves the name open. */
    public void element(XmlElement<?> element) {
        QName name = element.name();
        element(element, types.element(name.getNamespaceURI(), name.getLocalPart()));
    }

    private void element(XmlElement<?> element, XmlObject declared) {
        QName name = element.name();
        object(
                name.getNamespaceURI(),
                name.getLocalPart(),
                element.value(),
                declared == null ? XmlTree.class : declared.getClass());
    }

    /** Writes the members of a model group, which has no element of its own. */
    public void group(XmlObject group) {
        group.writeElements(this);
    }

    /** Writes an element that holds a qualified name, unless the value is null. */
    public void element(String namespace, String name, QName value) {
        Notes.Child note = value == null ? null : note(name);
        Notes.Child kept = note == null ? null : note.before(value);
        if (value != null && !extended(namespace, name, kept)) {
            openChild(namespace, name, kept);
            text(name(value));
            close();
        }
        pendingType = null;
    }

    /** Adds an attribute that holds a qualified name, unless the value is null. */
    public void attribute(String namespace, String name, QName value) {
        if (value != null) {
            attribute(namespace, name, name(value));
        }
    }

    /** Adds attributes of which the contract leaves the names open. */
    public void attributes(Map<QName, String> attributes) {
        attributes.forEach((name, value) -> attribute(name.getNamespaceURI(), name.getLocalPart(), value));
    }

    /** Writes strings, elements and binary content in their order. */
    public void mixed(List<Object> content) {
        for (Object item : content) {
            if (item instanceof XmlElement<?> element) {
                String namespace = element.name().getNamespaceURI();
                XmlObject declared = current.inner(namespace, element.name().getLocalPart());
                element(
                        element,
                        declared != null
                                ? declared
                                : types.element(namespace, element.name().getLocalPart()));
            } else if (item instanceof Attachment binary) {
                if (!attached(binary)) {
                    text(binary.toBase64());
                }
            } else {
                text((String) item);
            }
        }
    }

    /**
     * Ends the message.
     *
     * @return the whole document in UTF-8; nothing when nothing was written
     */
    public byte[] finish() {
        if (rootTagEnd < 0) {
            return new byte[0];
        }
        Utf8Buffer declarations = new Utf8Buffer();
        for (String[] declared : rootDeclarations) {
            declaration(declarations, declared[0], declared[1]);
        }
        byte[] start = DECLARATION.getBytes(StandardCharsets.US_ASCII);
        byte[] whole = new byte[start.length + declarations.length() + body.length()];
        System.arraycopy(start, 0, whole, 0, start.length);
        body.copy(0, rootTagEnd, whole, start.length);
        declarations.copy(0, declarations.length(), whole, start.length + rootTagEnd);
        body.copy(rootTagEnd, body.length(), whole, start.length + rootTagEnd + declarations.length());
        return whole;
    }
}
