package org.protypos.binding;

import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;

/** The corrections among some rules: finds those about a component, and notes what they change of it. */
final class Corrections {
    private final List<Rule> rules;
    private final BiFunction<String, Function<Rule.Effect, ?>, Rule> best;
    private final Set<String> known;
    private final UnaryOperator<String> shown;
    private final Findings findings;

    /**
     * Takes the corrections.
     *
     * @param rules the rules that correct something
     * @param best finds the rule that holds for a component in some respect, or null
     * @param known takes the designators of all components
     * @param shown puts prefixes for namespaces
     */
    Corrections(
            List<Rule> rules,
            BiFunction<String, Function<Rule.Effect, ?>, Rule> best,
            Set<String> known,
            UnaryOperator<String> shown,
            Findings findings) {
        this.rules = rules;
        this.best = best;
        this.known = known;
        this.shown = shown;
        this.findings = findings;
    }

    /** The rule that holds for a component in some respect, or null. */
    Rule about(String designator, Function<Correction, ?> respect) {
        known.add(designator);
        return best.apply(
                designator, effect -> effect.correction() == null ? null : respect.apply(effect.correction()));
    }

    /** The rule that drops a member or a value, or null. */
    Rule dropping(String designator) {
        return about(designator, correction -> correction.dropped() ? true : null);
    }

    /** All rules for a component that say something in some respect: of additions there can be several. */
    List<Rule> allAbout(String designator, Function<Correction, ?> respect) {
        known.add(designator);
        List<Rule> found = rules.stream()
                .filter(rule -> respect.apply(rule.effect().correction()) != null)
                .filter(rule -> rule.selector().fits(designator))
                .toList();
        found.forEach(rule -> rule.matched().add(designator));
        return found;
    }

    /** Whether a rule may be about something inside a component. */
    boolean reach(String designator) {
        return rules.stream()
                .anyMatch(rule -> rule.selector().pattern() != null
                        || rule.selector().expanded().startsWith(designator + "/"));
    }

    /** Notes what a correction changes, or that it changes nothing. */
    void changed(Rule rule, String designator, Place place, String before, String after) {
        if (Objects.equals(before, after)) {
            findings.warning(
                    "correction-unneeded",
                    rule.place(),
                    "the contract says " + shown.apply(after) + " of " + rule.on() + " by now",
                    "take the correction out");
        } else {
            rule.changes().add(new Rule.Change(place, designator, before, after));
        }
    }

    /** Tells that a correction cannot be made. */
    void refused(Rule rule, String message, String cure) {
        findings.error("correction-refused", rule.place(), shown.apply(message), cure);
    }

    /** A name as people read it. */
    String shown(QName name) {
        return shown.apply(name.toString());
    }
}
