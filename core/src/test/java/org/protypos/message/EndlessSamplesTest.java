package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Infoset;

/** Contracts that ask for more than anybody can make up: samples come to an end all the same, and say what they left out. */
@Isolated("has to end in time")
class EndlessSamplesTest {
    private static final String SEQUENCE = "<xs:complexType><xs:sequence>%s</xs:sequence></xs:complexType>";
    private static final String SIMPLE = "<xs:simpleType>%s</xs:simpleType>";

    /** A type that has to hold another of itself, which may be nil, and one that has to hold it by way of another. */
    private static final String KNOT =
            "<xs:complexType name='Knot'><xs:sequence><xs:element name='next' type='Knot' nillable='true'/>"
                    + "<xs:element ref='k' minOccurs='0'/></xs:sequence></xs:complexType><xs:element name='k' nillable='true'>"
                    + "<xs:complexType><xs:sequence><xs:element name='in' type='Knot'/></xs:sequence></xs:complexType></xs:element>";

    @TempDir
    private Path folder;

    @ParameterizedTest
    @Timeout(20)
    @CsvSource(
            delimiter = '|',
            value = {
                "elements | cut | <xs:element name='x' type='xs:string' minOccurs='2000000000' maxOccurs='unbounded'/>",
                "elements | cut | <xs:sequence minOccurs='90000' maxOccurs='unbounded'><xs:element name='x' type='xs:int'/>"
                        + "<xs:element name='y' type='xs:int'/></xs:sequence>",
                "elements | whole | <xs:sequence minOccurs='1000000' maxOccurs='unbounded'><xs:sequence minOccurs='1000000'"
                        + " maxOccurs='unbounded'><xs:element name='x' type='xs:int' minOccurs='0'/></xs:sequence></xs:sequence>",
                "elements | whole | <xs:choice minOccurs='2000000000' maxOccurs='unbounded'>"
                        + "<xs:element name='x' type='xs:int' minOccurs='0'/><xs:sequence/></xs:choice>",
                "elements | whole | <xs:element name='x' nillable='true' type='Knot'/>",
                "elements | whole | <xs:element name='x' minOccurs='0' maxOccurs='unbounded' type='Knot'/><xs:element ref='k'/>",
                "hexBinary | cut | <xs:minLength value='2000000000'/>",
                "base64Binary | cut | <xs:minLength value='2000000000'/>",
                "string | cut | <xs:minLength value='2000000000'/>",
                "NMTOKENS | cut | <xs:minLength value='2000000000'/>",
                "string | whole | <xs:pattern value='a{2000000}'/>",
                "string | whole | <xs:pattern value='(((((){99999}){99999}){99999}){99999}){99999}a'/>",
                "string | whole | <xs:pattern value='(((((b?){99999}){99999}){99999}){99999}){99999}a'/>",
                "string | whole | <xs:pattern value='(a*)*([a]*a){25}b'/>",
                "decimal | whole | <xs:minInclusive value='1e999999999'/>",
                "decimal | whole | <xs:totalDigits value='2000000000'/><xs:fractionDigits value='2000000000'/>",
                "date | whole | <xs:minInclusive value='999999999-01-01'/>",
                "string | whole | <xs:totalDigits value='3'/>",
            })
    void samplesComeToAnEnd(String base, String left, String inside) throws Exception {
        String type = base.equals("elements")
                ? SEQUENCE.formatted(inside)
                : SIMPLE.formatted("<xs:restriction base='xs:" + base + "'>" + inside + "</xs:restriction>");
        Path file = Files.writeString(
                folder.resolve("endless.xsd"),
                "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'><xs:element name='e'>" + type + "</xs:element>"
                        + KNOT + "</xs:schema>");
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
        ContractCheck check = new ContractCheck(contract);
        for (boolean full : new boolean[] {false, true}) {
            Samples samples = new Samples(contract, check.vocabulary(), full);
            String text = samples.element(samples.elements().get(0));
            assertThat(text.length()).isLessThan(2_000_000);
            assertThat(samples.isCut()).isEqualTo(left.equals("cut"));
            if (inside.contains("Knot")) {
                assertThat(Infoset.complaint(file, text)).as(text).isNull();
            }
            MessageElement root = MessageReader.read("sample", text);
            assertThat(JsonMessageWriter.value(
                            check.vocabulary(), check.check(root).types(), root))
                    .isNotNull();
        }
    }
}
