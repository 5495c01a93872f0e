package org.protypos.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Document;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Plans;

/** What is added stands in the contract's own text, of which every other byte stays, and breaks nobody. */
class ContractAdditionTest {
    private static final String NAMESPACE = "http://lanternbay.example/harbour/desk";

    @TempDir
    private Path folder;

    private Path copy(String contract, Charset charset, String lineEnd) throws IOException {
        Path from = Path.of(contract);
        try (Stream<Path> files = Files.list(from.getParent())) {
            for (Path file : files.filter(one -> one.toString().matches(".*\\.(wsdl|xsd)"))
                    .toList()) {
                String text = Files.readString(file)
                        .replace("encoding=\"UTF-8\"", "encoding=\"" + charset.name() + "\"")
                        .replace("\n", lineEnd);
                Files.write(folder.resolve(file.getFileName()), text.getBytes(charset));
            }
        }
        return folder.resolve(from.getFileName());
    }

    private static Contract read(Path file) {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
        assertThat(contract.isSound()).as("%s", contract.findings()).isTrue();
        return contract;
    }

    private static void write(Map<Document, byte[]> changed, Charset charset) throws IOException {
        for (Map.Entry<Document, byte[]> one : changed.entrySet()) {
            List<String> before =
                    new String(one.getKey().bytes(), charset).lines().toList();
            List<String> after = new String(one.getValue(), charset).lines().toList();
            int at = 0;
            for (String line : after) {
                at += at < before.size() && before.get(at).equals(line) ? 1 : 0;
            }
            assertThat(at).as("lines that are still there, in their order").isEqualTo(before.size());
            Files.write(Path.of(one.getKey().location()), one.getValue());
        }
    }

    private static List<String> breaking(Contract before, Contract after) {
        return Comparison.of(
                        before,
                        after,
                        Plans.code(before).surface(),
                        Plans.code(after).surface())
                .differences()
                .stream()
                .filter(Difference::isBreaking)
                .filter(difference -> difference.breaks().stream().anyMatch(reader -> reader.isOnTheWire()))
                .map(Difference::toString)
                .toList();
    }

    @ParameterizedTest
    @CsvSource({
        "../examples/harbour/contract/desk.wsdl, UTF-8, lf",
        "../examples/harbour/contract/desk.wsdl, ISO-8859-1, crlf",
        "../examples/harbour/contract/desk.wsdl, UTF-16LE, lf",
        "../examples/customs/customs.wsdl, UTF-8, lf",
    })
    void operationsAreAdded(String contract, String charset, String lineEnd) throws IOException {
        Path file = copy(contract, Charset.forName(charset), lineEnd.equals("lf") ? "\n" : "\r\n");
        Contract before = read(file);
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(before, findings);
        addition.operation("readTide(gauge: string, at: dateTime?, marks: int[0..9]) -> height: decimal(0..)", null);
        addition.operation("soundAlarm(reason: token /[a-z, ]+/)", null);
        addition.operation("ping() ->", null);
        Map<Document, byte[]> changed = addition.changed();
        assertThat(findings.sorted()).isEmpty();
        write(changed, Charset.forName(charset));
        Contract after = read(file);
        assertThat(after.wsdl().portTypes().values().iterator().next().operations())
                .hasSize(before.wsdl()
                                .portTypes()
                                .values()
                                .iterator()
                                .next()
                                .operations()
                                .size()
                        + 3);
        assertThat(breaking(before, after)).isEmpty();
    }

    @Test
    void operationsOfStyleRpcHaveParts() throws IOException {
        Path file = copy("../examples/tide/tide.wsdl", StandardCharsets.UTF_8, "\n");
        Contract before = read(file);
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(before, findings);
        addition.operation("predict(station: string, days: int) -> reading: Reading", "TideGauge");
        write(addition.changed(), StandardCharsets.UTF_8);
        assertThat(findings.sorted()).isEmpty();
        assertThat(breaking(before, read(file))).isEmpty();
    }

    @Test
    void blanksAroundNamesMeanNothing() throws IOException {
        Path file = copy("../examples/harbour/contract/desk.wsdl", StandardCharsets.UTF_8, "\n");
        Files.writeString(
                file,
                Files.readString(file)
                        .replaceFirst("targetNamespace=\"([^\"]*)\"", "targetNamespace=\" $1 \"")
                        .replaceFirst("portType name=\"([^\"]*)\"", "portType name=\" $1 \""));
        Contract before = read(file);
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(before, findings);
        addition.operation("drain(gate: int) -> level: decimal", null);
        assertThat(findings.sorted()).isEmpty();
        write(addition.changed(), StandardCharsets.UTF_8);
        assertThat(breaking(before, read(file))).isEmpty();
    }

