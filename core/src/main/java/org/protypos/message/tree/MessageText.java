package org.protypos.message.tree;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;

/** Writes a message: indented where only elements stand. Names get prefixes that are declared around, or else new ones. */
public final class MessageText {
    private final StringBuilder text = new StringBuilder();

    private MessageText() {}

    /** The prefixes that are declared at some place, by name and by namespace. */
    private record Scope(Map<String, String> namespaces, Map<String, String> prefixes) {
        Scope with(Map<String, String> declared) {
            if (declared.isEmpty()) {
                return this;
            }
            Map<String, String> all = new LinkedHashMap<>(namespaces);
            all.putAll(declared);
            Map<String, String> byNamespace = new HashMap<>();
            all.forEach((prefix, namespace) -> {
                if (!prefix.isEmpty() || !byNamespace.containsKey(namespace)) {
                    byNamespace.put(namespace, prefix);
                }
            });
            return new Scope(all, byNamespace);
        }

        /** Adds what the name of an element or an attribute still needs. */
        void need(QName name, boolean attribute, Map<String, String> declared) {
            String namespace = name.getNamespaceURI();
            if (namespace.isEmpty()) {
                String outer = declared.getOrDefault("", namespaces.getOrDefault("", ""));
                if (!attribute && !outer.isEmpty()) {
                    declared.put("", "");
                }
                return;
            }
            String prefix = prefixes.get(namespace);
            boolean hidden = prefix == null
                    || declared.containsKey(prefix) && !declared.get(prefix).equals(namespace)
                    || attribute && prefix.isEmpty();
            boolean there = declared.entrySet().stream()
                    .anyMatch(one -> one.getValue().equals(namespace)
                            && !(attribute && one.getKey().isEmpty()));
            if (hidden && !there && !namespace.equals(Xml.XML)) {
                int number = 1;
                while (namespaces.containsKey("n" + number) || declared.containsKey("n" + number)) {
                    number++;
                }
                declared.put("n" + number, namespace);
            }
        }

        String name(QName name) {
            String prefix = name.getNamespaceURI().equals(Xml.XML) ? "xml" : prefixes.get(name.getNamespaceURI());
            return name.getNamespaceURI().isEmpty() || prefix == null || prefix.isEmpty()
                    ? name.getLocalPart()
                    : prefix + ":" + name.getLocalPart();
        }
    }

    /** The text of a message, declaration and final line end included. */
    public static String of(MessageElement root) {
        MessageText writer = new MessageText();
        writer.text.append("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
        writer.write(root, 0, true, new Scope(Map.of(), Map.of()));
        return writer.text.append('\n').toString();
    }

    /** The text of an element alone, without white space of its own. */
    public static String compact(MessageElement root) {
        MessageText writer = new MessageText();
        writer.write(root, 0, false, new Scope(Map.of(), Map.of()));
        return writer.text.toString();
    }

    private void write(MessageElement element, int depth, boolean indented, Scope around) {
        Map<String, String> declared = new LinkedHashMap<>(element.prefixes());
        around.need(element.name(), false, declared);
        element.attributes().keySet().forEach(name -> around.need(name, true, declared));
        Scope scope = around.with(declared);
        String tag = scope.name(element.name());
        text.append('<').append(tag);
        declared.forEach((prefix, namespace) -> attribute(prefix.isEmpty() ? "xmlns" : "xmlns:" + prefix, namespace));
        element.attributes().forEach((name, value) -> attribute(scope.name(name), value));
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
                write(child, depth + 1, !mixed, scope);
            } else {
                text.append(XmlText.escaped((String) item, false));
            }
        }
        if (!mixed) {
            text.append('\n').append("  ".repeat(depth));
        }
        text.append("</").append(tag).append('>');
    }

    private void attribute(String name, String value) {
        text.append(' ').append(name).append("=\"");
        text.append(XmlText.escaped(value, true));
        text.append('"');
    }
}
