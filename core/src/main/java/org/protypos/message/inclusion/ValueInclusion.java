package org.protypos.message.inclusion;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Order;
import org.protypos.schema.facet.FacetStep;
import org.protypos.schema.pattern.PatternDifference;
import org.protypos.schema.pattern.SchemaPattern;

/**
 * Whether every text that one simple type allows is allowed by another (XML Schema Part 2, section 4). Texts at the edges of
 * both are tried first; where all of them pass, it is shown for each facet that the other type demands as much, or said that it
 * cannot be decided.
 */
final class ValueInclusion {
    private static final int MOST_REFUSED = 40;
    private static final int MOST_LISTED = 200;

    private final Vocabulary from;
    private final Vocabulary to;
    private final Samples samples;

    /**
     * What was found.
     *
     * @param refused texts that the one type allows and the other does not: one for each facet that refuses some, one for each value
     *     that is no longer listed
     * @param isSure whether there are no others when there are none
     */
    record Outcome(List<Refused> refused, boolean isSure) {
        static final Outcome INCLUDED = new Outcome(List.of(), true);
        static final Outcome UNDECIDED = new Outcome(List.of(), false);

        static Outcome of(List<Refused> refused) {
            return new Outcome(refused, true);
        }

        boolean isIncluded() {
            return refused.isEmpty() && isSure;
        }
    }

    /**
     * A text that is refused.
     *
     * @param by the rule that it breaks
     */
    record Refused(String text, ValueRule by) {}

    /**
     * Compares types of two contracts.
     *
     * @param samples makes values of the types of the one
     */
    ValueInclusion(Vocabulary from, Vocabulary to, Samples samples) {
        this.from = from;
        this.to = to;
        this.samples = samples;
    }

    /** Whether all texts of a rule of the one contract are texts of a rule of the other. */
    Outcome of(ValueRule one, ValueRule other) {
        if (signature(one, from).equals(signature(other, to))) {
            return Outcome.INCLUDED;
        }
        Map<String, UnaryOperator<String>> finite = finite(one);
        if (finite != null) {
            List<Refused> refused = refused(finite, one, other);
            return Outcome.of(refused.size() > MOST_LISTED ? refused.subList(0, MOST_LISTED) : refused);
        }
        if (one.members() != null && isPlain(one, from)) {
            return members(one, other);
        }
        List<Refused> tried = tried(one, other);
        return tried.isEmpty() ? shown(one, other) : Outcome.of(tried);
    }

    /** What a rule demands, in one text: equal ones demand the same. */
    static String signature(ValueRule rule, Vocabulary vocabulary) {
        StringBuilder text = new StringBuilder();
        for (ValueRule at = rule; at != null; at = at.base()) {
            FacetStep step = vocabulary.step(at);
            if (step instanceof FacetStep.OneOf values) {
                ValueRule of = at.base();
                Set<String> keys = new LinkedHashSet<>();
                values.values().stream()
                        .map(value -> String.valueOf(of.key(value, values.namespaces())))
                        .sorted()
                        .forEach(keys::add);
                text.append(keys).append(';');
            } else if (step instanceof FacetStep.Matching matching) {
                text.append(matching.pattern()).append(';');
            } else if (step != null) {
                text.append(step.toString().replaceFirst("place=.*", "")).append(';');
            }
        }
        if (rule.members() != null) {
            rule.members().forEach(member -> text.append('|').append(signature(member, vocabulary)));
        } else if (rule.item() != null) {
            text.append('*').append(signature(rule.item(), vocabulary));
        }
        return text.append(rule.builtin()).toString();
    }

    /** All texts of a rule that has few, with what their prefixes stand for; null when it has many. */
    private Map<String, UnaryOperator<String>> finite(ValueRule rule) {
        Map<String, UnaryOperator<String>> all = new LinkedHashMap<>();
        for (ValueRule at = rule; at != null; at = at.base()) {
            if (from.step(at) instanceof FacetStep.OneOf values) {
                values.values().forEach(value -> all.put(value, values.namespaces()));
                return all;
            }
        }
        if (rule.members() != null || rule.item() != null) {
            return null;
        }
        AtomFacets facets = new AtomFacets(rule, from);
        Set<String> few = facets.builtin().equals("boolean")
                ? Set.of("true", "false", "1", "0")
                : facets.isWhole() ? ValueProbes.range(facets.least(), facets.most()) : Set.of();
        few.forEach(text -> all.put(text, null));
        return few.isEmpty() ? null : all;
    }

    private static List<Refused> refused(Map<String, UnaryOperator<String>> texts, ValueRule one, ValueRule other) {
        List<Refused> refused = new ArrayList<>();
        texts.forEach((text, namespaces) -> {
            if (one.complaint(text, namespaces) == null) {
                ValueRule.Complaint complaint = other.complaint(text, namespaces);
                if (complaint != null) {
                    refused.add(new Refused(text, complaint.rule()));
                }
            }
        });
        return refused;
    }

