package org.protypos.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Severity;
import org.protypos.source.DocumentGatherer;

/** What will be awkward in code is noted, and what is usual is not. */
class AwkwardTest {
    @Test
    void whatIsAwkwardIsNoted(@TempDir Path folder) throws IOException {
        Path schema = folder.resolve("log.xsd");
        Files.writeString(schema, """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="log">
                    <xs:complexType>
                      <xs:sequence>
                        <xs:element name="page">
                          <xs:complexType mixed="true"><xs:sequence><xs:element name="b" type="xs:string"/></xs:sequence></xs:complexType>
                        </xs:element>
                        <xs:choice maxOccurs="unbounded">
                          <xs:element name="wind" type="xs:int"/>
                          <xs:element name="sea" type="xs:anyType"/>
                        </xs:choice>
                        <xs:element name="note" type="Kind" maxOccurs="unbounded"/>
                      </xs:sequence>
                    </xs:complexType>
                  </xs:element>
                  <xs:simpleType name="Kind">
                    <xs:restriction base="xs:token"><xs:enumeration value="2nd"/><xs:enumeration value="first"/></xs:restriction>
                  </xs:simpleType>
                </xs:schema>
                """);
        assertThat(Awkward.of(ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null)), "Java"))
                .allMatch(finding -> finding.severity() == Severity.NOTE)
                .extracting(finding -> finding.place().line() + " " + finding.code())
                .containsExactly(
                        "6 awkward-anonymous",
                        "6 awkward-mixed",
                        "8 awkward-repetition",
                        "10 awkward-anything",
                        "17 awkward-value");
    }
}
