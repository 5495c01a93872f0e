package org.protypos.binding;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.protypos.naming.Clash;

/** Writes rules that give components the names by which clashes were settled, for somebody to change. */
public final class Suggestions {
    private static final Pattern NAMESPACE = Pattern.compile("\\{([^}]*)\\}");
    private static final Pattern RULES = Pattern.compile("(?m)^rules:[ \t]*(#.*)?$");
    private static final Pattern ITEM = Pattern.compile("\\A(?:[ \t]*(?:#.*)?\\R)*([ \t]*)- ");

    private Suggestions() {}

    /** A new file. */
    public static String file(List<Clash> clashes) {
        Map<String, String> prefixes = prefixes(clashes);
        StringBuilder text = new StringBuilder(
                "# Names for components that would get one name: change those that you do not like.\n");
        text.append(prefixes.isEmpty() ? "" : "\n").append(declared(prefixes));
        text.append("\nrules:\n");
        append(text, clashes, prefixes, "  ");
        return text.toString();
    }

    /**
     * A file that exists with more rules in it; all that is there stays as it is.
     *
     * @param existing its text
     * @param prefixes the prefixes that it declares
     * @return the new text, or nothing when its rules are not written as a list with a line for each
     */
    public static Optional<String> merged(String existing, Map<String, String> prefixes, List<Clash> clashes) {
        Matcher rules = RULES.matcher(existing);
        StringBuilder text = new StringBuilder(existing);
        if (!rules.find()) {
            if (existing.contains("rules")) {
                return Optional.empty();
            }
            text.append(existing.isEmpty() || existing.endsWith("\n") ? "" : "\n")
                    .append("rules:\n");
            append(text, clashes, prefixes, "  ");
            return Optional.of(text.toString());
        }
        String behind = existing.substring(Math.min(existing.length(), rules.end() + 1));
        Matcher item = ITEM.matcher(behind);
        StringBuilder more = new StringBuilder("\n");
        append(more, clashes, prefixes, item.find() ? item.group(1) : "  ");
        more.setLength(more.length() - 1);
        return Optional.of(text.insert(rules.end(), more).toString());
    }

    /** Prefixes as a file declares them. */
    static String declared(Map<String, String> prefixes) {
        StringBuilder text = new StringBuilder(prefixes.isEmpty() ? "" : "prefixes:\n");
        prefixes.forEach((prefix, namespace) -> text.append("  ")
                .append(prefix)
                .append(": ")
                .append(quoted(namespace))
                .append('\n'));
        return text.toString();
    }

    /** One rule, as it would stand in a file. */
    public static String rule(Clash clash, Map<String, String> prefixes) {
        return "- on: " + quoted(Designators.shown(clash.other().designator(), prefixes)) + "\n  name: "
                + clash.given();
    }

    private static void append(StringBuilder to, List<Clash> clashes, Map<String, String> prefixes, String indent) {
        String group = "";
        for (Clash clash : clashes) {
            String heading = clash.where() + ": " + clash.wanted() + " is wanted by "
                    + (clash.holder() == null
                            ? "generated code or the language"
                            : Designators.shown(clash.holder().designator(), prefixes));
            if (!heading.equals(group)) {
                to.append(indent)
                        .append("# ")
                        .append(heading.replaceAll("\\p{Cntrl}", " "))
                        .append('\n');
                group = heading;
            }
            for (String line : rule(clash, prefixes).split("\n")) {
                to.append(indent).append(line).append('\n');
            }
        }
    }

    /** A prefix for each namespace of the components in some clashes, made of its last word. */
    public static Map<String, String> prefixes(List<Clash> clashes) {
        return prefixesFor(clashes.stream()
                .map(clash -> clash.other().designator()
                        + (clash.holder() == null ? "" : clash.holder().designator()))
                .toList());
    }

    /** A prefix for each namespace in some designators, made of its last word. */
    static Map<String, String> prefixesFor(List<String> designators) {
        Map<String, String> prefixes = new LinkedHashMap<>();
        for (String designator : designators) {
            Matcher found = NAMESPACE.matcher(designator);
            while (found.find()) {
                String namespace = found.group(1);
                if (!namespace.isEmpty() && !prefixes.containsValue(namespace)) {
                    prefixes.put(prefix(namespace, prefixes), namespace);
                }
            }
        }
        return prefixes;
    }

    private static String prefix(String namespace, Map<String, String> taken) {
        String[] words = namespace.split("[^A-Za-z]+");
        String word = words.length == 0 || words[words.length - 1].isEmpty() ? "n" : words[words.length - 1];
        String base = word.toLowerCase(Locale.ROOT);
        String prefix = base;
        for (int number = 2; taken.containsKey(prefix); number++) {
            prefix = base + number;
        }
        return prefix;
    }

    /** Text in quotation marks, which YAML and JSON read alike. */
    static String quoted(String text) {
        StringBuilder quoted = new StringBuilder("\"");
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '"' || c == '\\') {
                quoted.append('\\').append(c);
            } else if (c < ' ' || c == 0x7f || c >= 0x80 && c < 0xa0 || c == 0x2028 || c == 0x2029 || c == 0xfeff) {
                quoted.append(String.format("\\u%04x", (int) c));
            } else {
                quoted.append(c);
            }
        }
        return quoted.append('"').toString();
    }
}
