package org.protypos.message.inclusion;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Outline;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;
import org.protypos.schema.SchemaType;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.facet.FacetStep;

/** Tells of values that one simple type allows and another does not. */
final class Values {
    private final Pairs pairs;
    private final Local found;

    /** A simple type and its rule. */
    record Side(ValueRule rule, SchemaType type) {}

    Values(Pairs pairs, Local found) {
        this.pairs = pairs;
        this.found = found;
    }

    /**
     * Compares.
     *
     * @param outline how what has a value looks
     * @param what it, in words before the value
     * @param around what the values belong to
     */
    void compare(Side one, Side other, Function<String, Outline> outline, String what, Clue... around) {
        ValueInclusion.Outcome outcome = pairs.values(one.rule(), other.rule());
        for (ValueInclusion.Refused refused : outcome.refused()) {
            String facet = facet(refused.by(), pairs.other);
            Clue own = new Clue(
                    one.type(), other.type(), null, false, facet == null ? List.of() : List.of(facet), refused.text());
            found.refused(what + "'" + shown(refused.text()) + "'", outline.apply(refused.text()), with(own, around));
        }
        if (!outcome.isSure()) {
            found.add(
                    Gap.Kind.UNDECIDED,
                    what + "values that a pattern or a bound speaks of",
                    null,
                    with(Clue.of(one.type(), other.type()), around));
        }
        if (ids(one.rule()) != ids(other.rule()) && ids(other.rule())) {
            found.add(
                    Gap.Kind.REFUSED,
                    what + "the same value twice, or one that refers to nothing",
                    null,
                    with(Clue.of(one.type(), other.type()), around));
        }
    }

    /** Whether values are bound to others in the message (XML Schema Part 1, section 3.2.6). */
    private static boolean ids(ValueRule rule) {
        return rule.item() != null ? ids(rule.item()) : List.of("ID", "IDREF").contains(String.valueOf(rule.builtin()));
    }

    private static Clue[] with(Clue own, Clue... around) {
        List<Clue> all = new ArrayList<>(List.of(own));
        all.addAll(Arrays.asList(around));
        return all.toArray(Clue[]::new);
    }

    private static String shown(String text) {
        return Lexical.shortened(text, 40);
    }

    /** The name of the facet that made a rule, or null when it was the type itself. */
    private static String facet(ValueRule rule, Vocabulary vocabulary) {
        FacetStep step = vocabulary.step(rule);
        return step == null || step.kind() == FacetKind.ENUMERATION
                ? null
                : step.kind().local();
    }
}
