package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.proof.Reconciliation;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.java.text.JavaNames;

/** Facets that lie: the smallest corrections are proposed, and laid over the contract they make the messages fit. */
class FacetCorrectionsTest {
    private static final Path YARD = Path.of("src/test/resources/change/yard.wsdl");

    private static final String BOOKED = "<y:booked xmlns:y='urn:yard'><y:slip>300</y:slip>"
            + "<y:remark>a remark that is much longer than it should be</y:remark><y:by>AB1234</y:by>"
            + "<y:price currency='EURO'>-1234567.5</y:price></y:booked>";

    private static final String SURVEY = "<y:survey xmlns:y='urn:yard'><y:depth>90</y:depth><y:hull number='1'"
            + " xmlns:xsi='http://www.w3.org/2001/XMLSchema-instance' xsi:type='y:MotorHull'><y:name>Gull</y:name>"
            + "<y:length>1</y:length><y:fuel>steam</y:fuel></y:hull><y:place>1</y:place></y:survey>";

    private static Contract yard() {
        return ContractReader.read(DocumentGatherer.gather(List.of(YARD.toString()), null));
    }

    private static MessageElement message(String text) {
        return MessageReader.read("message", text);
    }

    @Test
    void theSmallestThatFitsIsProposed() {
        Reconciliation.Outcome outcome =
                new Reconciliation(yard(), new JavaNames()).of(List.of(message(BOOKED), message(SURVEY)));
        assertThat(outcome.fitting()).isEqualTo(2);
        assertThat(ProposedRule.file(outcome.rules().stream()
                                .map(ProposedRule::withoutRemark)
                                .toList())
                        .replaceAll("(?m)^ *(because|prefixes|yard): .*\\n|^prefixes:\\n", ""))
                .isEqualTo("""
                        rules:
                          - on: "yard:booked/yard:slip"
                            type: "xs:integer"
                          - on: "~yard:Text"
                            maxLength: 46
                          - on: "~yard:Code"
                            pattern: null
                          - on: "~yard:Currency"
                            pattern: null
                          - on: "~yard:Amount"
                            totalDigits: 8
                            minInclusive: "-1234567.5"
                          - on: "~yard:Metres"
                            maxExclusive: null
                            maxInclusive: 90
                            minInclusive: 1
                          - on: "~yard:Fuel"
                            add: "'steam'"
                        """);
    }

    /** A namespace may have any sign that separates steps elsewhere. */
    @Test
    void valuesOfAttributesAreAddedInAnyNamespace(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("berth.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="http://lanternbay.example/a/b"
                    targetNamespace="http://lanternbay.example/a/b">
                  <xs:element name="berth"><xs:complexType><xs:attribute name="side" type="Side"/></xs:complexType></xs:element>
                  <xs:simpleType name="Side">
                    <xs:restriction base="xs:token"><xs:enumeration value="port"/></xs:restriction>
                  </xs:simpleType>
                </xs:schema>
                """);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        Reconciliation.Outcome outcome = new Reconciliation(contract, new JavaNames())
                .of(List.of(message("<b:berth xmlns:b='http://lanternbay.example/a/b' side='aft'/>")));
        assertThat(outcome.fitting()).isEqualTo(1);
        assertThat(outcome.rules()).extracting(rule -> rule.values().get("add")).containsExactly("'aft'");
    }

    @Test
    void whatRulesSayOfFacetsIsWhatCounts(@TempDir Path folder) throws Exception {
        Path file = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {y: "urn:yard"}
                rules:
                  - {on: "~y:Fuel", values: ["+ 'steam'", "- 'wind'"], because: "seen"}
                  - {on: "~y:Code", pattern: "[A-Z]{2}", because: "seen"}
                  - {on: "~y:Text", maxLength: null, minLength: 0, because: "seen"}
                """);
        Rules rules = RuleReader.read(List.of(file), new JavaNames());
        Contract corrected = rules.correct(yard());
        assertThat(rules.findings(true)).isEmpty();
        ContractCheck check = new ContractCheck(corrected);
        String head = "<y:book xmlns:y='urn:yard' desk='AB'><y:hull number='1'"
                + " xmlns:xsi='http://www.w3.org/2001/XMLSchema-instance' xsi:type='y:SailHull'><y:name/>"
                + "<y:length>2</y:length><y:masts>1</y:masts></y:hull><y:work><y:what>";
        assertThat(check.check(message(head + "steam</y:what></y:work></y:book>"))
                        .deviations())
                .isEmpty();
        assertThat(check.check(message(head + "wind</y:what></y:work></y:book>"))
                        .deviations())
                .hasSize(1);
        Path wrong = Files.writeString(folder.resolve("wrong.yaml"), """
                prefixes: {y: "urn:yard"}
                rules:
                  - {on: "~y:Fuel", values: [steam], because: "seen"}
                  - {on: "~y:Code", pattern: "[A-Z", because: "seen"}
                  - {on: "~y:Text", maxLength: long, because: "seen"}
                """);
        assertThat(RuleReader.read(List.of(wrong), new JavaNames()).findings(false))
                .extracting(finding -> finding.place().line() + " " + finding.message())
                .containsExactly(
                        "3 \"steam\" neither adds nor takes a value",
                        "4 \"[A-Z\" is no pattern: the pattern ends too early (character 5)",
                        "5 \"long\" is no number for maxLength");
    }

    /** Facets of a list and of a union are held to as those of a restriction are; what says nothing of a type is refused. */
    @Test
    void facetsAreThoseOfTheValues(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("berth.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="urn:berth" targetNamespace="urn:berth">
                  <xs:simpleType name="Marks"><xs:list itemType="xs:int"/></xs:simpleType>
                  <xs:simpleType name="When"><xs:union memberTypes="xs:int xs:date"/></xs:simpleType>
                  <xs:simpleType name="Name"><xs:restriction base="xs:string"/></xs:simpleType>
                  <xs:simpleType name="Depth"><xs:restriction base="xs:int"/></xs:simpleType>
                  <xs:element name="berth"><xs:complexType>
                    <xs:attribute name="marks" type="Marks"/><xs:attribute name="when" type="When"/>
                  </xs:complexType></xs:element>
                </xs:schema>
                """);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        Path file = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {b: "urn:berth"}
                rules:
                  - {on: "~b:Marks", maxLength: 2, because: "seen"}
                  - {on: "~b:When", pattern: "[0-9]+", because: "seen"}
                  - {on: "~b:When", totalDigits: 2, because: "seen"}
                  - {on: "~b:Name", minInclusive: 0, because: "seen"}
                  - {on: "~b:Depth", maxInclusive: much, because: "seen"}
                """);
        Rules rules = RuleReader.read(List.of(file), new JavaNames());
        ContractCheck check = new ContractCheck(rules.correct(contract));
        assertThat(rules.findings(true))
                .extracting(finding -> finding.place().line() + " " + finding.message())
                .containsExactly(
                        "5 totalDigits says nothing of a union, which ~b:When is",
                        "6 minInclusive says nothing of values of string, which ~b:Name is",
                        "7 maxInclusive needs a value of int, not \"much\"");
        assertThat(check.check(message("<b:berth xmlns:b='urn:berth' marks='1 2' when='7'/>"))
                        .deviations())
                .isEmpty();
        assertThat(check.check(message("<b:berth xmlns:b='urn:berth' marks='1 2 3' when='2027-05-09'/>"))
                        .deviations())
                .hasSize(2);
    }
}