    private static boolean isPlain(ValueRule rule, Vocabulary vocabulary) {
        for (ValueRule at = rule; at != null; at = at.base()) {
            if (vocabulary.step(at) != null) {
                return false;
            }
        }
        return true;
    }

    private Outcome members(ValueRule one, ValueRule other) {
        List<Refused> refused = new ArrayList<>();
        boolean sure = true;
        for (ValueRule member : one.members()) {
            Outcome outcome = of(member, other);
            refused.addAll(outcome.refused());
            sure &= outcome.isSure();
        }
        return new Outcome(refused, sure);
    }

    /** Texts that are refused, one for each facet that does so. */
    private List<Refused> tried(ValueRule one, ValueRule other) {
        Set<String> probes = new ValueProbes(one, from, samples, other, to).all();
        if (one.item() != null && other.item() != null) {
            lists(one, other, probes);
        }
        List<Refused> refused = new ArrayList<>();
        Set<ValueRule> by = new LinkedHashSet<>();
        for (String text : probes) {
            if (one.complaint(text, ValueInclusion::anyPrefix) == null) {
                ValueRule.Complaint complaint = other.complaint(text, ValueInclusion::anyPrefix);
                if (complaint != null && by.add(complaint.rule()) && refused.size() < MOST_REFUSED) {
                    refused.add(new Refused(text, complaint.rule()));
                }
            }
        }
        return refused;
    }

    private void lists(ValueRule one, ValueRule other, Set<String> probes) {
        List<String> some = samples.values(one, 1);
        for (Refused item : of(one.item(), other.item()).refused()) {
            probes.add(item.text());
            some.forEach(value -> probes.add(value.isEmpty() ? item.text() : value + " " + item.text()));
            some.forEach(value -> probes.add(
                    value.replaceFirst("^\\S*", "").strip().isEmpty()
                            ? item.text()
                            : item.text() + value.replaceFirst("^\\S*", "")));
        }
        String item = samples.values(one.item(), 1).get(0);
        for (ValueRule at = other; at != null; at = at.base()) {
            if (to.step(at) instanceof FacetStep.Length length) {
                for (long times : new long[] {length.least() - 1L, length.most() + 1L}) {
                    if (times >= 0 && times < 10_000) {
                        probes.add((item + " ").repeat((int) times).strip());
                    }
                }
            }
        }
    }

    private static String anyPrefix(String prefix) {
        return prefix.isEmpty() ? "" : "http://lanternbay.example/" + prefix;
    }

    /** Shows that nothing is refused, as far as that can be shown. */
    private Outcome shown(ValueRule one, ValueRule other) {
        if (other.members() != null) {
            boolean some = isPlain(other, to)
                    && other.members().stream()
                            .anyMatch(member -> of(one, member).isIncluded());
            return some ? Outcome.INCLUDED : Outcome.UNDECIDED;
        }
        if (one.members() != null) {
            boolean all =
                    one.members().stream().allMatch(member -> of(member, other).isIncluded());
            return all ? Outcome.INCLUDED : Outcome.UNDECIDED;
        }
        if (one.item() != null || other.item() != null) {
            return listShown(one, other);
        }
        AtomFacets mine = new AtomFacets(one, from);
        AtomFacets theirs = new AtomFacets(other, to);
        boolean base = mine.isAlso(theirs.builtin());
        if (!base) {
            SchemaPattern lexical = AtomFacets.lexical(theirs.builtin());
            Outcome found = lexical == null ? Outcome.UNDECIDED : language(one, mine, List.of(lexical), other);
            if (!found.isIncluded()) {
                return found;
            }
        }
        Outcome bounds = numbers(mine, theirs);
        if (!bounds.isIncluded()) {
            return bounds;
        }
        for (FacetStep step : theirs.steps()) {
            Outcome found = implied(one, mine, step, other);
            if (!found.isIncluded()) {
                return found;
            }
        }
        return Outcome.INCLUDED;
    }

    private Outcome listShown(ValueRule one, ValueRule other) {
        if (other.item() == null) {
            boolean text = isPlain(other, to)
                    && AtomFacets.lexical(other.builtin()) != null
                    && new AtomFacets(ValueRule.of("string"), to).isAlso(other.builtin());
            return text ? Outcome.INCLUDED : Outcome.UNDECIDED;
        }
        boolean items = of(one.item() == null ? one : one.item(), other.item()).isIncluded();
        int[] mine = one.item() == null ? new int[] {0, Integer.MAX_VALUE} : lengths(one, from);
        int[] theirs = lengths(other, to);
        boolean only = theirs[2] == 0;
        return items && only && mine[0] >= theirs[0] && mine[1] <= theirs[1] ? Outcome.INCLUDED : Outcome.UNDECIDED;
    }

