package org.protypos.infer.loosen;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.authoring.SchemaText;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.infer.Decisions;
import org.protypos.infer.Inference;
import org.protypos.source.Document;
import org.protypos.testing.ExpectedText;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;
import org.protypos.testing.Sections;

/** Schemas are loosened where documents ask for it, and nowhere else. */
class LooseningTest {
    @TempDir
    private Path folder;

    private record Text(String name, String text) implements Loosening.Source {
        @Override
        public byte[] bytes() {
            return text.getBytes(StandardCharsets.UTF_8);
        }
    }

    private static final String SCHEMA = """
            <?xml version="1.0" encoding="UTF-8"?>
            <!-- The register of the harbour. -->
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="urn:bay" targetNamespace="urn:bay" elementFormDefault="qualified">
              <xs:element name="register" type="Register"/>
              <xs:complexType name="Register">
                <xs:sequence>
                  <xs:element name="berth" type="Berth" minOccurs="1"/> <!-- one at least -->
                  <xs:element name="keeper" type="Named"/>
                  <xs:element name="pilot" type="Pilot" minOccurs="0"/>
                </xs:sequence>
                <xs:attribute name="year" type="xs:int" use="required"/>
              </xs:complexType>
              <xs:complexType name="Berth">
                <xs:sequence>
                  <xs:element name="number" type="xs:int"/>
                  <xs:element name="side" type="Side"/>
                  <xs:element name="depth" type="xs:decimal" minOccurs="0"/>
                </xs:sequence>
              </xs:complexType>
              <xs:simpleType name="Side">
                <xs:restriction base="xs:token">
                  <xs:enumeration value="port"/>
                  <xs:enumeration value="starboard"/>
                </xs:restriction>
              </xs:simpleType>
              <xs:complexType name="Named">
                <xs:sequence><xs:element name="name"><xs:simpleType><xs:restriction base="xs:string"><xs:maxLength value="4"/></xs:restriction></xs:simpleType></xs:element></xs:sequence>
              </xs:complexType>
              <xs:complexType name="Pilot">
                <xs:complexContent><xs:extension base="Named"><xs:sequence><xs:element name="licence" type="xs:int"/></xs:sequence></xs:extension></xs:complexContent>
              </xs:complexType>
            </xs:schema>
            """;

    private String loosened(String schema, Findings findings, String... documents) throws Exception {
        Path file = folder.resolve("register.xsd");
        Files.writeString(file, schema);
        List<Text> texts = new ArrayList<>();
        for (String document : documents) {
            texts.add(new Text("document" + texts.size(), document));
        }
        new Loosening(findings).loosen(List.of(file), texts);
        if (!findings.hasErrors()) {
            for (String document : documents) {
                assertThat(Infoset.validator(file).complaint(document)).isNull();
            }
        }
        return Files.readString(file);
    }

    @Test
    void whatDocumentsAskForIsSaidOtherwise() throws Exception {
        Findings findings = new Findings();
        String loosened = loosened(
                SCHEMA,
                findings,
                """
                <register xmlns="urn:bay" year="MMXXVI" note="x">
                  <berth><number>1.5</number><side>aft</side><rings><ring at="2">a</ring><ring at="3"/></rings></berth>
                  <berth><depth>4</depth><number>12</number><side>port</side></berth>
                  <keeper><name>Harriet</name></keeper>
                  <pilot xmlns:i="http://www.w3.org/2001/XMLSchema-instance" i:nil="true"/>
                </register>""",
                "<register xmlns=\"urn:bay\"><keeper><name>Ann</name></keeper><pilot><name>Ben</name></pilot></register>");
        assertThat(findings.sorted()).isEmpty();
        assertThat(loosened)
                .isEqualTo(SCHEMA.replace(
                                "type=\"Berth\" minOccurs=\"1\"/>",
                                "type=\"Berth\" minOccurs=\"0\" maxOccurs=\"unbounded\"/>")
                        .replace(
                                "type=\"Pilot\" minOccurs=\"0\"/>",
                                "type=\"Pilot\" minOccurs=\"0\" nillable=\"true\"/>")
                        .replace(
                                "type=\"xs:int\" use=\"required\"/>\n",
                                "type=\"xs:string\" use=\"optional\"/>\n    <xs:attribute name=\"note\" type=\"xs:token\"/>\n")
                        .replace("""
                            <xs:sequence>
                              <xs:element name="number" type="xs:int"/>
                              <xs:element name="side" type="Side"/>
                              <xs:element name="depth" type="xs:decimal" minOccurs="0"/>
                            </xs:sequence>
                        """, """
                            <xs:choice minOccurs="0" maxOccurs="unbounded">
                              <xs:element name="number" type="xs:decimal" minOccurs="0"/>
                              <xs:element name="side" type="Side"/>
                              <xs:element name="rings" minOccurs="0">
                                <xs:complexType>
                                  <xs:sequence>
                                    <xs:element name="ring" maxOccurs="unbounded">
                                      <xs:complexType>
                                        <xs:simpleContent>
                                          <xs:extension base="xs:token">
                                            <xs:attribute name="at" type="xs:int" use="required"/>
                                          </xs:extension>
                                        </xs:simpleContent>
                                      </xs:complexType>
                                    </xs:element>
                                  </xs:sequence>
                                </xs:complexType>
                              </xs:element>
                              <xs:element name="depth" type="xs:decimal" minOccurs="0"/>
                            </xs:choice>
                        """.indent(0))
                        .replace(
                                "<xs:enumeration value=\"port\"/>",
                                "<xs:enumeration value=\"port\"/>\n      <xs:enumeration value=\"aft\"/>")
                        .replace("<xs:maxLength value=\"4\"/>", "<xs:maxLength value=\"7\"/>")
                        .replace(
                                "<xs:element name=\"licence\" type=\"xs:int\"/>",
                                "<xs:element name=\"licence\" type=\"xs:int\" minOccurs=\"0\"/>"));
    }

