package org.protypos.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Reader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Surface;
import org.protypos.testing.Plans;
import org.protypos.testing.Sections;

/** There and back: what a sketch says is in the contract, and what a contract says is in the sketch or is named. */
class ContractSketchTest {
    @TempDir
    private Path folder;

    private static Contract read(Path file) throws IOException {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
        assertThat(contract.isSound()).as("%s", contract.findings()).isTrue();
        return contract;
    }

    private Contract drafted(Sketch sketch, String name) throws IOException {
        Findings findings = new Findings();
        Map<String, String> texts = ContractDraft.of(sketch, true, findings);
        assertThat(findings.hasErrors()).as("%s", findings.sorted()).isFalse();
        Path into = Files.createDirectories(folder.resolve(name));
        for (Map.Entry<String, String> text : texts.entrySet()) {
            Files.writeString(into.resolve(text.getKey()), text.getValue());
        }
        return read(into.resolve(texts.keySet().iterator().next()));
    }

    @ParameterizedTest
    @ValueSource(strings = {"sections", "rpc"})
    void sketchToContractToSketchIsTheSame(String name) throws IOException {
        Findings findings = new Findings();
        Sketch sketch = SketchReader.read(
                new SourceText(
                        name,
                        Sections.of(Path.of("src/test/resources/draft/cases", name + ".txt"))
                                .get("sketch.yaml")),
                findings);
        String text = SketchText.of(sketch);
        assertThat(SketchText.of(SketchReader.read(new SourceText(name, text), findings)))
                .isEqualTo(text);
        Findings unsaid = new Findings();
        assertThat(SketchText.of(ContractSketch.of(drafted(sketch, name), unsaid)))
                .isEqualTo(text);
        assertThat(unsaid.sorted()).isEmpty();
    }

    private static Surface surface(Contract contract) {
        return Plans.code(contract).surface();
    }

    /** The judge is what compares contracts. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/harbour/next/desk.wsdl",
                "src/test/resources/blocks/blocks.wsdl"
            })
    void contractToSketchToContractBreaksNothingThatIsNotNamed(String file) throws IOException {
        Contract contract = read(Path.of(file));
        Findings unsaid = new Findings();
        Sketch sketch = ContractSketch.of(contract, unsaid);
        String text = SketchText.of(sketch);
        Findings findings = new Findings();
        Contract again = drafted(SketchReader.read(new SourceText("sketch.yaml", text), findings), "again");
        List<String> breaking = Comparison.of(contract, again, surface(contract), surface(again)).differences().stream()
                .filter(Difference::isBreaking)
                .filter(difference -> difference.breaks().contains(Reader.OLD_CLIENTS)
                        || difference.breaks().contains(Reader.OLD_SERVERS))
                .map(Difference::toString)
                .toList();
        assertThat(breaking)
                .as(
                        "%s%n%s",
                        text, unsaid.sorted().stream().map(Finding::message).toList())
                .isEmpty();
    }

    @Test
    void whatIsWrittenAboutWhatASketchHasNoPlaceForIsNamed() throws IOException {
        Path desk = Path.of("../examples/harbour/contract/desk.wsdl");
        String text = Files.readString(desk)
                .replaceAll(
                        "(<wsdl:(service|port|message|binding)\\b[^>]*>)",
                        "$1<wsdl:documentation>!</wsdl:documentation>");
        Files.writeString(folder.resolve("desk.wsdl"), text);
        for (String schema : List.of("desk.xsd", "vessels.xsd")) {
            Files.writeString(
                    folder.resolve(schema),
                    Files.readString(desk.resolveSibling(schema))
                            .replaceAll(
                                    "(<xs:enumeration[^>]*)/>",
                                    "$1><xs:annotation><xs:documentation>!</xs:documentation></xs:annotation></xs:enumeration>"));
        }
        Findings unsaid = new Findings();
        ContractSketch.of(read(folder.resolve("desk.wsdl")), unsaid);
        assertThat(unsaid.sorted().stream().map(Finding::message))
                .contains(
                        "a sketch cannot say what is written about the port type HarbourDesk",
                        "a sketch cannot say what is written about the service HarbourOffice",
                        "a sketch cannot say what is written about the message requestBerthInput",
                        "a sketch cannot say what is written about xs:enumeration \"water\"")
                .anyMatch(message -> message.contains("the binding "))
                .anyMatch(message -> message.contains("the port "));
    }

    /** Values hold what XML can: the ends of lines of every alphabet, what sketches write themselves, blanks at their ends. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "a&#x2028;b",
                "a&#x85;b",
                "a&#x9b;31mb",
                "a&#x202e;b&#x200d;c&#xfeff;",
                "a&#10;b",
                "a, b",
                "one of x",
                "&quot;a&quot; \\",
                "'a'",
                " a ",
                "{a}b/c = d",
                "is d?",
                "*/ --&gt; # %"
            })
    void valuesAreTheSameAgain(String value) throws IOException {
        Path schema = folder.resolve("buoy.xsd");
        Files.writeString(schema, """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:buoy" xmlns="urn:buoy">
                  <xs:simpleType name="Mark"><xs:restriction base="xs:string">
                    <xs:enumeration value="%1$s"/><xs:enumeration value="bell"/>
                  </xs:restriction></xs:simpleType>
                  <xs:element name="buoy" type="Buoy"/>
                  <xs:complexType name="Buoy">
                    <xs:sequence><xs:element name="mark" type="Mark" default="%1$s"/></xs:sequence>
                    <xs:attribute name="by" type="xs:string" default="%1$s"/><xs:attribute name="of" type="xs:string" fixed="%1$s"/>
                  </xs:complexType>
                </xs:schema>
                """.formatted(value));
        Contract contract = read(schema);
        Findings findings = new Findings();
        String text = SketchText.of(ContractSketch.of(contract, findings));
        Contract again = drafted(SketchReader.read(new SourceText("sketch.yaml", text), findings), "again");
        assertThat(findings.sorted()).as(text).isEmpty();
        assertThat(Comparison.of(contract, again, surface(contract), surface(again))
                        .differences())
                .as(text)
                .isEmpty();
    }

    static List<Path> contracts() throws IOException {
        try (Stream<Path> files = Files.walk(Path.of("src/test/resources"))) {
            return files.filter(file -> file.toString().endsWith(".wsdl"))
                    .sorted()
                    .toList();
        }
    }

    /** Much cannot be said in a sketch; what is said is a contract all the same. */
    @ParameterizedTest
    @MethodSource("contracts")
    void anySketchIsOfASoundContract(Path file) throws IOException {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
        Findings findings = new Findings();
        Sketch sketch = contract.isSound() ? ContractSketch.of(contract, new Findings()) : null;
        if (sketch != null) {
            drafted(SketchReader.read(new SourceText("sketch.yaml", SketchText.of(sketch)), findings), "again");
            assertThat(findings.sorted()).isEmpty();
        }
    }
}