    /** How long a list may be, and how many facets of other kinds it has. */
    private static int[] lengths(ValueRule rule, Vocabulary vocabulary) {
        int[] found = {rule.builtin() != null ? 1 : 0, Integer.MAX_VALUE, 0};
        for (ValueRule at = rule; at != null; at = at.base()) {
            FacetStep step = vocabulary.step(at);
            if (step instanceof FacetStep.Length length) {
                found[0] = Math.max(found[0], length.least());
                found[1] = Math.min(found[1], length.most());
            } else if (step != null && !(step instanceof FacetStep.WhiteSpace)) {
                found[2]++;
            }
        }
        return found;
    }

    /** What the built-in type of the other demands of numbers. */
    private static Outcome numbers(AtomFacets mine, AtomFacets theirs) {
        if (!theirs.primitive().equals("decimal")) {
            return Outcome.INCLUDED;
        }
        boolean holds = isNotLess(mine.least(), theirs.least())
                && isNotLess(negated(mine.most()), negated(theirs.most()))
                && mine.fraction() <= theirs.fraction();
        return holds ? Outcome.INCLUDED : Outcome.UNDECIDED;
    }

    private static BigDecimal negated(BigDecimal value) {
        return value == null ? null : value.negate();
    }

    private static boolean isNotLess(BigDecimal mine, BigDecimal theirs) {
        return theirs == null || mine != null && mine.compareTo(theirs) >= 0;
    }

    /** Whether a facet of the other type is fulfilled by all that the one allows. */
    private Outcome implied(ValueRule one, AtomFacets mine, FacetStep step, ValueRule other) {
        // Numbers have been compared already, all but exclusive bounds of fractions.
        boolean numbers =
                mine.primitive().equals("decimal") && other.primitive().equals("decimal");
        return step.map(new FacetStep.Cases<>(
                space -> Outcome.INCLUDED,
                matching -> language(one, mine, matching.patterns(), other),
                values -> bound(mine, step),
                least -> numbers ? exclusive(mine, step) : bound(mine, step),
                most -> numbers ? exclusive(mine, step) : bound(mine, step),
                length -> length(one, mine, length, other),
                digits -> mine.total() <= digits.total() && mine.fraction() <= digits.fraction()
                        ? Outcome.INCLUDED
                        : Outcome.UNDECIDED));
    }

    private Outcome length(ValueRule one, AtomFacets mine, FacetStep.Length length, ValueRule other) {
        if (mine.minLength() >= length.least() && mine.maxLength() <= length.most()) {
            return Outcome.INCLUDED;
        }
        String most = length.most() == Integer.MAX_VALUE ? "" : String.valueOf(length.most());
        return length.least() > 2_000 || length.most() != Integer.MAX_VALUE && length.most() > 2_000
                ? Outcome.UNDECIDED
                : language(
                        one, mine, List.of(SchemaPattern.of("[\\s\\S]{" + length.least() + "," + most + "}")), other);
    }

    private static Outcome exclusive(AtomFacets mine, FacetStep step) {
        return bound(mine, step).isIncluded() || mine.isWhole() ? Outcome.INCLUDED : Outcome.UNDECIDED;
    }

    /** Whether some bound of the one type is as narrow as one of the other. */
    private static Outcome bound(AtomFacets mine, FacetStep step) {
        for (FacetStep own : mine.steps()) {
            boolean holds = step instanceof FacetStep.Least theirs
                            && own instanceof FacetStep.Least least
                            && isNarrower(mine, least.bound(), least.exclusive(), theirs.bound(), theirs.exclusive(), 1)
                    || step instanceof FacetStep.Most most
                            && own instanceof FacetStep.Most bound
                            && isNarrower(mine, bound.bound(), bound.exclusive(), most.bound(), most.exclusive(), -1);
            if (holds) {
                return Outcome.INCLUDED;
            }
        }
        return Outcome.UNDECIDED;
    }

    private static boolean isNarrower(
            AtomFacets mine, String bound, boolean exclusive, String other, boolean otherExclusive, int inwards) {
        try {
            int order = Order.compare(mine.primitive(), bound, other);
            return order == inwards || order == 0 && (exclusive || !otherExclusive);
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private Outcome language(ValueRule one, AtomFacets mine, List<SchemaPattern> allowed, ValueRule other) {
        boolean text = mine.primitive().equals("string") || mine.primitive().equals("anyURI");
        PatternDifference.Result found = PatternDifference.find(
                mine.language(),
                allowed,
                text ? mine.minLength() : 0,
                text ? mine.maxLength() : Integer.MAX_VALUE,
                candidate -> one.complaint(candidate, ValueInclusion::anyPrefix) == null
                        && other.complaint(candidate, ValueInclusion::anyPrefix) != null);
        if (found.text() != null) {
            ValueRule by =
                    other.complaint(found.text(), ValueInclusion::anyPrefix).rule();
            return Outcome.of(List.of(new Refused(found.text(), by)));
        }
        return found.isSure() ? Outcome.INCLUDED : Outcome.UNDECIDED;
    }
}
