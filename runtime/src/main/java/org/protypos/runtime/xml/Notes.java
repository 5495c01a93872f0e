package org.protypos.runtime.xml;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.value.Lexical;

/**
 * What a message said in another way than we would: values written out of the ordinary, such as {@code 007} or
 * {@code 1} for true, and elements that may come in any order. It is kept so that nothing changes in a message that is
 * read and written again, and it is no part of what a value means.
 */
final class Notes {
    private final List<Text> texts = new ArrayList<>();
    private List<Child> children = List.of();
    private Map<String, String> own = Map.of();
    private Map<QName, String> foreign = Map.of();
    private Map<String, String> prefixes = Map.of();
    private int[] order;
    private String standing;

    /** Says what an element stands for when it is empty. */
    void stand(String text) {
        standing = text;
    }

    /** What an element stands for when it is empty, or null. */
    String standing() {
        return standing;
    }

    /** A value in the ordinary and in the original way of writing, with the member it belongs to. */
    private record Text(String member, int index, String ordinary, String original) {}

    void keep(String member, int index, String ordinary, String original) {
        texts.add(new Text(member, index, ordinary, original));
    }

    /** The original way of writing, if the value is still the same; the ordinary one otherwise. */
    String text(String member, int index, String ordinary) {
        for (Text text : texts) {
            if (text.index == index && text.member.equals(member) && text.ordinary.equals(ordinary)) {
                return text.original;
            }
        }
        return ordinary;
    }

    /**
     * What the message said about a child of a simple type beside its value.
     *
     * @param ordinal which child of the element it is, from 1
     * @param text the text it had, or null when it was nil
     * @param content what it referred to instead of having text, or null
     * @param type the type that {@code xsi:type} named, or null
     * @param instance other attributes of the instance namespace
     * @param prefixes those that the text uses or may use, with their namespaces
     * @param extension the value of that type when it is a complex one, which has attributes, or null
     */
    record Child(
            int ordinal,
            String name,
            String text,
            Attachment content,
            QName type,
            Map<String, String> instance,
            Map<String, String> prefixes,
            XmlObject extension) {
        /** The prefixes to declare: those of a text that is still the same. */
        Map<String, String> prefixesOf(String written) {
            return prefixes.isEmpty() || !isSame(written) ? Map.of() : prefixes;
        }

        /**
         * The value of a complex type that stood for a simple one, if the child still is that value; otherwise null.
         *
         * @param written what is about to be written, null for nil
         */
        XmlObject extensionOf(String written) {
            return extension != null && isSame(written) ? extension : null;
        }

        /** Does the same for a qualified name, which is the same under another prefix. */
        XmlObject extensionOf(QName written) {
            if (extension == null || text == null) {
                return null;
            }
            String came = Lexical.collapse(text);
            int colon = came.indexOf(':');
            String prefix = came.substring(0, Math.max(0, colon));
            String namespace = prefix.equals("xml") ? XMLConstants.XML_NS_URI : prefixes.getOrDefault(prefix, "");
            boolean same = came.substring(colon + 1).equals(written.getLocalPart())
                    && namespace.equals(written.getNamespaceURI());
            return same ? extension : null;
        }

        /** Does the same for binary content that is about to be referred to. */
        XmlObject extensionOf(Attachment written) {
            if (extension == null || text == null) {
                return null;
            }
            boolean same = content == null ? isSame(written.toBase64()) : content.equals(written);
            return same ? extension : null;
        }

        /** Whether what is about to be written is the text that came, or what it referred to; null is nil. */
        private boolean isSame(String written) {
            if (content != null && written != null) {
                return written.equals(content.toBase64());
            }
            return text == null || written == null
                    ? text == written
                    : Lexical.collapse(text).equals(Lexical.collapse(written));
        }

        /** Says again what was said beside the value; a type that adds to it goes with what it added. */
        void write(XmlOutput out) {
            if (type != null && extension == null) {
                out.attribute(Names.XSI, "type", out.name(type));
            }
            instance.forEach((attribute, value) -> out.attribute(Names.XSI, attribute, value));
        }
    }

    void keepChild(Child child) {
        children = children.isEmpty() ? new ArrayList<>() : children;
        children.add(child);
    }

    /** What was said about a child, if the child in that place is still of that name; otherwise null. */
    Child child(int ordinal, String name) {
        for (Child child : children) {
            if (child.ordinal == ordinal && child.name.equals(name)) {
                return child;
            }
        }
        return null;
    }

    /** The values of complex types that stood for children of a name. */
    List<XmlObject> extensions(String name) {
        List<XmlObject> found = new ArrayList<>();
        for (Child child : children) {
            if (child.extension != null && (name == null || child.name.equals(name))) {
                found.add(child.extension);
            }
        }
        return found;
    }

    void keepPrefixes(Map<String, String> declared) {
        prefixes = prefixes.isEmpty() ? new LinkedHashMap<>() : prefixes;
        prefixes.putAll(declared);
    }

    Map<String, String> prefixes() {
        return prefixes;
    }

    void keepOwn(Map<String, String> instance) {
        own = instance;
    }

    /** Keeps attributes of which the type says nothing. */
    void keepForeign(Map<QName, String> attributes) {
        foreign = attributes;
    }

    void writeOwn(XmlOutput out) {
        own.forEach((name, value) -> out.attribute(Names.XSI, name, value));
        foreign.forEach((name, value) -> out.attribute(name.getNamespaceURI(), name.getLocalPart(), value));
    }

    void keepOrder(int[] parts, int count) {
        order = Arrays.copyOf(parts, count);
    }

    /** The parts in the order in which they came, the ones that did not come behind them. */
    int[] order(int count) {
        int[] all = new int[count];
        int filled = 0;
        boolean[] done = new boolean[count];
        for (int part : order == null ? new int[0] : order) {
            if (!done[part]) {
                done[part] = true;
                all[filled++] = part;
            }
        }
        for (int part = 0; part < count; part++) {
            if (!done[part]) {
                all[filled++] = part;
            }
        }
        return all;
    }
}
