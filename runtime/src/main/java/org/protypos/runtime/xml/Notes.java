package org.protypos.runtime.xml;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.ToIntFunction;
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
    private List<Text> texts = List.of();
    private Map<String, List<Text>> further = Map.of();
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

    /** A value in the ordinary and in the original way of writing, with its member and its place among those of that. */
    private record Text(String member, int index, String ordinary, String original) {}

    /** Keeps the original way of writing; those of a member come in the order of their places. */
    void keep(String member, int index, String ordinary, String original) {
        Text text = new Text(member, index, ordinary, original);
        if (index == 0) {
            texts = texts.isEmpty() ? new ArrayList<>(2) : texts;
            texts.add(text);
        } else {
            further = further.isEmpty() ? new HashMap<>() : further;
            further.computeIfAbsent(member, none -> new ArrayList<>()).add(text);
        }
    }

    /** The original way of writing, if the value is still the same; otherwise null. */
    String text(String member, int index, String ordinary) {
        // Of first values there are as many as members, of further ones as many as somebody sends.
        List<Text> kept = index == 0 ? texts : further.getOrDefault(member, List.of());
        for (int i = first(kept, index, Text::index); i < kept.size() && kept.get(i).index == index; i++) {
            Text text = kept.get(i);
            if (text.member.equals(member) && text.ordinary.equals(ordinary)) {
                return text.original;
            }
        }
        return null;
    }

    /** Where the first of some is that has a place or one behind it, for they are in order and may be many. */
    private static <T> int first(List<T> of, int place, ToIntFunction<T> places) {
        int low = 0;
        int high = of.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (places.applyAsInt(of.get(middle)) < place) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
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
        /** What is still true when a text is written in its place, or nothing, which is null. */
        Child before(String written) {
            return isSame(written) ? this : anew(written != null && isOfBuiltin(written));
        }

        /** What is still true when a qualified name is written in its place, which is the same under another prefix. */
        Child before(QName written) {
            return isSame(written)
                    ? new Child(ordinal, name, text, content, type, instance, Map.of(), extension)
                    : anew(false);
        }

        /** What is still true when binary content is referred to in its place. */
        Child before(Attachment written) {
            boolean same = content == null ? isSame(written.toBase64()) : content.equals(written);
            return same ? this : anew(false);
        }

        /** What is true of any value in its place. */
        Child anew(boolean typed) {
            QName own = typed && extension == null ? type : null;
            return new Child(ordinal, name, null, null, own, instance, Map.of(), null);
        }

        private boolean isSame(String written) {
            if (content != null && written != null) {
                return written.equals(content.toBase64());
            }
            return text == null || written == null
                    ? text == written
                    : Lexical.collapse(text).equals(Lexical.collapse(written));
        }

        private boolean isSame(QName written) {
            String came = text == null ? "" : Lexical.collapse(text);
            int colon = came.indexOf(':');
            String prefix = came.substring(0, Math.max(0, colon));
            String namespace = prefix.equals("xml") ? XMLConstants.XML_NS_URI : prefixes.getOrDefault(prefix, "");
            return came.substring(colon + 1).equals(written.getLocalPart())
                    && namespace.equals(written.getNamespaceURI());
        }

        /** Whether a text is of the type that was stated, as far as that is known here. */
        private boolean isOfBuiltin(String written) {
            if (type == null || !type.getNamespaceURI().equals(Names.XSD)) {
                return false;
            }
            XmlSimple value = XmlSimple.empty(Names.XSD, type.getLocalPart(), type.getLocalPart());
            return !value.holdsNames() && value.accepts(written);
        }

        /** Says again what was said beside the value; a type that adds to it goes with what it added. */
        void write(XmlOutput out) {
            if (type != null) {
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
        int at = first(children, ordinal, Child::ordinal);
        Child child = at < children.size() ? children.get(at) : null;
        return child != null && child.ordinal == ordinal && child.name.equals(name) ? child : null;
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