    @Test
    void whatFitsChangesNothingAndWhatCannotBeIsTold() throws Exception {
        Findings findings = new Findings();
        String fits = "<register xmlns=\"urn:bay\" year=\"1\"><berth><number>1</number><side>port</side></berth>"
                + "<keeper><name>Ann</name></keeper></register>";
        assertThat(loosened(SCHEMA, findings, fits)).isEqualTo(SCHEMA);
        assertThat(findings.sorted()).isEmpty();
        assertThat(loosened(SCHEMA, findings, fits, "<ledger xmlns=\"urn:bay\"><page>1</page></ledger>"))
                .contains("<xs:element name=\"ledger\">")
                .startsWith(SCHEMA.substring(0, SCHEMA.length() - "</xs:schema>\n".length()));
        loosened(SCHEMA, findings, "<ledger/>", "<broken>");
        assertThat(findings.sorted()).extracting(Finding::code).contains("malformed-xml");
        Findings other = new Findings();
        loosened(SCHEMA, other, fits.replace("<number>1", "<number><one/>"));
        assertThat(other.sorted()).extracting(Finding::code).containsOnly("not-loosened");
    }

    static Stream<Path> cases() throws IOException {
        return Files.list(Path.of("src/test/resources/infer/onto")).sorted();
    }

    /** Schemas, documents and what becomes of the schemas, side by side. */
    @ParameterizedTest
    @MethodSource("cases")
    void schemasBecomeAsExpected(Path file) throws Exception {
        Sections sections = Sections.of(file);
        List<Path> schemas = new ArrayList<>();
        List<Text> documents = new ArrayList<>();
        for (Map.Entry<String, String> section : sections.all().entrySet()) {
            if (section.getKey().endsWith(".xsd") && !section.getKey().startsWith("expect ")) {
                schemas.add(Files.writeString(folder.resolve(section.getKey()), section.getValue()));
            } else if (section.getKey().endsWith(".xml")) {
                documents.add(new Text(section.getKey(), section.getValue()));
            }
        }
        Findings findings = new Findings();
        Contract loosened = new Loosening(findings).loosen(schemas.subList(0, 1), documents);
        StringBuilder result = new StringBuilder();
        for (Document document : loosened.documents().all()) {
            Path written = Path.of(document.location());
            String text = Files.readString(written);
            if (!text.equals(sections.get(written.getFileName().toString()))) {
                result.append("==== expect ")
                        .append(written.getFileName())
                        .append('\n')
                        .append(text)
                        .append('\n');
            }
        }
        findings.sorted().forEach(finding -> result.append("==== finding\n")
                .append(finding.message())
                .append('\n'));
        ExpectedText.check(file, result.toString(), "==== expect", "==== finding");
        Infoset.Validator validator = Infoset.validator(schemas.get(0));
        for (Text document : findings.hasErrors() ? List.<Text>of() : documents) {
            assertThat(validator.complaint(document.text())).as(document.name()).isNull();
        }
    }

    /** A schema that was inferred from a few messages comes to take many, or it is told why not. */
    @ParameterizedTest
    @ValueSource(longs = {31, 32, 33})
    void schemasComeToTakeAll(long seed) throws Exception {
        RandomContract random = new RandomContract(seed, 10);
        List<String> messages = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            messages.add(random.message());
        }
        Findings findings = new Findings();
        Inference inference = new Inference(Decisions.none(findings), findings);
        messages.subList(0, 20)
                .forEach(message ->
                        inference.read("message", new ByteArrayInputStream(message.getBytes(StandardCharsets.UTF_8))));
        List<Path> files = new ArrayList<>();
        for (var text : SchemaText.of(inference.inferred().schemas()).entrySet()) {
            files.add(folder.resolve(text.getKey()));
            Files.writeString(folder.resolve(text.getKey()), text.getValue());
        }
        List<Text> texts =
                messages.stream().map(message -> new Text("message", message)).toList();
        new Loosening(findings).loosen(files, texts);
        if (findings.hasErrors()) {
            assertThat(findings.sorted()).extracting(Finding::code).containsOnly("not-loosened");
        } else {
            Infoset.Validator validator = Infoset.validator(files.toArray(Path[]::new));
            for (String message : messages) {
                assertThat(validator.complaint(message)).as(message).isNull();
            }
        }
    }
}
