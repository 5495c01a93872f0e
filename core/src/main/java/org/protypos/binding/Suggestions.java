package org.protypos.binding;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.protypos.diagnostic.Printable;
import org.protypos.naming.Clash;
import org.protypos.naming.Designator;
import org.protypos.naming.Subject;

/** Writes rules that give components the names by which clashes were settled, for somebody to change. */
public final class Suggestions {
    private static final Pattern WORDS = Pattern.compile("[^A-Za-z]+");
    private static final Pattern RULES = Pattern.compile("(?m)^rules:[ \t]*(#.*)?$");
    private static final Pattern ITEM = Pattern.compile("\\A(?:[ \t]*(?:#.*)?\\R)*([ \t]*)- ");

    private Suggestions() {}

    /** A new file with rules that settle clashes, and others. */
    public static String file(List<Clash> clashes, List<ProposedRule> others) {
        List<ProposedRule> rules = new ArrayList<>(settling(clashes));
        rules.addAll(others);
        return (clashes.isEmpty()
                        ? ""
                        : "# Names for components that would get one name: change those that you do not like.\n\n")
                + ProposedRule.file(rules);
    }

    /**
     * A file that exists with more rules in it; all that is there stays as it is.
     *
     * @param existing its text
     * @param prefixes the prefixes that it declares
     * @return the new text, or nothing when its rules are not written as a list with a line for each
     */
    public static Optional<String> merged(
            String existing, Map<String, String> prefixes, List<Clash> clashes, List<ProposedRule> others) {
        List<ProposedRule> added = new ArrayList<>(settling(clashes));
        added.addAll(others);
        Matcher rules = RULES.matcher(existing);
        StringBuilder text = new StringBuilder(existing);
        if (!rules.find()) {
            if (existing.contains("rules")) {
                return Optional.empty();
            }
            text.append(existing.isEmpty() || existing.endsWith("\n") ? "" : "\n")
                    .append("rules:\n");
            added.forEach(rule -> rule.append(text, prefixes, "  "));
            return Optional.of(text.toString());
        }
        String behind = existing.substring(Math.min(existing.length(), rules.end() + 1));
        Matcher item = ITEM.matcher(behind);
        String indent = item.find() ? item.group(1) : "  ";
        StringBuilder more = new StringBuilder("\n");
        added.forEach(rule -> rule.append(more, prefixes, indent));
        more.setLength(more.length() - 1);
        return Optional.of(text.insert(rules.end(), more).toString());
    }

    /** Rules that give components the names by which clashes were settled; the first of each cause says it. */
    private static List<ProposedRule> settling(List<Clash> clashes) {
        List<ProposedRule> rules = new ArrayList<>();
        String group = "";
        Set<String> settled = new HashSet<>();
        for (Clash clash : clashes) {
            // In records it may clash in each: one rule holds for all of them.
            if (!settled.add(clash.other().designator())) {
                continue;
            }
            String heading = clash.where() + ": " + clash.wanted() + " is wanted by "
                    + (clash.holder() == null
                            ? "generated code or the language"
                            : clash.holder().designator());
            rules.add(new ProposedRule(
                    clash.other().designator(), Map.of("name", clash.given()), heading.equals(group) ? "" : heading));
            group = heading;
        }
        return rules;
    }

    /** Prefixes as a file declares them. */
    static String declared(Map<String, String> prefixes) {
        StringBuilder text = new StringBuilder(prefixes.isEmpty() ? "" : "prefixes:\n");
        prefixes.forEach((prefix, namespace) -> text.append("  ")
                .append(prefix)
                .append(": ")
                .append(Printable.quoted(namespace))
                .append('\n'));
        return text.toString();
    }

    /** One rule, as it would stand in a file. */
    public static String rule(Clash clash, Map<String, String> prefixes) {
        StringBuilder text = new StringBuilder();
        settling(List.of(clash)).get(0).withoutRemark().append(text, prefixes, "");
        return text.toString().stripTrailing();
    }

    /** A prefix for each namespace of the components in some clashes, made of its last word. */
    public static Map<String, String> prefixes(List<Clash> clashes) {
        return prefixesFor(clashes.stream()
                .flatMap(clash -> Stream.of(clash.other(), clash.holder()))
                .filter(Objects::nonNull)
                .map(Subject::designator)
                .toList());
    }

    /** A prefix for each namespace in some designators, made of its last word. */
    public static Map<String, String> prefixesFor(List<String> designators) {
        Set<String> namespaces = new LinkedHashSet<>();
        for (String designator : designators) {
            namespaces.addAll(Designator.of(designator).namespaces());
        }
        return prefixesOf(namespaces);
    }

    /** A prefix for each of some namespaces, made of its last word. */
    public static Map<String, String> prefixesOf(Set<String> namespaces) {
        Map<String, String> prefixes = new LinkedHashMap<>();
        for (String namespace : namespaces) {
            if (!namespace.isEmpty()) {
                prefixes.put(prefix(namespace, prefixes), namespace);
            }
        }
        return prefixes;
    }

    private static String prefix(String namespace, Map<String, String> taken) {
        String[] words = WORDS.split(namespace);
        String word = words.length == 0 || words[words.length - 1].isEmpty() ? "n" : words[words.length - 1];
        String base = word.toLowerCase(Locale.ROOT);
        String prefix = base;
        for (int number = 2; taken.containsKey(prefix); number++) {
            prefix = base + number;
        }
        return prefix;
    }
}