    /** Messages of faults and headers that the contract has are taken again; others are added once. */
    @Test
    void operationsHaveFaultsAndHeaders() throws IOException {
        Path file = copy("../examples/harbour/contract/desk.wsdl", StandardCharsets.UTF_8, "\n");
        Contract before = read(file);
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(before, findings);
        addition.operation(
                "haul(berth: int) -> free: boolean; faults noBerthFree, castOff; headers pass; answerHeaders payDues",
                null);
        addition.operation("tow(berth: int) ->; headers payDues , pass;faults castOff", null);
        assertThat(findings.sorted()).isEmpty();
        write(addition.changed(), StandardCharsets.UTF_8);
        Contract after = read(file);
        assertThat(breaking(before, after)).isEmpty();
        assertThat(after.wsdl().messages().keySet())
                .extracting(QName::getLocalPart)
                .filteredOn(name -> !before.wsdl().messages().containsKey(new QName(NAMESPACE, name)))
                .containsExactlyInAnyOrder(
                        "haulInput", "haulOutput", "CastOff", "PayDuesHeader", "towInput", "towOutput");
        assertThat(Files.readString(file)).contains("""
                    <wsdl:operation name="haul">
                      <wsdl:input message="d:haulInput"/>
                      <wsdl:output message="d:haulOutput"/>
                      <wsdl:fault name="NoBerthFree" message="d:NoBerthFree"/>
                      <wsdl:fault name="CastOff" message="d:CastOff"/>
                    </wsdl:operation>
                """, """
                      <soap:operation soapAction="http://lanternbay.example/harbour/desk/haul"/>
                      <wsdl:input>
                        <soap:body use="literal"/>
                        <soap:header message="d:HarbourPass" part="pass" use="literal"/>
                      </wsdl:input>
                """);
    }

    @Test
    void portTypesWithoutBindingsGetThem() throws IOException {
        Files.writeString(folder.resolve("bare.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:b="urn:lantern-bay:bare" targetNamespace="urn:lantern-bay:bare">
                \t<!-- nothing but this -->
                \t<portType name="Bare"/>
                </definitions>
                """);
        Path file = folder.resolve("bare.wsdl");
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(read(file), findings);
        addition.bind(Sketch.SketchProtocol.SOAP12, Sketch.Style.DOCUMENT, "http://localhost/bare", null);
        assertThat(findings.sorted()).isEmpty();
        write(addition.changed(), StandardCharsets.UTF_8);
        assertThat(file).content().isEqualTo("""
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:b="urn:lantern-bay:bare" targetNamespace="urn:lantern-bay:bare">
                \t<!-- nothing but this -->
                \t<portType name="Bare"/>

                \t<binding xmlns:soap12="http://schemas.xmlsoap.org/wsdl/soap12/" name="BareSoap12" type="b:Bare">
                \t\t<soap12:binding style="document" transport="http://schemas.xmlsoap.org/soap/http"/>
                \t</binding>

                \t<service xmlns:soap12="http://schemas.xmlsoap.org/wsdl/soap12/" name="BareService">
                \t\t<port name="BarePort" binding="b:BareSoap12">
                \t\t\t<soap12:address location="http://localhost/bare"/>
                \t\t</port>
                \t</service>
                </definitions>
                """);
        assertThat(read(file).wsdl().services()).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "../examples/harbour/contract/desk.wsdl | castOff(a: int)      |           | there is an operation castOff already",
                "../examples/harbour/contract/desk.wsdl | pass(a: int)         |           | there is an element pass already",
                "../examples/harbour/contract/desk.wsdl | find(a: Vesel)       |           | there is no type Vesel",
                "../examples/harbour/contract/desk.wsdl | find a int           |           | says no operation",
                "../examples/harbour/contract/desk.wsdl | find(a: int[)        |           | says no name and type",
                "../examples/harbour/contract/desk.wsdl | find(); faults pass  |           | find gives no answer",
                "../examples/harbour/contract/desk.wsdl | find()->; faults pas |           | there is no element pas",
                "../examples/harbour/contract/desk.wsdl | find()->; fault pass |           | says no name and type",
                "../examples/tide/tide.wsdl             | find(a: int)         |           | there are several port types",
                "../examples/tide/tide.wsdl             | find(a: int?)        | TideGauge | a part is of a type that has a name",
                "../examples/tide/tide.wsdl             | find(a: int)         | Tide      | there is no port type Tide",
                "src/test/resources/encoded/dues.wsdl   | find(a: int)         |           | encodes its messages",
                "../examples/tables/tables.wsdl         | find(a: int)         | TablesGet | is none of SOAP"
            })
    void whatCannotBeIsRefused(String contract, String signature, String on, String reason) {
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(read(Path.of(contract)), findings);
        addition.operation(signature, on);
        assertThat(addition.changed()).isEmpty();
        assertThat(findings.sorted()).hasSize(1);
        assertThat(findings.sorted().get(0).message()).contains(reason);
    }

    @Test
    void stylesThatDoNotGoTogetherAreRefused() throws IOException {
        Path file = copy("../examples/tide/tide.wsdl", StandardCharsets.UTF_8, "\n");
        String text = Files.readString(file);
        Files.writeString(file, text.substring(0, text.indexOf("  <binding")) + "</definitions>\n");
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(read(file), findings);
        addition.bind(Sketch.SketchProtocol.SOAP11, Sketch.Style.DOCUMENT, "http://localhost/tide", "Tide");
        assertThat(addition.changed()).isEmpty();
        assertThat(findings.sorted())
                .extracting(finding -> finding.message())
                .anyMatch(message -> message.contains("readTide does not go with style document"))
                .anyMatch(message -> message.contains("there is one name for a port"));
    }
}
