package org.protypos.change;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.protypos.naming.Designator;
import org.protypos.source.Xml;

/**
 * Namespaces that carry their version in their name: one that only the new contract has and one that only the old one has
 * are the same under another name when nothing but digits sets them apart, or when each is the only one.
 */
final class Namespaces {
    /** For new namespaces the old ones that they were. */
    private final Map<String, String> renamed = new LinkedHashMap<>();

    Namespaces(Inventory before, Inventory after) {
        TreeSet<String> old = used(before);
        TreeSet<String> now = used(after);
        TreeSet<String> gone = new TreeSet<>(old);
        gone.removeAll(now);
        now.removeAll(old);
        Map<String, String> byShape = new TreeMap<>();
        gone.forEach(namespace -> byShape.merge(shape(namespace), namespace, (a, b) -> ""));
        Map<String, Integer> shapes = new HashMap<>();
        now.forEach(namespace -> shapes.merge(shape(namespace), 1, Integer::sum));
        for (String namespace : now) {
            String same = byShape.getOrDefault(shape(namespace), "");
            if (!same.isEmpty() && shapes.get(shape(namespace)) == 1) {
                renamed.put(namespace, same);
            }
        }
        if (renamed.isEmpty() && now.size() == 1 && gone.size() == 1) {
            renamed.put(now.first(), gone.first());
        }
    }

    private static TreeSet<String> used(Inventory inventory) {
        TreeSet<String> used = new TreeSet<>();
        for (String designator : inventory.items().keySet()) {
            Designator.of(designator).namespaces().stream()
                    .findFirst()
                    .filter(namespace -> !namespace.equals(Xml.XSD))
                    .ifPresent(used::add);
        }
        return used;
    }

    private static String shape(String namespace) {
        return namespace.replaceAll("[0-9]+", "0");
    }

    Map<String, String> renamed() {
        return renamed;
    }

    /** A text of the new contract with the old names of namespaces in it. */
    String old(String text) {
        if (text == null || renamed.isEmpty()) {
            return text;
        }
        return Designator.withNamespaces(text, renamed);
    }

    /** For a namespace of the old contract that of the new one. */
    String toNew(String namespace) {
        for (Map.Entry<String, String> one : renamed.entrySet()) {
            if (one.getValue().equals(namespace)) {
                return one.getKey();
            }
        }
        return namespace;
    }

    /** For a namespace of the new contract that of the old one. */
    String toOld(String namespace) {
        return renamed.getOrDefault(namespace, namespace);
    }

    /** A text with the new names of namespaces in it. */
    String now(String text) {
        String changed = text;
        for (Map.Entry<String, String> one : renamed.entrySet()) {
            changed = changed.replace("{" + one.getValue() + "}", "{" + one.getKey() + "}");
        }
        return changed;
    }

    /** The components of the new contract under the old names of their namespaces. */
    Inventory old(Inventory after) {
        return renamed.isEmpty() ? after : after.renamed(this::old, (item, fact, text) -> old(text));
    }
}
