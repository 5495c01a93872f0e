package org.protypos.message.tree;

import java.util.LinkedHashMap;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.source.Xml;

/** Writes a message that was made up: indented where only elements stand, with all prefixes declared on the root. */
public final class MessageText {
    private final Map<String, String> prefixByNamespace = new LinkedHashMap<>();
    private final StringBuilder text = new StringBuilder();

    private MessageText() {}

    /** The text of a message, declaration and final line end included. Prefixes come from the root's declarations. */
    public static String of(MessageElement root) {
        MessageText writer = new MessageText();
        root.prefixes().forEach((prefix, namespace) -> writer.prefixByNamespace.put(namespace, prefix));
        writer.text.append("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
        writer.write(root, 0, true);
        return writer.text.append('\n').toString();
    }

    private String name(QName name) {
        String prefix = name.getNamespaceURI().equals(Xml.XML) ? "xml" : prefixByNamespace.get(name.getNamespaceURI());
        return prefix == null || prefix.isEmpty() ? name.getLocalPart() : prefix + ":" + name.getLocalPart();
    }

    private void write(MessageElement element, int depth, boolean indented) {
        String tag = name(element.name());
        text.append('<').append(tag);
        element.prefixes()
                .forEach((prefix, namespace) -> attribute(prefix.isEmpty() ? "xmlns" : "xmlns:" + prefix, namespace));
        element.attributes().forEach((name, value) -> attribute(name(name), value));
        if (element.content().isEmpty()) {
            text.append("/>");
            return;
        }
        text.append('>');
        boolean mixed = !indented || element.content().stream().anyMatch(String.class::isInstance);
        for (Object item : element.content()) {
            if (item instanceof MessageElement child) {
                if (!mixed) {
                    text.append('\n').append("  ".repeat(depth + 1));
                }
                write(child, depth + 1, !mixed);
            } else {
                escape((String) item, false);
            }
        }
        if (!mixed) {
            text.append('\n').append("  ".repeat(depth));
        }
        text.append("</").append(tag).append('>');
    }

    private void attribute(String name, String value) {
        text.append(' ').append(name).append("=\"");
        escape(value, true);
        text.append('"');
    }

    private void escape(String value, boolean attribute) {
        for (int i = 0; i < value.length(); i++) {
            char c = value.charAt(i);
            switch (c) {
                case '&' -> text.append("&amp;");
                case '<' -> text.append("&lt;");
                case '>' -> text.append("&gt;");
                case '\r' -> text.append("&#13;");
                case '"' -> text.append(attribute ? "&quot;" : "\"");
                case '\t', '\n' -> text.append(attribute ? "&#" + (int) c + ";" : String.valueOf(c));
                default -> text.append(c);
            }
        }
    }
}
