package org.protypos.change;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.binding.ProposedRule;
import org.protypos.contract.Contract;
import org.protypos.target.Surface;

/**
 * Compares two contracts, component by component: where a component stands in which document, in which order and with
 * which prefixes, is no difference. The door of this package.
 */
public final class Comparison {
    private final Inventory before;
    private final Namespaces namespaces;
    private final Map<String, Item> renamed = new LinkedHashMap<>();
    private final List<Renaming> renamings = new ArrayList<>();
    private final Blame blame = new Blame();
    private Inventory after;

    /**
     * What was compared.
     *
     * @param oldName gives for a designator of the new contract the one that its component had in the old contract
     */
    public record Sides(Contract before, Contract after, UnaryOperator<String> oldName) {
        /** The namespaces that components of either are in. */
        public Set<String> namespaces() {
            return Stream.of(before, after)
                    .flatMap(side -> Stream.of(
                                    side.schema().types(),
                                    side.schema().elements(),
                                    side.schema().attributes(),
                                    side.wsdl().portTypes(),
                                    side.wsdl().messages(),
                                    side.wsdl().services())
                            .flatMap(components -> components.keySet().stream()))
                    .map(QName::getNamespaceURI)
                    .collect(Collectors.toSet());
        }
    }

    /**
     * What came of it.
     *
     * @param sides what was compared
     * @param differences each once, by component
     * @param renames rules that keep the names in the code of components that were probably renamed
     */
    public record Result(Sides sides, List<Difference> differences, List<ProposedRule> renames) {
        /** Whether anything breaks for anybody. */
        public boolean isBreaking() {
            return differences.stream().anyMatch(Difference::isBreaking);
        }

        /** The same, as far as it breaks something for some. */
        public Result of(Set<Reader> readers) {
            return new Result(
                    sides,
                    differences.stream()
                            .map(difference -> difference.of(readers))
                            .toList(),
                    renames);
        }
    }

    private Comparison(Inventory before, Inventory after) {
        this.before = before;
        this.namespaces = new Namespaces(before, after);
        this.after = namespaces.old(after);
        findRenames();
    }

    /**
     * Compares.
     *
     * @param before the old contract
     * @param after the new contract
     * @param oldCode what code sees of the old contract
     * @param newCode what code sees of the new contract
     */
    public static Result of(Contract before, Contract after, Surface oldCode, Surface newCode) {
        Comparison comparison = new Comparison(Inventory.of(before), Inventory.of(after));
        comparison.compare();
        new WireChange(
                        new WireSide(before, comparison.before, designator -> designator),
                        new WireSide(after, comparison.after, comparison::old),
                        comparison.namespaces,
                        comparison.blame)
                .judge();
        CodeChange code = new CodeChange(
                comparison.before,
                comparison.after,
                oldCode,
                newCode,
                comparison.namespaces,
                comparison::old,
                comparison.blame);
        code.judge();
        return new Result(
                new Sides(before, after, comparison::old),
                comparison.blame.all().stream()
                        .map(Told::difference)
                        .sorted(Comparator.comparing(Difference::designator).thenComparing(Difference::fact))
                        .toList(),
                comparison.kept(code));
    }

    /** A designator of the new contract in the words of the old one. */
    private String old(String designator) {
        String text = namespaces.old(designator);
        for (Renaming renaming : renamings) {
            text = renaming.designator(text);
        }
        return text;
    }

    /** What is renamed shows what is inside of it, which may be renamed too. */
    private void findRenames() {
        Map<String, String> found = Renames.find(before.items(), after.items());
        while (!found.isEmpty()) {
            List<Renaming> some = new ArrayList<>();
            found.forEach((now, was) -> {
                Item item = after.items().get(now);
                renamed.put(was, item);
                some.add(new Renaming(item, was));
            });
            renamings.addAll(some);
            after = after.renamed(
                    designator -> {
                        String text = designator;
                        for (Renaming renaming : some) {
                            text = renaming.designator(text);
                        }
                        return text;
                    },
                    (item, fact, text) -> {
                        String said = text;
                        for (Renaming renaming : some) {
                            said = renaming.said(item, fact, said);
                        }
                        return said;
                    });
            found = Renames.find(before.items(), after.items());
        }
    }

    private void compare() {
        namespaces.renamed().forEach((now, was) -> blame.add(
                        new Told(Difference.Change.CHANGED, "namespace", was, "name", was, now, null, null))
                .breaks(EnumSet.allOf(Reader.class), "all names of it are others"));
        renamed.forEach(this::renamed);
        for (Item item : before.items().values()) {
            Item other = after.items().get(item.designator());
            if (other != null) {
                described(item, other);
            } else if (!isInside(item, after.items())) {
                presence(item, false);
            }
        }
        for (Item item : after.items().values()) {
            if (!before.items().containsKey(item.designator()) && !isInside(item, before.items())) {
                presence(item, true);
            }
        }
    }

    private void renamed(String was, Item now) {
        Item item = before.items().get(was);
        Told told = blame.add(new Told(
                Difference.Change.RENAMED,
                item.kind().text(),
                was,
                "name",
                Renames.called(was, now.origin()),
                Renames.called(now.origin(), was),
                item.place(),
                now.place()));
        if (item.kind() == Item.Kind.OPERATION) {
            told.breaks(EnumSet.of(Reader.OLD_CLIENTS, Reader.OLD_SERVERS), "the operation is known by another name");
        }
    }

