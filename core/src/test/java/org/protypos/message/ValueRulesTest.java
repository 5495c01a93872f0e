package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.InfosetComparison;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Infoset;

/** Values of simple types are judged as the platform's validator judges them, facet by facet. */
class ValueRulesTest {
    /** A simple type with texts that may or may not be of it; the validator knows which. */
    record Type(String definition, List<String> texts) {
        @Override
        public String toString() {
            return definition;
        }
    }

    private static Type type(String base, String facets, String... texts) {
        return new Type("<xs:restriction base=\"xs:" + base + "\">" + facets + "</xs:restriction>", List.of(texts));
    }

    private static String facet(String name, String value) {
        return "<xs:" + name + " value=\"" + value + "\"/>";
    }

    static Stream<Type> types() {
        return Stream.of(
                type("string", facet("pattern", "[a-z-[aeiou]]+"), "xyz", "a", "", "xaz"),
                type("string", facet("pattern", "[^a-c&amp;]x|\\^\\$"), "dx", "ax", "&x", "^$", "^x"),
                type(
                        "string",
                        facet("pattern", "\\d{2,3}-\\w+\\.?"),
                        "12-x",
                        "1-x",
                        "123-y.",
                        "12-.",
                        "\u0663\u0664-x"),
                type("string", facet("pattern", "\\p{Lu}\\P{Lu}*"), "Ab", "AB", "\u00c9a", "a"),
                type("string", facet("pattern", "\\p{IsBasicLatin}*"), "abc", "\u00e9"),
                type("string", facet("pattern", "[\\-+]?[\\d.,]+"), "-1,2.3", "+", "1", "--1"),
                type("string", facet("pattern", "(a|b){2}(c(d|)){1,2}"), "abc", "abcdc", "abcd", "abccc"),
                type("string", facet("pattern", "[\\i-[:]][\\c-[:]]*"), "name", "n1", "1n", "a:b", "_x-y.z"),
                type("string", facet("pattern", "a.c"), "abc", "a\nc", "a c"),
                type("string", facet("pattern", "\\s\\S"), " x", "x ", "\tx"),
                type("string", facet("pattern", "[a-z]{0}|x{2,}"), "", "x", "xx", "xxxx"),
                type("token", facet("length", "3"), "abc", " abc ", "ab", "a  b"),
                type("string", facet("minLength", "2") + facet("maxLength", "3"), "a", "ab", "abc", "abcd"),
                type("hexBinary", facet("maxLength", "2"), "0a0b", "0a", "0", "0a0b0c", ""),
                type("base64Binary", facet("minLength", "2"), "AAA=", "AA==", "AAAA", "A A A ="),
                type("NMTOKENS", facet("maxLength", "2"), "a b", "a", "a b c", ""),
                type(
                        "decimal",
                        facet("totalDigits", "3") + facet("fractionDigits", "1"),
                        "12.30",
                        "1.25",
                        "123",
                        "1234",
                        "0.1",
                        "000123"),
                type(
                        "decimal",
                        facet("minExclusive", "-1.5") + facet("maxInclusive", "2"),
                        "-1.5",
                        "-1.49",
                        "2.00",
                        "2.01"),
                type("int", facet("enumeration", "7") + facet("enumeration", "010"), "7", "+7", "10", "8"),
                type("float", facet("maxExclusive", "1e2"), "99.9", "100", "-INF", "INF", "NaN"),
                type("double", facet("minInclusive", "-0.5"), "-0.5", "-5e-1", "-0.51", "INF"),
                type(
                        "dateTime",
                        facet("maxInclusive", "2027-05-09T12:00:00Z"),
                        "2027-05-09T12:00:00Z",
                        "2027-05-09T14:00:00+02:00",
                        "2027-05-09T13:00:00+02:00",
                        "2027-05-09T12:00:01Z",
                        "2027-05-08T00:00:00",
                        "2027-05-09T10:00:00",
                        "-0044-03-15T00:00:00"),
                type(
                        "dateTime",
                        facet("minInclusive", "2027-05-09T24:00:00"),
                        "2027-05-10T00:00:00",
                        "2027-05-09T23:59:59",
                        "12027-01-01T00:00:00"),
                type(
                        "date",
                        facet("minExclusive", "2027-02-28"),
                        "2027-03-01",
                        "2027-02-28",
                        "2028-02-29",
                        "2027-02-29"),
                type("time", facet("maxExclusive", "12:00:00"), "11:59:59.999", "12:00:00", "24:00:00", "00:00:00"),
                type("gYear", facet("minInclusive", "2027"), "2027", "2026", "12027", "-2027"),
                type("gYearMonth", facet("maxInclusive", "2027-05"), "2027-05", "2027-06", "2026-12"),
                type("gMonthDay", facet("minInclusive", "--02-29"), "--02-29", "--02-28", "--03-01", "--02-30"),
                type("gDay", facet("maxExclusive", "---15"), "---14", "---15", "---32"),
                type("gMonth", facet("minInclusive", "--05"), "--05", "--04", "--13"),
                type("duration", facet("maxInclusive", "P1M"), "P28D", "P1M", "P30D", "P32D", "-P1Y", "PT0.5S", "P"),
                type("duration", facet("minExclusive", "PT36H"), "P1DT12H", "P1DT12H0.1S", "P2D", "P1M"),
                type("duration", facet("enumeration", "P1Y"), "P12M", "P1Y0M", "P365D"),
                type("boolean", facet("pattern", "true|false"), "true", "1", "false"),
                type("language", "", "en", "en-GB", "x-harbour", "e1", "englishes-x", ""),
                type("Name", "", "a:b", "a", "1a", ":a", "-a"),
                type("unsignedLong", "", "18446744073709551615", "18446744073709551616", "-0", "-1"),
                type("negativeInteger", "", "-1", "0", "-0"),
                type("anyURI", facet("maxLength", "5"), "a b", "abcde", "abcdef"),
                new Type("<xs:list itemType=\"xs:int\"/>", List.of("1 2", "", " 1 ", "1 x")),
                new Type("<xs:union memberTypes=\"xs:int xs:boolean\"/>", List.of("1", "true", " 2 ", "x", "")));
    }

