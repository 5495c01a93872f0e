package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.tree.MessageReader;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;

/**
 * Messages that bring the schema of their data along. Contracts refer to {@code xs:schema} for that, most of them without any document that
 * declares it, so that the platform's validator cannot be asked.
 */
class SchemaInMessageTest {
    private static final String CONTRACT = """
            <s:schema xmlns:s="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:log" elementFormDefault="qualified">
              %s
              <s:element name="tides"><s:complexType><s:sequence>
                <s:element name="table" minOccurs="0"><s:complexType><s:sequence><s:element ref="s:schema"/><s:any processContents="lax"/></s:sequence></s:complexType></s:element>
              </s:sequence></s:complexType></s:element>
            </s:schema>
            """;

    private static final String MESSAGE = """
            <tides xmlns="urn:log"><table><xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" id="tides"><xs:element name="tide" type="xs:int"/></xs:schema><d:data xmlns:d="urn:data"><tide xmlns="">4</tide></d:data></table></tides>
            """;

    @ParameterizedTest
    @ValueSource(strings = {"", "<s:import namespace='http://www.w3.org/2001/XMLSchema'/>"})
    void schemaComesThrough(String imported, @TempDir Path folder) throws Exception {
        Path contract = Files.writeString(folder.resolve("log.xsd"), CONTRACT.formatted(imported));
        try (Generated generated = Generated.from(List.of(contract), folder.resolve("out"), (String) null)) {
            assertThat(generated.contract().findings()).isEmpty();
            assertThat(Infoset.of(generated.roundTrip(MESSAGE))).isEqualTo(Infoset.of(MESSAGE));
            ContractCheck check = new ContractCheck(generated.contract());
            Findings findings = new Findings();
            assertThat(check.check(MessageReader.read("message", MESSAGE.getBytes(), findings))
                            .deviations())
                    .isEmpty();
        }
    }
}
