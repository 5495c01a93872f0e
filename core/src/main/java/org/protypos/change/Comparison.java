package org.protypos.change;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.protypos.binding.ProposedRule;
import org.protypos.contract.Contract;

/**
 * Compares two contracts, component by component: where a component stands in which document, in which order and with
 * which prefixes, is no difference. The door of this package.
 */
public final class Comparison {
    private final Map<String, Item> before;
    private final Map<String, Item> after;
    private final Verdict verdict;
    private final Map<String, String> oldCode;
    private final Map<String, String> newCode;
    private final Map<String, String> renamed;
    private final List<Difference> differences = new ArrayList<>();

    /**
     * What came of it.
     *
     * @param differences each once, by component
     * @param renames rules that keep the Java names of components that were probably renamed
     */
    public record Result(List<Difference> differences, List<ProposedRule> renames) {
        /** Whether anything breaks for anybody. */
        public boolean isBreaking() {
            return differences.stream().anyMatch(Difference::isBreaking);
        }
    }

    private Comparison(Inventory before, Inventory after, Map<String, String> oldCode, Map<String, String> newCode) {
        this.before = before.items();
        this.after = after.items();
        this.verdict = new Verdict(new Reach(before), new Reach(after));
        this.oldCode = oldCode;
        this.newCode = newCode;
        this.renamed = new Renames(this.before, this.after).find();
    }

    /**
     * Compares.
     *
     * @param before the old contract
     * @param after the new contract
     * @param oldCode how its components look to code, by designator; what code does not see is missing
     * @param newCode likewise for the new contract
     */
    public static Result of(Contract before, Contract after, Map<String, String> oldCode, Map<String, String> newCode) {
        Inventory was = Inventory.of(before);
        Inventory is = Inventory.of(after);
        Namespaces namespaces = new Namespaces(was, is);
        Map<String, String> packages = packages(oldCode, newCode, namespaces);
        Comparison comparison =
                new Comparison(was, namespaces.old(is), oldCode, inOldWords(newCode, namespaces, packages));
        namespaces.renamed().forEach(comparison::renamedNamespace);
        comparison.compare();
        return new Result(
                comparison.differences.stream()
                        .sorted(Comparator.comparing(Difference::designator).thenComparing(Difference::fact))
                        .toList(),
                comparison.kept(namespaces, packages));
    }

    /** For packages that come from new names of namespaces those that came from the old ones. */
    private static Map<String, String> packages(
            Map<String, String> oldCode, Map<String, String> newCode, Namespaces namespaces) {
        Map<String, String> packages = new TreeMap<>(Comparator.reverseOrder());
        newCode.forEach((designator, seen) -> {
            String was = oldCode.get(namespaces.old(designator));
            if (was != null
                    && seen.startsWith("class ")
                    && packageOf(seen) != null
                    && packageOf(was) != null
                    && !packageOf(seen).equals(packageOf(was))) {
                packages.put(packageOf(seen), packageOf(was));
            }
        });
        return namespaces.renamed().isEmpty() ? Map.of() : packages;
    }

    /** What code sees of the new contract, with the old names of namespaces and of the packages that come from them. */
    private static Map<String, String> inOldWords(
            Map<String, String> newCode, Namespaces namespaces, Map<String, String> packages) {
        Map<String, String> code = new HashMap<>();
        newCode.forEach((designator, seen) -> {
            String text = seen;
            for (Map.Entry<String, String> one : packages.entrySet()) {
                text = text.replace(one.getKey() + ".", one.getValue() + ".");
            }
            code.put(namespaces.old(designator), text);
        });
        return code;
    }

    /** The package of the class that code sees. */
    private static String packageOf(String seen) {
        String name = seen.substring(seen.lastIndexOf(' ') + 1);
        int dot = name.lastIndexOf('.');
        return dot < 0 ? null : name.substring(0, dot);
    }

    private void renamedNamespace(String now, String was) {
        differences.add(new Difference(
                Difference.Change.CHANGED,
                "namespace",
                was,
                "name",
                was,
                now,
                null,
                null,
                EnumSet.allOf(Reader.class)));
    }

    private void compare() {
        for (Item item : before.values()) {
            Item other = after.get(item.designator());
            if (other != null) {
                described(item, other);
            } else if (!isInside(item, after)) {
                differences.add(presence(item, false));
            }
        }
        for (Item item : after.values()) {
            if (!before.containsKey(item.designator()) && !isInside(item, before)) {
                differences.add(presence(item, true));
            }
        }
        methods();
    }

    /** Whether what a component is inside of came or went as a whole: then that is the difference. */
    private static boolean isInside(Item item, Map<String, Item> others) {
        String designator = item.designator();
        String around =
                switch (item.kind()) {
                    case MESSAGE, HEADER, FAULT -> designator.replaceFirst("(?<=[^}]) (input|output|fault)( .*)?$", "");
                    case MEMBER, ATTRIBUTE, VALUE -> Reach.root(designator);
                    default -> designator;
                };
        return !around.equals(designator) && !others.containsKey(around);
    }

