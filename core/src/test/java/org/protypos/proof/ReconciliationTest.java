package org.protypos.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.binding.ProposedRule;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Severity;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Targets;

/** What is proposed is taken and does what is said of it; where no rule would do, none is proposed. */
class ReconciliationTest {
    private static final String CONTRACT = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
              <xs:group name="inner"><xs:choice><xs:element name="buoy" type="xs:string"/><xs:element name="light" type="xs:int"/></xs:choice></xs:group>
              <xs:group name="outer"><xs:sequence><xs:group ref="inner"/><xs:element name="mark" type="xs:token"/></xs:sequence></xs:group>
              <xs:complexType name="Valued"><xs:simpleContent><xs:extension base="xs:int"><xs:attribute name="unit" type="xs:string"/></xs:extension></xs:simpleContent></xs:complexType>
              <xs:complexType name="Channel"><xs:group ref="outer"/></xs:complexType>
              <xs:element name="channel"><xs:complexType><xs:sequence>
                <xs:group ref="outer"/><xs:element name="depth" type="Valued"/><xs:element name="side" type="Channel" minOccurs="0"/>
              </xs:sequence></xs:complexType></xs:element>
            </xs:schema>
            """;

    @ParameterizedTest
    @CsvSource({
        "<buoy>a</buoy><more>1</more><mark>b</mark><depth>3</depth>, true",
        "<buoy>a</buoy><mark>b</mark><more>1</more><depth>3</depth>, true",
        "<buoy>a</buoy><mark>b</mark><depth>3</depth><side><light>1</light><more/><mark>c</mark></side>, true",
        "<buoy>a</buoy><mark>b</mark><depth more='1'>3</depth>, true",
        "<buoy more='1'>a</buoy><mark>b</mark><depth>3</depth>, false",
        "<buoy>a</buoy><mark>b<more/></mark><depth>3</depth>, false",
        "<buoy>a</buoy><mark>b</mark><depth>3<more/></depth>, false",
    })
    void proposalsAreTaken(String content, boolean fits, @TempDir Path folder) throws Exception {
        List<String> documents = List.of(
                Files.writeString(folder.resolve("channel.xsd"), CONTRACT).toString());
        Contract contract = ContractReader.read(DocumentGatherer.gather(documents, null));
        byte[] bytes = ("<channel>" + content + "</channel>").getBytes(StandardCharsets.UTF_8);
        MessageElement message = MessageReader.read("message", bytes, new Findings());
        assertThat(new ContractCheck(contract).check(message).deviations()).isNotEmpty();
        Reconciliation.Outcome outcome =
                new Reconciliation(contract, Targets.standard().rules()).of(List.of(message));
        Path rules = Files.writeString(folder.resolve("rules.yaml"), ProposedRule.file(outcome.rules()));
        PlannedContract planned = Generator.of(documents).rules(List.of(rules)).plan();
        assertThat(planned.findings().stream()
                        .filter(finding -> finding.severity() != Severity.NOTE)
                        .map(Finding::message))
                .as(Files.readString(rules))
                .isEmpty();
        assertThat(outcome.fitting()).isEqualTo(fits ? 1 : 0);
        assertThat(outcome.rules().isEmpty()).isEqualTo(!fits);
        assertThat(new ContractCheck(planned.contract())
                        .check(message)
                        .deviations()
                        .isEmpty())
                .isEqualTo(fits);
    }
}