    private static Vocabulary vocabulary(Path schema) {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        assertThat(contract.findings()).isEmpty();
        return new Vocabulary(contract.schema());
    }

    private static MessageElement read(String message) {
        return MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings());
    }

    @ParameterizedTest
    @MethodSource("types")
    void verdictsAreThoseOfTheValidator(Type type, @TempDir Path folder) throws Exception {
        Path schema = Files.writeString(
                folder.resolve("value.xsd"),
                "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\"><xs:element name=\"value\"><xs:simpleType>"
                        + type.definition() + "</xs:simpleType></xs:element></xs:schema>");
        Infoset.Validator oracle = Infoset.validator(schema);
        Vocabulary vocabulary = vocabulary(schema);
        MessageChecker checker = new MessageChecker(vocabulary);
        int valid = 0;
        for (String text : type.texts()) {
            String message = "<value>" + text.replace("&", "&amp;") + "</value>";
            List<Deviation> deviations = checker.check(read(message)).deviations();
            assertThat(deviations.isEmpty())
                    .as("\"%s\": %s", text, deviations)
                    .isEqualTo(oracle.complaint(message) == null);
            valid += deviations.isEmpty() ? 1 : 0;
        }
        assertThat(valid).isBetween(1, type.texts().size() - 1);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(schema.toString()), null));
        String sample = new Samples(contract, vocabulary, false)
                .element(contract.schema().elements().keySet().iterator().next());
        assertThat(oracle.complaint(sample)).as(sample).isNull();
    }

    @Test
    void whateverChangesInAMessageIsSeen(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="urn:log" targetNamespace="urn:log" elementFormDefault="qualified">
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="entry" type="xs:token" maxOccurs="9"/><xs:element name="kind" type="xs:QName"/>
                    <xs:element name="text"><xs:complexType mixed="true"><xs:sequence><xs:element name="b" type="xs:string" minOccurs="0"/></xs:sequence></xs:complexType></xs:element>
                  </xs:sequence><xs:attribute name="by" type="xs:string"/></xs:complexType></xs:element>
                </xs:schema>
                """);
        Vocabulary vocabulary = vocabulary(schema);
        String log =
                "<log xmlns=\"urn:log\" by=\"a\" xmlns:p=\"urn:p\"><entry>x y</entry><entry>z</entry><kind>p:k</kind><text>so <b>it</b> is</text></log>";
        List<String> alike = List.of(
                log,
                log.replace("xmlns:p", "xmlns:q").replace("p:k", "q:k"),
                log.replace("<entry>x y</entry>", "\n <entry> x\n  y </entry> "),
                log.replace("<log xmlns", "<l:log xmlns:l")
                        .replace("</log>", "</l:log>")
                        .replaceAll("<(/?)(entry|kind|text|b)>", "<$1l:$2>"));
        List<String> changed = List.of(
                log.replace(" by=\"a\"", ""),
                log.replace("by=\"a\"", "by=\"a\" more=\"b\""),
                log.replace("x y", "x z"),
                log.replace("<entry>z</entry>", ""),
                log.replace("<kind>", "<entry>more</entry><kind>"),
                log.replace("urn:p", "urn:other"),
                log.replace("so <b>", "so  <b>"),
                log.replace("<b>it</b> is", " is<b>it</b>"),
                log.replace("<b>it</b>", "it"));
        MessageElement before = read(log);
        var types = new MessageChecker(vocabulary).check(before).types();
        for (String other : alike) {
            assertThat(InfosetComparison.compare(before, read(other), vocabulary, types))
                    .as(other)
                    .isEmpty();
        }
        for (String other : changed) {
            assertThat(InfosetComparison.compare(before, read(other), vocabulary, types))
                    .as(other)
                    .isNotEmpty();
        }
    }
}
