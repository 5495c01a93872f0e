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
    private final Map<QName, String> attributes = new LinkedHashMap<>();
    private final Map<String, String> prefixes = new LinkedHashMap<>();
    private final List<Object> content = new ArrayList<>();

    /** The attributes by name; may be changed. */
    public Map<QName, String> attributes() {
        return attributes;
    }

    /** The prefixes that the content may use inside values, with their namespaces; may be changed. */
    public Map<String, String> prefixes() {
        return prefixes;
    }

    /**
     * The content in its order: {@link String} for text, {@link XmlElement} for elements; may be changed. An {@link
     * Attachment} may be put in for binary content that is to travel beside the message; what came so is text.
     */
    public List<Object> content() {
        return content;
    }

    /** The text of the content with that of the elements in it. */
    public String text() {
        StringBuilder text = new StringBuilder();
        for (Object item : content) {
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
        return prefixes;
    }

    @Override
    protected void readAttributes(XmlInput in) {
        in.takeAttributes(attributes, prefixes);
    }

    @Override
    protected void readBody(XmlInput in) {
        in.mixed(content);
        for (Object item : content) {
            if (item instanceof String part) {
                prefixes.putAll(in.prefixesIn(part, false));
            }
        }
    }

    @Override
    protected void writeAttributes(XmlOutput out) {
        attributes.forEach((name, value) -> out.attribute(name.getNamespaceURI(), name.getLocalPart(), value));
    }

    @Override
    protected void writeBody(XmlOutput out) {
        out.mixed(content);
    }

    @Override
    protected void describe(Description to) {
        attributes.forEach((name, value) -> to.member(name.toString(), value));
        to.member("content", content);
    }

    @Override
    public boolean equals(Object other) {
        return super.equals(other)
                && ((XmlTree) other).attributes.equals(attributes)
                && ((XmlTree) other).content.equals(content);
    }

    @Override
    public int hashCode() {
        return attributes.hashCode() * 31 + content.hashCode();
    }
}
