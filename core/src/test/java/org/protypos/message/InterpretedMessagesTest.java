package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.binding.RuleReader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Infoset;
import org.protypos.testing.Sections;

/** The messages that generated types read and write go through JSON as well, and samples of their contracts are valid. */
class InterpretedMessagesTest {
    static Stream<Sections> cases() {
        return Sections.in("messages");
    }

    private static Contract contract(Path schema, Path folder) throws IOException {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        Path rules = folder.resolve("rules.yaml");
        return Files.exists(rules)
                ? RuleReader.read(List.of(rules), new JavaNames()).correct(contract)
                : contract;
    }

    @ParameterizedTest
    @MethodSource("cases")
    void validMessagesSayTheSameAsJson(Sections test, @TempDir Path folder) throws IOException {
        Path schema = test.layOut(folder);
        Vocabulary vocabulary = new Vocabulary(contract(schema, folder).schema());
        MessageChecker checker = new MessageChecker(vocabulary);
        for (String message : test.startingWith("message").toList()) {
            MessageElement before = MessageReader.read("message", message);
            String json = json(vocabulary, checker, before);
            Findings findings = new Findings();
            JsonValue value = JsonText.parse(new SourceText("message.json", json), findings);
            MessageElement after = new JsonMessageReader(vocabulary, findings)
                    .element(value, before.name(), vocabulary.typeOf(vocabulary.element(before.name())), "");
            assertThat(findings.sorted()).as(json).isEmpty();
            String written = MessageText.compact(after);
            assertThat(Infoset.complaint(schema, written))
                    .as("the validator on " + written)
                    .isNull();
            assertThat(elements(written)).as(json).isEqualTo(elements(message));
            assertThat(json(vocabulary, checker, MessageReader.read("again", written)))
                    .isEqualTo(json);
        }
    }

    /** The elements of a message in their order, without what is in them: JSON keeps no prefixes of values that no schema describes. */
    private static List<String> elements(String message) {
        return Infoset.of(message)
                .lines()
                .filter(line -> line.strip().startsWith("{"))
                .map(line -> line.replaceAll("(?<=\\S) .*", ""))
                .toList();
    }

    private static String json(Vocabulary vocabulary, MessageChecker checker, MessageElement message)
            throws IOException {
        CheckedMessage checked = checker.check(message);
        assertThat(checked.deviations()).isEmpty();
        StringWriter text = new StringWriter();
        try (JsonGenerator out = new JsonFactory().createGenerator(text)) {
            new JsonMessageWriter(vocabulary, checked.types()).write(message, out);
        }
        return text.toString();
    }

    @ParameterizedTest
    @MethodSource("cases")
    void samplesAreValid(Sections test, @TempDir Path folder) throws IOException {
        Path schema = test.layOut(folder);
        Contract contract = contract(schema, folder);
        Vocabulary vocabulary = new Vocabulary(contract.schema());
        Infoset.Validator oracle = Infoset.validator(schema);
        for (boolean full : new boolean[] {false, true}) {
            Samples samples = new Samples(contract, vocabulary, full);
            for (QName name : samples.elements()) {
                String sample = samples.element(name);
                assertThat(oracle.complaint(sample)).as(sample).isNull();
            }
        }
    }
}
