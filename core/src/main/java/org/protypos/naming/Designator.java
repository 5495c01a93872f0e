package org.protypos.naming;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * How one speaks of a component, taken apart: the global component, and step by step what is inside of it, to a value or a number at
 * the end. Namespaces stand in braces and may hold any sign, values stand behind {@code ='}.
 */
public final class Designator {
    private static final String VALUE = "='";
    private static final Pattern BRACES = Pattern.compile("\\{([^}]*)\\}");

    private final String text;

    /** Where the steps end: that of the global component first; none of a value counts. */
    private final List<Integer> ends = new ArrayList<>();

    /** Where the value begins, or -1. */
    private final int value;

    private Designator(String text) {
        this.text = text;
        int found = -1;
        int at = 0;
        while (at < text.length() && found < 0) {
            char c = text.charAt(at);
            if (c == '{') {
                int close = text.indexOf('}', at);
                at = close < 0 ? text.length() : close;
            } else if (c == '/') {
                ends.add(at);
            } else if (text.startsWith(VALUE, at)) {
                found = at;
            }
            at++;
        }
        this.value = found;
        ends.add(found < 0 ? text.length() : found);
    }

    /** Takes one apart. */
    public static Designator of(String text) {
        return new Designator(text);
    }

    /** The global component that it begins with. */
    public String root() {
        return text.substring(0, ends.get(0));
    }

    /** All of it but the value at its end: the part in which braces stand around namespaces. */
    public String component() {
        return value >= 0 ? text.substring(0, value) : text;
    }

    /** The namespaces of the names in it, in their order. */
    public List<String> namespaces() {
        return BRACES.matcher(component())
                .results()
                .map(found -> found.group(1))
                .toList();
    }

    /** A text with names as designators have them, in which other namespaces stand, or marks for them; others stay. */
    public static String withNamespaces(String text, Map<String, String> by) {
        StringBuilder replaced = new StringBuilder(text.length() + 64);
        int from = 0;
        int open = text.indexOf('{');
        while (open >= 0) {
            int close = text.indexOf('}', open);
            if (close < 0) {
                break;
            }
            String name = text.substring(open + 1, close);
            replaced.append(text, from, open + 1).append(by.getOrDefault(name, name));
            from = close;
            open = text.indexOf('{', close);
        }
        return replaced.append(text, from, text.length()).toString();
    }

    /** Whether it is of a global component. */
    public boolean isGlobal() {
        return ends.size() == 1 && value < 0;
    }

    /** That of what the component stands in; empty for a global one. */
    public String around() {
        if (value >= 0) {
            return component();
        }
        return ends.size() == 1 ? "" : text.substring(0, ends.get(ends.size() - 2));
    }

    /** The last step, with all signs that it has; of a value the step that it belongs to. */
    private String step() {
        int from = ends.size() == 1 ? 0 : ends.get(ends.size() - 2) + 1;
        return text.substring(from, ends.get(ends.size() - 1));
    }

    /** The name that the component has in the contract: a local name, or a value. */
    public String local() {
        if (value >= 0) {
            int to = text.endsWith("'") ? text.length() - 1 : text.length();
            return text.substring(Math.min(to, value + VALUE.length()), to);
        }
        String step = step();
        return step.substring(step.lastIndexOf('}') + 1).replaceFirst("^@", "");
    }

    /** The namespace of that name in braces, empty when it has none. */
    public String namespace() {
        String step = value >= 0 ? "" : step();
        int close = step.lastIndexOf('}');
        return close < 0 ? "" : step.substring(step.indexOf('{'), close + 1);
    }
}
