package org.protypos.record;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.bridge.RecordMessages;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Targets;
import org.protypos.testing.Infoset;

/** Requests of every style and protocol go into records and come out of them as the contract wants them. */
class RecordMessagesTest {
    private static final RecordForm FORM = new RecordForm(StandardCharsets.UTF_8, false);

    static Stream<Path> contracts() throws IOException {
        List<Path> found = new ArrayList<>();
        for (Path top : List.of(Path.of("../examples"), Path.of("src/test/resources"))) {
            try (Stream<Path> all = Files.walk(top)) {
                all.filter(file -> file.toString().endsWith(".wsdl"))
                        .filter(file -> read(file).isSound())
                        .sorted()
                        .forEach(found::add);
            }
        }
        assertThat(found).hasSizeGreaterThan(10);
        return found.stream();
    }

    private static Contract read(Path contract) {
        return ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
    }

    @ParameterizedTest
    @MethodSource("contracts")
    void requestsComeOutAsTheyWentIn(Path contract) {
        PlannedContract planned =
                Generator.of(read(contract)).target(Targets.withRecords()).plan();
        ContractCheck check = new ContractCheck(planned.contract());
        for (boolean full : new boolean[] {false, true}) {
            Samples samples = new Samples(planned.contract(), check.vocabulary(), full);
            for (CalledOperation called : CalledOperation.of(check.wire())) {
                RecordMessages messages = new RecordMessages(planned.code().records(), called, FORM);
                if (messages.request() != null) {
                    request(messages, called, check, samples.message(called.request()));
                }
            }
        }
    }

    private static void request(RecordMessages messages, CalledOperation called, ContractCheck check, String sample) {
        MessageElement before =
                EncodedForm.literal(MessageReader.read("sample", sample), called.request(), check.vocabulary());
        Findings findings = new Findings();
        byte[] record = RecordWriter.write(
                messages.request(),
                EnvelopeParts.header(before, called.request()),
                EnvelopeParts.body(before, called.request()),
                FORM,
                "sample",
                findings);
        assertThat(findings.sorted()).as(sample).isEmpty();
        MessageElement after = messages.request(record, check, "record", findings);
        assertThat(findings.sorted()).as(sample).isEmpty();
        if (!called.request().isEncoded()) {
            assertThat(RecordTripTest.plain(Infoset.of(MessageText.of(after))))
                    .isEqualTo(RecordTripTest.plain(Infoset.of(sample)));
        }
    }
}
