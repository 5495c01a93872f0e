package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageReader;
import org.protypos.proof.Proof;
import org.protypos.source.DocumentGatherer;
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
    private static final int RULES = 24;
    private static final int MESSAGES = 90;

    @ParameterizedTest
    @CsvSource({"11, java", "12, java", "305, csharp"})
    void whateverRulesMakeOfAContractCompilesAndLosesNothing(long seed, String language, @TempDir Path folder)
            throws Exception {
        if (language.equals("csharp")) {
            CSharp.assumed();
        }
        RandomContract random = new RandomContract(seed, 30);
        Path schema = random.layOut(folder);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        RandomRules.Kept kept = new RandomRules(seed, contract, Targets.named(language)).keep(RULES, true);
        PlannedContract planned = kept.planned();
        List<Text> messages = messages(schema, random, planned);
        if (kept.text().contains("omit: true")) {
            // A type that is left out does not take the place of another.
            messages.removeIf(message -> message.text().matches("(?s).*(i:type=|<m[0-9]).*"));
        }
        assertThat(messages).as("messages for %s", kept.text()).hasSizeGreaterThan(MESSAGES / 6);
        if (language.equals("csharp")) {
            assertThat(new Proof(planned.contract(), planned.code()).of(messages))
                    .as(kept.text())
                    .allSatisfy(result -> assertThat(result.details()).isEmpty());
            return;
        }
        try (Generated generated = Generated.from(List.of(schema), folder.resolve("out"), kept.rules())) {
            for (Text message : messages) {
                assertThat(plain(generated.roundTrip(message.text())))
                        .as(kept.text() + message.text())
                        .isEqualTo(plain(message.text()));
            }
        }
    }

    /** A message where text that a rule makes a qualified name is what it was. */
    private static String plain(String message) {
        return Infoset.of(message).replace("{urn:random}", "");
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
