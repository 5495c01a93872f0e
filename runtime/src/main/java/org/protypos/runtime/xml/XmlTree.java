package org.protypos.runtime.xml;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.Attachment;

/**
 * Content that no type of the contract describes, kept as it came: attributes, text and elements in their order.
 */
public final class XmlTree extends XmlObject {
    // Trees are many, and most of them have little: each of these is there when somebody asks for it.
    private Map<QName, String> attributes;
    private Map<String, String> prefixes;
    private List<Object> content;

    /** The attributes by name; may be changed. */
    public Map<QName, String> attributes() {
        attributes = attributes == null ? new LinkedHashMap<>() : attributes;
        return attributes;
    }

    /** The prefixes that the content may use inside values, with their namespaces; may be changed. */
    public Map<String, String> prefixes() {
        prefixes = prefixes == null ? new LinkedHashMap<>() : prefixes;
        return prefixes;
    }

    /**
     * The content in its order: {@link String} for text, {@link XmlElement} for elements; may be changed. An {@link
     * Attachment} may be put in for binary content that is to travel beside the message; what came so is text.
     */
    public List<Object> content() {
        content = content == null ? new ArrayList<>() : content;
        return content;
    }

    private Map<QName, String> known() {
        return attributes == null ? Map.of() : attributes;
    }

    private List<Object> present() {
        return content == null ? List.of() : content;
    }

    /** The text of the content with that of the elements in it. */
    public String text() {
        StringBuilder text = new StringBuilder();
        for (Object item : present()) {
            if (item instanceof XmlElement<?> element) {
                text.append(
                        element.value() instanceof XmlTree tree
                                ? tree.text()
                                : element.value() instanceof XmlSimple simple ? simple.text() : "");
            } else if (item instanceof Attachment binary) {
                text.append(binary.toBase64());
            } else {
                text.append(item);
            }
        }
        return text.toString();
    }

    @Override
    Map<String, String> localPrefixes() {
        return prefixes == null ? Map.of() : prefixes;
    }

    @Override
    protected void readAttributes(XmlInput in) {
        in.beginTree();
        if (in.hasAttributes()) {
            in.takeAttributes(attributes(), prefixes());
        }
    }

    @Override
    protected void readBody(XmlInput in) {
        List<Object> came = new ArrayList<>();
        in.mixed(came);
        for (Object item : came) {
            Map<String, String> used = item instanceof String part ? in.prefixesInAny(part) : Map.of();
            if (!used.isEmpty()) {
                prefixes().putAll(used);
            }
        }
        content = came.isEmpty() ? null : came;
    }

    /** Reads the body of an element that says it is nil, which where nothing is declared need not mean that it has none. */
    void readNil(XmlInput in) {
        readBody(in);
        if (present().isEmpty()) {
            markNil(true);
        } else {
            attributes().put(new QName(Names.XSI, "nil"), "true");
        }
    }

    @Override
    protected void writeAttributes(XmlOutput out) {
        known().forEach((name, value) -> out.attribute(name.getNamespaceURI(), name.getLocalPart(), value));
    }

    @Override
    protected void writeBody(XmlOutput out) {
        out.mixed(present());
    }

    @Override
    protected void describe(Description to) {
        known().forEach((name, value) -> to.member(name.toString(), value));
        to.member("content", present());
    }

    @Override
    public boolean equals(Object other) {
        return super.equals(other)
                && ((XmlTree) other).known().equals(known())
                && ((XmlTree) other).present().equals(present());
    }

    @Override
    public int hashCode() {
        return known().hashCode() * 31 + present().hashCode();
    }
}