    private Difference presence(Item item, boolean added) {
        Set<Reader> breaks = EnumSet.noneOf(Reader.class);
        breaks.addAll(verdict.presence(item, added));
        breaks.addAll(Verdict.code(item.designator(), oldCode, newCode));
        if (item.kind() == Item.Kind.VALUE && !added) {
            breaks.addAll(Set.of(Reader.CLIENT_CODE, Reader.SERVER_CODE));
        }
        if (item.kind() == Item.Kind.FAULT) {
            breaks.add(Reader.CLIENT_CODE);
            if (!added) {
                breaks.add(Reader.SERVER_CODE);
            }
        }
        if (item.kind() == Item.Kind.PORT && !added) {
            breaks.add(Reader.CLIENT_CODE);
        }
        String text = facts(item);
        return new Difference(
                added ? Difference.Change.ADDED : Difference.Change.REMOVED,
                item.kind().text(),
                item.designator(),
                "",
                added ? null : text,
                added ? text : null,
                added ? null : item.place(),
                added ? item.place() : null,
                breaks);
    }

    private static String facts(Item item) {
        return item.facts().entrySet().stream()
                .filter(fact ->
                        !fact.getKey().equals("documentation") && !fact.getKey().equals("order"))
                .map(fact -> fact.getKey() + " " + fact.getValue())
                .collect(Collectors.joining(", "));
    }

    private void described(Item was, Item is) {
        Set<String> facts = new LinkedHashSet<>(was.facts().keySet());
        facts.addAll(is.facts().keySet());
        boolean first = true;
        for (String fact : facts) {
            String old = was.facts().get(fact);
            String now = is.facts().get(fact);
            boolean same = fact.equals("order") ? sameOrder(was, is, old, now) : old != null && old.equals(now);
            if (same) {
                continue;
            }
            Set<Reader> breaks = EnumSet.noneOf(Reader.class);
            breaks.addAll(verdict.change(was, is, fact));
            if (first && !fact.equals("documentation")) {
                breaks.addAll(Verdict.code(was.designator(), oldCode, newCode));
                first = false;
            }
            differences.add(new Difference(
                    Difference.Change.CHANGED,
                    was.kind().text(),
                    was.designator(),
                    fact,
                    old,
                    now,
                    was.place(),
                    is.place(),
                    breaks));
        }
    }

    /** Members that came or went are told by themselves: only those that both have can stand in another order. */
    private boolean sameOrder(Item was, Item is, String old, String now) {
        if (old == null || now == null) {
            return true;
        }
        Set<String> names = new HashSet<>(Arrays.asList(old.split(" ")));
        names.retainAll(new HashSet<>(Arrays.asList(now.split(" "))));
        return only(old, names).equals(only(now, names));
    }

    /** A model with some of its names alone, and no groups of fewer than two. */
    private static String only(String order, Set<String> names) {
        List<String> kept = new ArrayList<>();
        for (String word : order.split(" ")) {
            if (word.length() == 1 || word.equals(")+") || names.contains(word)) {
                kept.add(word);
            }
        }
        String text = " " + String.join(" ", kept) + " ";
        for (String last = ""; !last.equals(text); ) {
            last = text;
            text = text.replaceAll(" \\( ([^ ()]+ )?\\)\\+? ", " $1 ")
                    .replaceAll(" ([,|&]) (?:[,|&] )+", " $1 ")
                    .replaceAll("\\( [,|&] ", "( ")
                    .replaceAll(" [,|&] (\\)\\+?) ", " $1 ")
                    .replaceAll(" +", " ");
        }
        return text.replaceAll("^ [,|&] | [,|&] $", " ").strip();
    }

    /** A method changes with the members of what it takes and gives: then those break the code. */
    private void methods() {
        Set<String> roots = new HashSet<>();
        for (String operation : oldCode.keySet()) {
            boolean changed = operation.startsWith("portType ")
                    && newCode.containsKey(operation)
                    && !oldCode.get(operation).equals(newCode.get(operation));
            if (changed) {
                for (String way : List.of(" input", " output")) {
                    for (Map<String, Item> side : List.of(before, after)) {
                        Item message = side.get(operation + way);
                        if (message != null) {
                            roots.addAll(message.references());
                        }
                    }
                }
            }
        }
        for (int i = 0; i < differences.size(); i++) {
            Difference difference = differences.get(i);
            String designator = difference.designator();
            boolean member = roots.contains(Reach.root(designator))
                    && !designator.equals(Reach.root(designator))
                    && !difference.fact().equals("documentation");
            if (member) {
                Set<Reader> breaks = EnumSet.of(Reader.CLIENT_CODE, Reader.SERVER_CODE);
                breaks.addAll(difference.breaks());
                differences.set(i, difference.breaking(breaks));
            }
        }
    }

    /** The name in what code sees of a component: the last word in front of parameters. */
    private static String name(String seen) {
        if (seen == null) {
            return null;
        }
        String head = seen.replaceFirst("\\(.*", "");
        return head.substring(Math.max(head.lastIndexOf(' '), head.lastIndexOf('.')) + 1);
    }

    /** Rules that give renamed components the names that they had. */
    private List<ProposedRule> kept(Namespaces namespaces, Map<String, String> packages) {
        Map<String, ProposedRule> rules = new TreeMap<>();
        if (packages.size() == 1 && namespaces.renamed().size() == 1) {
            String on = "namespace " + namespaces.renamed().keySet().iterator().next();
            rules.put(
                    "",
                    new ProposedRule(
                            on, Map.of("package", packages.values().iterator().next()), ""));
        }
        renamed.forEach((now, was) -> {
            String name = name(oldCode.get(was));
            String other = name(newCode.get(now));
            if (name != null && other != null && !name.equals(other)) {
                Map<String, String> values = new LinkedHashMap<>();
                values.put("name", name);
                values.put("because", "it was called " + was.substring(was.lastIndexOf('}') + 1) + " before");
                rules.put(now, new ProposedRule(namespaces.now(now), values, ""));
            }
        });
        return List.copyOf(rules.values());
    }
}
