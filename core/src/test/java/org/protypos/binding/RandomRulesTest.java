package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageReader;
import org.protypos.proof.Proof;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Target;
import org.protypos.target.Targets;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;

/**
 * Random rules and corrections over random contracts: each is refused with its place, or what it makes compiles and loses nothing
 * of the messages that the corrected contract takes.
 */
class RandomRulesTest {
    private static final int RULES = 60;
    private static final int MESSAGES = 90;
    private static final List<String> NAMES =
            List.of(("value text input output other to that Class Object String toString"
                            + " List kept of Nil Fault System Type Runtime item items data id Müller Documents")
                    .split(" "));

    private final Random chance = new Random(7);
    private final List<String> components = new ArrayList<>();
    private final List<String> types = new ArrayList<>();

    private <T> T one(List<T> of) {
        return of.get(chance.nextInt(of.size()));
    }

    /** Everything that a rule can be about. */
    private void gather(Contract contract) {
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

    private String rule() {
        String on = chance.nextInt(5) > 0
                ? one(components)
                : one(components).replaceFirst("\\}.*", "}*" + one(List.of("", "1", "*")));
        List<Supplier<String>> effects = List.of(
                () -> "name: " + one(NAMES),
                () -> one(List.of("prefix: ", "suffix: ")) + one(NAMES),
                () -> "omit: true",
                () -> "unwrap: true",
                () -> "optional: true",
                () -> "documentation: " + one(List.of("'*/ x'", "'</summary> & ]]>'", "'\\u002a/'", "'{@code x'")),
                () -> "because: so it is, occurs: " + one(List.of("'1'", "0..1", "1..*", "2..5")),
                () -> "because: so it is, type: "
                        + one(List.of("'xs:string'", "'xs:date'", "'xs:QName'", "'xs:anyType'")),
                () -> "because: so it is, type: '" + one(types).substring(1) + "'",
                () -> "because: so it is, base: '" + one(types).substring(1) + "'",
                () -> "because: so it is, "
                        + one(List.of(
                                "nillable: true", "form: unqualified", "default: '5'", "default: null", "drop: true")),
                () -> "because: so it is, "
                        + one(List.of("maxLength: 5", "pattern: '[A-Z]+'", "minInclusive: 0", "totalDigits: 4")),
                () -> "because: so it is, add: "
                        + one(List.of("'@since', type: 'xs:date'", "'{urn:more}thing', type: 'xs:string'")));
        return "  - {on: \"" + on + "\", " + one(effects).get() + "}\n";
    }

    private static PlannedContract planned(Contract contract, String rules, Target target) {
        return Generator.of(contract)
                .rules(RuleReader.read("rules.yaml", "rules:\n" + rules, target.rules()))
                .target(target)
                .plan();
    }

    @ParameterizedTest
    @CsvSource({"11, java", "12, java", "13, csharp"})
    void whateverRulesMakeOfAContractCompilesAndLosesNothing(long seed, String language, @TempDir Path folder)
            throws Exception {
        if (language.equals("csharp")) {
            CSharp.assumed();
        }
        RandomContract random = new RandomContract(seed, 30);
        Path schema = random.layOut(folder);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        gather(contract);
        Target target = Targets.named(language);
        StringBuilder kept = new StringBuilder();
        Set<String> refused = new TreeSet<>();
        for (int i = 0; i < RULES; i++) {
            String rule = rule();
            List<Finding> alone = planned(contract, rule, target).findings();
            alone.stream().filter(finding -> finding.place() == null).forEach(finding -> refused.add("" + finding));
            if (planned(contract, kept + rule, target).isSound()) {
                kept.append(rule);
            }
        }
        assertThat(refused).as("findings without a place").isEmpty();
        assertThat(kept.toString().lines().count()).as("rules that hold").isGreaterThan(RULES / 3);
        PlannedContract planned = planned(contract, kept.toString(), target);
        List<Text> messages = messages(schema, random, planned);
        assertThat(messages).as("messages for %s", kept).hasSizeGreaterThan(MESSAGES / 6);
        if (language.equals("csharp")) {
            assertThat(new Proof(planned.contract(), planned.code()).of(messages))
                    .as(kept.toString())
                    .allSatisfy(result -> assertThat(result.details()).isEmpty());
            return;
        }
        try (Generated generated = Generated.from(List.of(schema), folder.resolve("out"), planned.rules())) {
            for (Text message : messages) {
                assertThat(Infoset.of(generated.roundTrip(message.text())))
                        .as(kept + message.text())
                        .isEqualTo(Infoset.of(message.text()));
            }
        }
    }

    /** Messages that both the contract as it is published and the corrected one take. */
    private static List<Text> messages(Path schema, RandomContract random, PlannedContract planned) throws IOException {
        MessageChecker checker =
                new MessageChecker(new Vocabulary(planned.contract().schema()));
        List<Text> messages = new ArrayList<>();
        for (int i = 0; i < MESSAGES; i++) {
            String message = random.message();
            if (Infoset.complaint(schema, message) == null
                    && checker.check(MessageReader.read("message", message))
                            .deviations()
                            .isEmpty()) {
                messages.add(new Text("message" + i, message));
            }
        }
        return messages;
    }

    /** A message. */
    private record Text(String name, String text) implements Proof.Message {
        @Override
        public byte[] bytes() {
            return text.getBytes(StandardCharsets.UTF_8);
        }
    }
}
