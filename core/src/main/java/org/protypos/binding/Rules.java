package org.protypos.binding;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.NameRules;
import org.protypos.naming.Renaming;
import org.protypos.naming.Subject;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Xml;

/**
 * Rules that somebody lays over a contract, before those that the contract itself declares. Of several rules for one component the one that says most about it holds: one
 * without a wildcard, then the one with the longest text beside its wildcards. Two that say as much and differ are a
 * finding. The door of this package.
 */
public final class Rules implements Renaming, Shaping {
    private final List<Rule> all;
    private final Map<String, String> prefixes;
    private final Findings findings;
    private final Map<String, List<Rule>> exact = new HashMap<>();
    private final List<Rule> patterns = new ArrayList<>();
    private final Set<String> known = new HashSet<>();

    Rules(List<Rule> rules, Map<String, String> prefixes, Findings findings) {
        this.all = List.copyOf(rules);
        this.prefixes = new LinkedHashMap<>(prefixes);
        this.findings = findings;
        for (Rule rule : rules) {
            if (rule.selector().pattern() != null) {
                patterns.add(rule);
            } else {
                exact.computeIfAbsent(rule.selector().expanded(), text -> new ArrayList<>())
                        .add(rule);
            }
        }
    }

    /** The rules, in the order of the files. */
    public List<Rule> all() {
        return all;
    }

    /** The designators of all components that it has been asked about. */
    Set<String> known() {
        return Collections.unmodifiableSet(known);
    }

    @Override
    public String packageOf(String namespace, String plain) {
        known.add(Rule.NAMESPACE + namespace);
        Rule rule = best(Rule.NAMESPACE + namespace, Rule.Effect::packageName);
        return rule == null ? plain : rule.effect().packageName();
    }

    @Override
    public Wish nameOf(Subject subject, String plain) {
        known.add(subject.designator());
        Rule rule = best(subject.designator(), Rule.Effect::naming);
        if (rule == null) {
            return null;
        }
        Rule.Effect effect = rule.effect();
        String name = effect.name() != null
                ? effect.name()
                : Objects.requireNonNullElse(effect.prefix(), "")
                        + plain
                        + Objects.requireNonNullElse(effect.suffix(), "");
        return new Wish(isMember(subject) ? capitalized(name) : name, rule.place(), !rule.isInContract());
    }

    @Override
    public String shown(Subject subject) {
        return shown(subject.designator());
    }

    private String shown(String designator) {
        return Designators.shown(designator, prefixes).replace("{" + Xml.XSD + "}", "xs:");
    }

    @Override
    public boolean isOmitted(Subject subject) {
        known.add(subject.designator());
        return best(subject.designator(), effect -> effect.omitted() ? true : null) != null;
    }

    @Override
    public <T> Choice<T> choice(Subject subject, Function<Shape, T> aspect) {
        known.add(subject.designator());
        Rule rule = best(subject.designator(), effect -> effect.shape() == null ? null : aspect.apply(effect.shape()));
        return rule == null
                ? null
                : new Choice<>(
                        aspect.apply(rule.effect().shape()),
                        rule.place(),
                        rule.isInContract() || rule.selector().pattern() != null);
    }

    /** The names of members are kept in the spelling that accessors are built from. */
    private static boolean isMember(Subject subject) {
        return subject.kind() == Subject.Kind.MEMBER
                || subject.kind() == Subject.Kind.ATTRIBUTE
                || subject.kind() == Subject.Kind.PART;
    }

    private static String capitalized(String name) {
        int first = name.codePointAt(0);
        return new StringBuilder()
                .appendCodePoint(Character.toUpperCase(first))
                .append(name, Character.charCount(first), name.length())
                .toString();
    }

