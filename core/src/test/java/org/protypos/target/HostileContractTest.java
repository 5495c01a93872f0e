package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.generator.Generator;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;

/** Text of a contract is data: whatever it holds, it stays inside literals and comments. */
class HostileContractTest {
    private static final List<String> ATTACKS = List.of(
            "*/ System.exit(1); /*",
            "\" + System.exit(1) + \"",
            "\\u002a\\u002f System.exit(1);",
            "\\u000a System.exit(1); //",
            "*\\u002f\\u000aSystem.exit(1);",
            "\\\\u0022; System.exit(1); //",
            "*/*/**/ /* System.exit(1)",
            "a\u2028System.exit(1);\u2029\u0085b",
            "\u202e;)1(tixe.metsyS\u202c \u2066x\u2069 \u200b\ufeff",
            "</pre>{@link System} @deprecated $ %s {0}",
            "\ud83d\ude00\t tab");

    private static final Pattern COMMENT = Pattern.compile("/\\*.*?\\*/|//[^\n]*", Pattern.DOTALL);
    private static final Pattern LITERAL = Pattern.compile("\"(?:[^\"\\\\\n]++|\\\\.)*+\"");

    @Test
    void nothingOfItBecomesCode(@TempDir Path folder) throws Exception {
        Path contract = folder.resolve("hostile.wsdl");
        Files.writeString(contract, contract(), StandardCharsets.UTF_8);
        try (Generated generated = Generated.from(contract, folder.resolve("out"), null)) {
            for (SourceFile file : generated.files()) {
                if (file.path().contains("/runtime/")) {
                    continue;
                }
                String code = COMMENT.matcher(LITERAL.matcher(file.text()).replaceAll("\"\""))
                        .replaceAll("");
                assertThat(code).as(file.path()).doesNotContain("System.", "exit(", "\\", "*/", "deprecated");
                assertThat(file.text()
                                .chars()
                                .filter(HostileContractTest::isDeceptive)
                                .count())
                        .as(file.path())
                        .isZero();
                assertThat(file.path()).doesNotContain("..").matches("[\\p{L}\\p{N}_/]+\\.java");
            }
            Class<?> kind = generated.load(generated.plan().enums().get(0).packageName() + ".Kind");
            List<String> values = new ArrayList<>();
            for (Object constant : kind.getEnumConstants()) {
                values.add((String) kind.getMethod("value").invoke(constant));
            }
            assertThat(values).containsExactlyElementsOf(ATTACKS);
        }
    }

    /** C# ends lines at more characters than Java does (ECMA-334, section 6.3.2), and reads comments as XML. */
    @Test
    void nothingOfItBecomesCSharp(@TempDir Path folder) throws Exception {
        CSharp.assumed();
        Path contract = Files.writeString(folder.resolve("hostile.wsdl"), contract());
        CSharp.library(contract, null, folder);
        for (Path source : CSharp.sources(folder.resolve("sources"))) {
            String text = Files.readString(source);
            assertThat(text.chars().filter(HostileContractTest::isDeceptive))
                    .as("%s", source)
                    .isEmpty();
            String code = HostileTextTest.code(new SourceFile(source.toString(), text));
            assertThat(code).as("%s", source).doesNotContain("System.Exit", "exit(", "\\", "*/", "deprecated");
        }
    }

    /** In fixed form a line means what its seventh column says, and a literal ends with its line. */
    @Test
    void nothingOfItBecomesCobol(@TempDir Path folder) throws Exception {
        Path contract = Files.writeString(folder.resolve("hostile.wsdl"), contract());
        List<SourceFile> files = Generator.of(List.of(contract.toString()))
                .target(Targets.named("cobol"))
                .plan()
                .code()
                .emit(Set.of(Product.TYPES, Product.CLIENT), true, List::of);
        assertThat(files).anyMatch(file -> file.text().contains("exit("));
        for (SourceFile file : files) {
            assertThat(file.path()).matches("[A-Z0-9-]+\\.(cpy|cbl)");
            assertThat(file.text().chars().filter(HostileContractTest::isDeceptive))
                    .isEmpty();
            String code = HostileTextTest.code(file);
            assertThat(code).doesNotContainIgnoringCase("exit(").doesNotContain("\"", "'", "*>");
        }
    }

    private static boolean isDeceptive(int c) {
        int type = Character.getType(c);
        return c != '\n'
                && (type == Character.CONTROL
                        || type == Character.FORMAT
                        || type == Character.LINE_SEPARATOR
                        || type == Character.PARAGRAPH_SEPARATOR);
    }

    private static String xml(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace("\"", "&quot;")
                .replace("\t", "&#9;")
                .replace("\u0085", "&#133;")
                .replace("\u2028", "&#8232;");
    }

    private static String contract() {
        StringBuilder values = new StringBuilder();
        StringBuilder notes = new StringBuilder();
        for (String attack : ATTACKS) {
            values.append("<xs:enumeration value=\"")
                    .append(xml(attack))
                    .append("\"><xs:annotation><xs:documentation>")
                    .append(xml(attack))
                    .append("</xs:documentation></xs:annotation></xs:enumeration>");
            notes.append(xml(attack)).append('\n');
        }
        String attack = xml(ATTACKS.get(1) + ATTACKS.get(3));
        return """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:s="http://schemas.xmlsoap.org/wsdl/soap/"
                  xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:t="http://evil.org/e*/&#34;;System.exit(1);/*"
                  targetNamespace="http://evil.org/e*/&#34;;System.exit(1);/*">
                <types><xs:schema targetNamespace="http://evil.org/e*/&#34;;System.exit(1);/*">
                  <xs:simpleType name="Kind"><xs:restriction base="xs:string">VALUES</xs:restriction></xs:simpleType>
                  <xs:element name="ask"><xs:complexType><xs:annotation><xs:documentation>NOTES</xs:documentation></xs:annotation>
                    <xs:sequence><xs:element name="what" type="t:Kind"><xs:annotation><xs:documentation>NOTES</xs:documentation></xs:annotation></xs:element>
                    <xs:element name="etc.passwd" type="xs:int"/></xs:sequence>
                    <xs:attribute name="a" default="ATTACK"/></xs:complexType></xs:element>
                </xs:schema></types>
                <message name="ask"><documentation>NOTES</documentation><part name="ATTACK" element="t:ask"/></message>
                <portType name="Desk"><documentation>NOTES</documentation>
                  <operation name="ask"><documentation>NOTES</documentation><input message="t:ask"/><output message="t:ask"/>
                    <fault name="f" message="t:ask"/></operation></portType>
                <binding name="b" type="t:Desk"><s:binding transport="http://schemas.xmlsoap.org/soap/http"/>
                  <operation name="ask"><s:operation soapAction="ATTACK"/><input><s:body use="literal"/></input>
                  <output><s:body use="literal"/></output></operation></binding>
                <service name="Office"><documentation>NOTES</documentation><port name="p" binding="t:b"><documentation>NOTES</documentation>
                  <s:address location="ATTACK"/></port></service>
                </definitions>
                """.replace("VALUES", values).replace("NOTES", notes).replace("ATTACK", attack);
    }
}
