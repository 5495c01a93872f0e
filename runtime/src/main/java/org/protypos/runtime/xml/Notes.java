package org.protypos.runtime.xml;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;

/**
 * What a message said in another way than we would: values written out of the ordinary, such as {@code 007} or
 * {@code 1} for true, and elements that may come in any order. It is kept so that nothing changes in a message that is
 * read and written again, and it is no part of what a value means.
 */
final class Notes {
    private final List<Text> texts = new ArrayList<>();
    private final List<Child> children = new ArrayList<>();
    private Map<String, String> own = Map.of();
    private Map<String, String> prefixes = Map.of();
    private int[] order;

    /** A value in the ordinary and in the original way of writing, with the member it belongs to. */
    private record Text(int member, int index, String ordinary, String original) {}

    void keep(int member, int index, String ordinary, String original) {
        texts.add(new Text(member, index, ordinary, original));
    }

    /** The original way of writing, if the value is still the same; the ordinary one otherwise. */
    String text(int member, int index, String ordinary) {
        for (Text text : texts) {
            if (text.member == member && text.index == index && text.ordinary.equals(ordinary)) {
                return text.original;
            }
        }
        return ordinary;
    }

    /** What the start tag of a simple child element said about schemas: its type, and attributes beside it. */
    private record Child(int ordinal, String name, QName type, Map<String, String> instance) {}

    void keepChild(int ordinal, String name, QName type, Map<String, String> instance) {
        children.add(new Child(ordinal, name, type, instance));
    }

    void keepPrefixes(Map<String, String> declared) {
        prefixes = declared;
    }

    Map<String, String> prefixes() {
        return prefixes;
    }

    void keepOwn(Map<String, String> instance) {
        own = instance;
    }

    void writeOwn(XmlOutput out) {
        own.forEach((name, value) -> out.attribute(Names.XSI, name, value));
    }

    /** Says again what was said about a child, if the child in that place is still of that name. */
    void writeChild(XmlOutput out, int ordinal, String name) {
        for (Child child : children) {
            if (child.ordinal == ordinal && child.name.equals(name)) {
                if (child.type != null) {
                    out.attribute(Names.XSI, "type", out.name(child.type));
                }
                child.instance.forEach((attribute, value) -> out.attribute(Names.XSI, attribute, value));
            }
        }
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