    /** The contract with the corrections among the rules laid over it. */
    public Contract correct(Contract contract) {
        List<Rule> correcting =
                all.stream().filter(rule -> rule.effect().correction() != null).toList();
        if (correcting.isEmpty()) {
            return contract;
        }
        Corrections corrections = new Corrections(correcting, this::best, known, this::shown, findings);
        SchemaComponents schema = new CorrectedSchema(contract.schema(), corrections).components();
        return new Contract(
                contract.documents(),
                schema,
                new CorrectedWsdl(contract.wsdl(), schema, corrections).components(),
                contract.findings());
    }

    /** Whether some rule names a class that only the user of the rules has. */
    public boolean namesForeignClasses() {
        return all.stream()
                .map(rule -> rule.effect().shape())
                .anyMatch(shape -> shape != null && !shape.equals(shape.withoutForeignClasses()));
    }

    /** The rules with nothing in them that names classes that only their user has. */
    public Rules withoutForeignClasses() {
        return new Rules(all.stream().map(Rule::withoutForeignClasses).toList(), prefixes, new Findings());
    }

    /**
     * Of the rules for a component that say something in one respect, the one that says most about it.
     *
     * @param respect gives what a rule says in that respect, or null
     */
    private Rule best(String designator, Function<Rule.Effect, ?> respect) {
        List<Rule> candidates = new ArrayList<>(exact.getOrDefault(designator, List.of()));
        patterns.stream().filter(rule -> rule.selector().fits(designator)).forEach(candidates::add);
        candidates.removeIf(rule -> respect.apply(rule.effect()) == null);
        if (candidates.isEmpty()) {
            return null;
        }
        candidates.sort(Comparator.comparing(Rule::isInContract)
                .thenComparing(rule -> -rule.selector().weight()));
        candidates.forEach(rule -> rule.matched().add(designator));
        Rule first = candidates.get(0);
        for (Rule other : candidates.subList(1, candidates.size())) {
            if (other.selector().weight() == first.selector().weight()
                    && other.isInContract() == first.isInContract()
                    && !respect.apply(other.effect()).equals(respect.apply(first.effect()))) {
                findings.error(
                        "rules-equal",
                        other.place(),
                        "this rule and the one at " + first.place() + " both say what becomes of " + shown(designator)
                                + ", and neither says more about it",
                        "keep one of them, or make one more specific");
            }
        }
        return first;
    }

    /** Whether some rule says of a component just what another would. */
    public boolean say(ProposedRule proposed, NameRules names) {
        DeclaredRule declared = new DeclaredRule(proposed, null, false);
        return RuleReader.read(List.of(), List.of(declared), names).all().stream()
                .allMatch(one -> all.stream()
                        .anyMatch(rule ->
                                rule.selector().expanded().equals(one.selector().expanded())
                                        && rule.effect().equals(one.effect())));
    }

    /**
     * What is wrong with the rules: how they are written, and after planning also which have met nothing.
     *
     * @param whole whether the whole contract was planned; of a part not every rule can meet something
     */
    public List<Finding> findings(boolean whole) {
        for (Rule rule : all) {
            if (rule.isInContract()) {
                continue;
            }
            if (whole && rule.matched().isEmpty() && isKnown(rule)) {
                findings.error(
                        "rule-useless",
                        rule.place(),
                        "what " + rule.on() + " is has no use for what the rule says",
                        "take the rule out, or say it of another component");
            } else if (whole && rule.matched().isEmpty()) {
                String nearest = Designators.nearest(rule.selector().expanded(), known);
                findings.error(
                        "rule-unmatched",
                        rule.place(),
                        "no component is called " + rule.on(),
                        nearest == null ? "take the rule out" : "the nearest is " + shown(nearest));
            }
        }
        return findings.sorted();
    }

    private boolean isKnown(Rule rule) {
        return rule.selector().pattern() == null
                && known.contains(rule.selector().expanded());
    }

    /** The prefixes that the files declare. */
    public Map<String, String> prefixes() {
        return Collections.unmodifiableMap(prefixes);
    }
}