    /** Whether what a component is inside of came or went as a whole: then that is the difference. */
    private static boolean isInside(Item item, Map<String, Item> others) {
        String designator = item.designator();
        String around =
                switch (item.kind()) {
                    case MESSAGE, HEADER, FAULT -> Renames.parent(item);
                    case MEMBER, ATTRIBUTE, VALUE, OPERATION, PORT -> Item.root(designator);
                    default -> designator;
                };
        return !around.equals(designator) && !others.containsKey(around);
    }

    private void presence(Item item, boolean added) {
        String text = facts(item);
        blame.add(new Told(
                        added ? Difference.Change.ADDED : Difference.Change.REMOVED,
                        item.kind().text(),
                        item.designator(),
                        "",
                        added ? null : text,
                        added ? text : null,
                        added ? null : item.place(),
                        added ? item.place() : null))
                .breaks(Verdict.presence(item, added), Verdict.reason(item, "", !added));
    }

    private static String facts(Item item) {
        return item.facts().entrySet().stream()
                .filter(fact -> !fact.getKey().equals("documentation")
                        && !fact.getKey().equals("order")
                        && !WsdlInventory.isOfOneProtocol(item, fact.getKey()))
                .map(fact -> fact.getKey() + " " + fact.getValue())
                .collect(Collectors.joining(", "));
    }

    private void described(Item was, Item is) {
        Set<String> facts = new LinkedHashSet<>(was.facts().keySet());
        facts.addAll(is.facts().keySet());
        Set<String> told = toldByProtocol(was, is, facts);
        for (String fact : facts) {
            String old = was.facts().get(fact);
            String now = is.facts().get(fact);
            // A protocol that only one of the two speaks is told of by its port.
            if (!told.contains(fact) && !isSame(was, is, fact) && isOfBoth(fact, was, is)) {
                blame.add(new Told(
                                Difference.Change.CHANGED,
                                was.kind().text(),
                                was.designator(),
                                fact,
                                old,
                                now,
                                was.place(),
                                is.place()))
                        .breaks(Verdict.change(was, fact, old, now), Verdict.reason(was, fact, false));
            }
        }
    }

    private boolean isSame(Item was, Item is, String fact) {
        String old = was.facts().get(fact);
        String now = is.facts().get(fact);
        if (fact.equals("order")) {
            return sameOrder(old, now);
        }
        return old == null ? now == null : now != null && (old.equals(now) || old.equals(inOldName(was, is, now)));
    }

    /**
     * The facts of a message that other facts tell of: where both contracts speak the same protocols, what is said of each of them
     * counts, and is told once when it is otherwise in the same way for all.
     */
    private Set<String> toldByProtocol(Item was, Item is, Set<String> facts) {
        Map<String, List<String>> byBase = new LinkedHashMap<>();
        for (String fact : facts) {
            if (WsdlInventory.isOfOneProtocol(was, fact) && isOfBoth(fact, was, is)) {
                byBase.computeIfAbsent(WsdlInventory.base(fact), any -> new ArrayList<>())
                        .add(fact);
            }
        }
        Set<String> told = new HashSet<>();
        byBase.forEach((base, all) -> {
            boolean alike = all.stream()
                            .map(fact -> Arrays.asList(
                                    was.facts().get(fact), is.facts().get(fact)))
                            .distinct()
                            .count()
                    == 1;
            boolean main = Objects.equals(was.facts().get(base), was.facts().get(all.get(0)))
                    && Objects.equals(is.facts().get(base), is.facts().get(all.get(0)));
            if (alike && main) {
                told.addAll(all);
            } else {
                told.add(base);
            }
        });
        return told;
    }

    private boolean isOfBoth(String fact, Item was, Item is) {
        if (was.kind() != Item.Kind.HEADER && was.kind() != Item.Kind.MESSAGE) {
            return WsdlInventory.isOfBoth(fact, was, is);
        }
        String operation = Renames.parent(was);
        return WsdlInventory.isOfBoth(
                fact, before.items().get(operation), after.items().get(operation));
    }

    /** What is said of a component that was renamed, with its old name where it has its new one: an action, a location. */
    private String inOldName(Item was, Item is, String text) {
        return renamed.containsKey(was.designator())
                ? text.replace(Renames.local(is.origin()), Renames.local(was.designator()))
                : text;
    }

    /** Members that came or went are told by themselves: only those that both have can stand in another order. */
    private static boolean sameOrder(String old, String now) {
        if (old == null || now == null) {
            return true;
        }
        Set<String> names = new HashSet<>(Arrays.asList(old.split(" ")));
        names.retainAll(new HashSet<>(Arrays.asList(now.split(" "))));
        return ModelText.only(old, names).equals(ModelText.only(now, names));
    }

    /** Rules that give renamed components the names that they had. */
    private List<ProposedRule> kept(CodeChange code) {
        Map<String, ProposedRule> rules = new TreeMap<>();
        Map<String, String> packages = code.packages();
        if (packages.size() == 1 && namespaces.renamed().size() == 1) {
            String on = "namespace " + namespaces.renamed().keySet().iterator().next();
            rules.put(
                    "",
                    new ProposedRule(
                            on, Map.of("package", packages.values().iterator().next()), ""));
        }
        renamed.forEach((was, now) -> {
            String name = code.oldName(was);
            String other = code.newName(now.origin());
            if (name != null && other != null && !name.equals(other)) {
                Map<String, String> values = new LinkedHashMap<>();
                values.put("name", name);
                values.put("because", "it was called " + Renames.local(was) + " before");
                rules.put(now.origin(), new ProposedRule(now.origin(), values, ""));
            }
        });
        return List.copyOf(rules.values());
    }
}
