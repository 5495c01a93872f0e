package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import org.protypos.testing.Dice;

/** Random rules about whatever a contract has; those that are refused must say where they stand. The same seed gives the same ones. */
public final class RandomRules {
    private static final List<String> NAMES =
            List.of(("value text input output other to that Class Object String toString"
                            + " List kept of Nil Fault System Type Runtime item items data id Müller Documents")
                    .split(" "));
    private static final List<String> SHAPES = List.of("BigInteger BigDecimal String string".split(" "));

    private static final String OPERATIONS = "portType ";

    private final Dice random;
    private final Contract contract;
    private final Target target;
    private final List<String> components = new ArrayList<>();
    private final List<String> types = new ArrayList<>();

    /**
     * Asks for everything that a rule can be about.
     *
     * @param seed decides everything
     */
    public RandomRules(long seed, Contract contract, Target target) {
        this.random = new Dice(seed);
        this.contract = contract;
        this.target = target;
        Rules rules = RuleReader.read(
                "none.yaml",
                "rules: [{on: \"~none\", name: None}]",
                Targets.standard().rules());
        Generator.of(contract).rules(rules).plan();
        components.addAll(new TreeSet<>(rules.known()));
        components.stream()
                .filter(name -> name.startsWith("~") && !name.contains("/") && !name.contains("#"))
                .forEach(types::add);
    }

    /** What a rule is about: of what it can be about at all, where that is little. */
    private String on(String effect) {
        String kind =
                effect.startsWith("package") ? "namespace " : effect.matches("(parameters|async).*") ? OPERATIONS : "";
        String component = random.of(
                components.stream().filter(name -> name.startsWith(kind)).toList());
        return random.nextInt(5) > 0 || kind.equals("namespace ")
                ? component
                : component.replaceFirst("\\}.*", "}*" + random.of(List.of("", "1", "*")));
    }

    /** What a rule may want of the code; messages stay as they are. */
    private List<Supplier<String>> shapes() {
        return List.of(
                () -> "name: " + random.of(NAMES),
                () -> random.of(List.of("prefix: ", "suffix: ")) + random.of(NAMES),
                () -> "unwrap: true",
                () -> "optional: true",
                () -> "as: " + random.of(SHAPES),
                () -> "package: "
                        + random.of(List.of("org.example.value", "org.example.value.Value", "text", "org.example")),
                () -> "documentation: "
                        + random.of(List.of("'*/ x'", "'</summary> & ]]>'", "'\\u002a/'", "'{@code x'")));
    }

    private List<Supplier<String>> corrections() {
        return List.of(
                () -> "occurs: " + random.of(List.of("'1'", "0..1", "1..*", "2..5")),
                () -> "type: " + random.of(List.of("'xs:string'", "'xs:date'", "'xs:NCName'", "'xs:anyType'")),
                () -> "type: '" + random.of(types).substring(1) + "'",
                () -> "base: '" + random.of(types).substring(1) + "'",
                () -> random.of(
                        List.of("nillable: true", "form: unqualified", "default: '5'", "default: null", "drop: true")),
                () -> random.of(List.of("maxLength: 5", "pattern: '[A-Z]+'", "minInclusive: 0", "totalDigits: 4")),
                () -> "add: "
                        + random.of(List.of("'@since', type: 'xs:date'", "'{urn:more}thing', type: 'xs:string'")));
    }

    private PlannedContract planned(String rules) {
        return Generator.of(contract).rules(read(rules)).target(target).plan();
    }

    private Rules read(String rules) {
        return RuleReader.read("rules.yaml", "rules:\n" + rules, target.rules());
    }

    /**
     * So many rules that are not refused, alone or beside the others.
     *
     * @param withCorrections whether the contract may be changed, types be left out, too
     */
    public Kept keep(int count, boolean withCorrections) {
        List<Supplier<String>> effects = new ArrayList<>(shapes());
        if (components.stream().anyMatch(name -> name.startsWith(OPERATIONS))) {
            effects.add(() -> "parameters: " + random.of(List.of("object", "plain")));
            effects.add(() -> "async: false");
            // Numbers are small in the messages of services, and times have zones.
            effects.add(() ->
                    "as: " + random.of(List.of("int", "long", "short", "OffsetDateTime", "ZonedDateTime", "Instant")));
        }
        if (withCorrections) {
            effects.add(() -> "omit: true");
            effects.add(() -> "as: LocalDateTime");
            corrections().forEach(effect -> effects.add(() -> "because: so it is, " + effect.get()));
        }
        StringBuilder kept = new StringBuilder();
        Set<String> unplaced = new TreeSet<>();
        int held = 0;
        for (int tried = 0; held < count; tried++) {
            assertThat(tried).as("tries for rules that hold: %s", kept).isLessThan(count * 20);
            String effect = random.of(effects).get();
            String rule = "  - {on: \"" + on(effect) + "\", " + effect + "}\n";
            planned(rule).findings().stream()
                    .filter(finding -> finding.place() == null)
                    .map(Finding::toString)
                    .forEach(unplaced::add);
            if (planned(kept + rule).isSound()) {
                kept.append(rule);
                held++;
            }
        }
        assertThat(unplaced).as("findings without a place").isEmpty();
        return new Kept(kept.toString(), read(kept.toString()), planned(kept.toString()));
    }

    /**
     * Rules that hold together.
     *
     * @param text as a file of rules has them
     * @param rules as they are given to whoever generates
     * @param planned what they make of the contract
     */
    public record Kept(String text, Rules rules, PlannedContract planned) {}
}
