package org.protypos.runtime.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.xml.sax.SAXException;

/** What values rules take, held against the platform's validator with the same facets. */
class ValueRuleTest {
    private static final Map<String, String> NAMESPACES = Map.of("o", "urn:o", "q", "urn:o", "", "urn:d");

    private static Schema schema(String type) throws SAXException {
        String text = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns:o='urn:o'><xs:element name='v'>"
                + type + "</xs:element></xs:schema>";
        return SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI)
                .newSchema(new StreamSource(new StringReader(text)));
    }

    private static String restriction(String base, String facets) {
        return "<xs:simpleType><xs:restriction base='xs:" + base + "'>" + facets + "</xs:restriction></xs:simpleType>";
    }

    private static boolean isValid(Schema schema, String text) throws IOException {
        String escaped = text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace("\t", "&#9;")
                .replace("\n", "&#10;");
        try {
            schema.newValidator()
                    .validate(new StreamSource(
                            new StringReader("<v xmlns:o='urn:o' xmlns:q='urn:o' xmlns='' >".replace(" xmlns='' ", "")
                                    + escaped + "</v>")));
            return true;
        } catch (SAXException e) {
            return false;
        }
    }

    static Stream<Arguments> rules() {
        return Stream.of(
                Arguments.of(
                        restriction("string", "<xs:minLength value='2'/><xs:maxLength value='4'/>"),
                        ValueRule.of("string").length(2, 4),
                        "ab x\u00e9"),
                Arguments.of(
                        restriction("token", "<xs:length value='3'/>"),
                        ValueRule.of("token").length(3, 3),
                        " a b"),
                Arguments.of(
                        restriction("decimal", "<xs:totalDigits value='4'/><xs:fractionDigits value='2'/>"),
                        ValueRule.of("decimal").digits(4, 2),
                        "-120.500"),
                Arguments.of(
                        restriction("int", "<xs:minInclusive value='-5'/><xs:maxExclusive value='12'/>"),
                        ValueRule.of("int").least("-5", false).most("12", true),
                        "-+0125"),
                Arguments.of(
                        restriction("double", "<xs:minExclusive value='1e1'/>"),
                        ValueRule.of("double").least("1e1", true),
                        "10.1Ee-NaINF"),
                Arguments.of(
                        restriction("float", "<xs:minInclusive value='0'/><xs:maxInclusive value='INF'/>"),
                        ValueRule.of("float").least("0", false).most("INF", false),
                        "-0.1NaIF"),
                Arguments.of(
                        restriction("date", "<xs:minInclusive value='2027-02-28'/>"),
                        ValueRule.of("date").least("2027-02-28", false),
                        "2027-0-2389Z+1:"),
                Arguments.of(
                        restriction("hexBinary", "<xs:maxLength value='2'/>"),
                        ValueRule.of("hexBinary").length(0, 2),
                        "0aFg"),
                Arguments.of(
                        restriction("base64Binary", "<xs:length value='1'/>"),
                        ValueRule.of("base64Binary").length(1, 1),
                        "QA=  "),
                Arguments.of(
                        restriction("NMTOKENS", "<xs:maxLength value='2'/>"),
                        ValueRule.of("NMTOKENS").length(0, 2),
                        "a b:-"),
                Arguments.of(
                        restriction("decimal", "<xs:enumeration value='1.0'/><xs:enumeration value='-7'/>"),
                        ValueRule.of("decimal").values("1.0", "-7"),
                        "+-01.7"),
                Arguments.of(
                        "<xs:simpleType><xs:list itemType='xs:boolean'/></xs:simpleType>",
                        ValueRule.listOf(ValueRule.of("boolean")),
                        "10 truefals"),
                Arguments.of(
                        "<xs:simpleType><xs:union memberTypes='xs:int xs:NCName'/></xs:simpleType>",
                        ValueRule.unionOf(ValueRule.of("int"), ValueRule.of("NCName")),
                        "1a -:_"),
                Arguments.of(restriction("language", ""), ValueRule.of("language"), "en-GB1x"),
                Arguments.of(restriction("Name", ""), ValueRule.of("Name"), "a1:-.\u00e9\u0301"),
                Arguments.of(restriction("positiveInteger", ""), ValueRule.of("positiveInteger"), "+-01"),
                Arguments.of(restriction("unsignedLong", ""), ValueRule.of("unsignedLong"), "184467073709551615"));
    }

    @ParameterizedTest
    @MethodSource("rules")
    void verdictsAreThoseOfTheValidator(String type, ValueRule rule, String alphabet) throws Exception {
        Schema schema = schema(type);
        Random random = new Random(type.hashCode());
        int[] points = alphabet.codePoints().toArray();
        for (int i = 0; i < 500; i++) {
            StringBuilder text = new StringBuilder();
            for (int length = random.nextInt(i % 3 == 0 ? 12 : 5); length > 0; length--) {
                text.appendCodePoint(points[random.nextInt(points.length)]);
            }
            ValueRule.Complaint complaint = rule.complaint(text.toString(), NAMESPACES::get);
            assertThat(complaint == null).as("\"%s\": %s", text, complaint).isEqualTo(isValid(schema, text.toString()));
        }
    }

    @Test
    void keysAreEqualForOneValueWrittenInTwoWays() {
        for (List<String> same : List.of(
                List.of("decimal", "1", "+01.00"),
                List.of("boolean", "true", " 1 "),
                List.of("dateTime", "2027-05-09T24:00:00Z", "2027-05-10T01:00:00+01:00"),
                List.of("duration", "P1Y", "P12M"),
                List.of("hexBinary", "0a", "0A"),
                List.of("base64Binary", "QQ==", "Q Q = ="),
                List.of("double", "1e2", "100"),
                List.of("QName", "o:a", "q:a"))) {
            ValueRule rule = ValueRule.of(same.get(0));
            assertThat(rule.key(same.get(1), NAMESPACES::get))
                    .as("%s", same)
                    .isEqualTo(rule.key(same.get(2), NAMESPACES::get));
        }
        assertThat(ValueRule.of("float").key("NaN", null))
                .isEqualTo(ValueRule.of("float").key("NaN", null));
        assertThat(ValueRule.of("decimal").key("1", null))
                .isNotEqualTo(ValueRule.of("string").key("1", null));
        assertThat(ValueRule.of("QName").key("o:a", NAMESPACES::get))
                .isNotEqualTo(ValueRule.of("QName").key("a", NAMESPACES::get));
    }

    @Test
    void namesAreExpandedWhereverTheyMayStand() {
        ValueRule either = ValueRule.unionOf(ValueRule.of("int"), ValueRule.of("QName"));
        ValueRule several = ValueRule.listOf(either);
        assertThat(several.holdsNames()).isTrue();
        assertThat(ValueRule.listOf(ValueRule.of("int")).holdsNames()).isFalse();
        assertThat(several.expandedText(" o:a  12 b ", NAMESPACES::get)).isEqualTo("{urn:o}a 12 {urn:d}b");
        assertThat(either.complaint("x:a", NAMESPACES::get)).isNotNull();
    }

    /** A pattern that takes for ever on some text is given up, and the text is not held to it. */
    @Test
    @Timeout(20)
    void patternsWithManyWaysThroughThemAreDecidedAllTheSame() {
        ValueRule rule = ValueRule.of("string").pattern("([a]*a){25}b", "(?:[a]*a){25}b");
        for (int length : new int[] {20, 24, 25, 26, 90, 100_000}) {
            assertThat(rule.complaint("a".repeat(length) + "c", null)).isNotNull();
            assertThat(rule.complaint("a".repeat(length) + "b", null) == null).isEqualTo(length >= 25);
        }
        ValueRule deep = ValueRule.of("string").pattern("(a|b)*", "(?:(?:a|b))*");
        assertThat(deep.complaint("ab".repeat(500_000), null)).isNull();
        assertThat(deep.complaint("ab".repeat(500_000) + "c", null)).isNotNull();
    }

    /** Patterns made up at random, and texts that match or nearly do: both matchers decide alike. */
    @Test
    void theAutomatonDecidesAsThePlatformDoes() {
        Random random = new Random(20);
        int matching = 0;
        for (int i = 0; i < 3_000; i++) {
            String java = pattern(random, 3);
            PatternAutomaton automaton = PatternAutomaton.of(java);
            for (int j = 0; j < 20; j++) {
                String text =
                        text(random, "ab-\u00e9\u4e2d\ud83d\ude00".codePoints().toArray());
                assertThat(automaton.matches(text))
                        .as("%s against %s", text, java)
                        .isEqualTo(Pattern.matches(java, text));
                matching += Pattern.matches(java, text) ? 1 : 0;
            }
        }
        assertThat(matching).isBetween(5_000, 50_000);
        assertThat(PatternAutomaton.of("(?:(?:(?:a{0,1000}){0,1000}))*")).isNull();
        assertThat(PatternAutomaton.of("(?:(?:(?:(?:){1000}){1000}){1000}){1000}"))
                .isNull();
    }

    private static String text(Random random, int[] characters) {
        StringBuilder text = new StringBuilder();
        for (int length = random.nextInt(7); length > 0; length--) {
            text.appendCodePoint(characters[random.nextInt(characters.length)]);
        }
        return text.toString();
    }

    private static String pattern(Random random, int depth) {
        String[] sets = {"a", "b", "\\-", "[a-b]", "[^\\n\\r]", "[[\\p{L}]&&[^[a]]]", "\\x{1f600}", "[\\x{4e2d}\\-]"};
        String[] quantifiers = {"", "", "", "?", "*", "+", "{2,2}", "{0,2}", "{1,3}", "{2,}"};
        StringBuilder text = new StringBuilder();
        for (int pieces = random.nextInt(3) + (depth == 3 ? 1 : 0); pieces > 0; pieces--) {
            if (depth > 0 && random.nextInt(3) == 0) {
                text.append("(?:").append(pattern(random, depth - 1));
                for (int branches = random.nextInt(3); branches > 0; branches--) {
                    text.append('|').append(pattern(random, depth - 1));
                }
                text.append(')');
            } else {
                text.append(sets[random.nextInt(sets.length)]);
            }
            text.append(quantifiers[random.nextInt(quantifiers.length)]);
        }
        return text.toString();
    }

    /** Numbers of more digits than anybody means take time that grows with the square of them, if they are worked out. */
    @ParameterizedTest
    @Timeout(10)
    @ValueSource(
            strings = {
                "integer 9*",
                "integer -9*",
                "decimal 9*",
                "decimal 1.9*",
                "double 9*",
                "double 1e9*",
                "float 0.9*",
                "date 9*-01-01",
                "dateTime 9*-01-01T00:00:00",
                "dateTime 2027-01-01T00:00:00.9*",
                "time 12:00:00.9*",
                "gYear 9*",
                "gYear -9*",
                "gYearMonth 9*-01",
                "duration P9*Y",
                "duration PT9*S",
                "duration PT1.9*S",
                "hexBinary 99*",
                "base64Binary 9999*",
                "date 2027-01-019*",
                "anyURI 9*",
                "QName 9*",
                "language 9*",
            })
    void longDigitsAreDecidedQuickly(String value) {
        String builtin = value.substring(0, value.indexOf(' '));
        String text = value.substring(value.indexOf(' ') + 1).replaceAll("(?<=9)\\*", "9".repeat(3_999_996));
        boolean ordered = !List.of("hexBinary", "base64Binary", "anyURI", "QName", "language")
                .contains(builtin);
        String bound = ordered ? text.replace("9".repeat(3_999_997), "0001") : "9999";
        ValueRule rule = ValueRule.of(builtin);
        ValueRule narrowed = ordered ? rule.least(bound, false).most(bound, true) : rule.values(bound);
        narrowed.complaint(text, NAMESPACES::get);
        assertThat(rule.values(bound).complaint(text, NAMESPACES::get)).isNotNull();
    }

    /** Contracts have bounds of what has no order; they are told of, and not held against values. */
    @Test
    void boundsAreOfValuesWithAnOrder() {
        ValueRule list = ValueRule.listOf(ValueRule.of("int"));
        ValueRule union = ValueRule.unionOf(ValueRule.of("int"), ValueRule.of("date"));
        assertThat(list.least("3", false).most("5", true).complaint("4 1", null))
                .isNull();
        assertThat(union.least("3", false).most("5", true).complaint("7", null)).isNull();
        for (String builtin : List.of("string", "anyURI", "base64Binary", "QName")) {
            ValueRule bounded = ValueRule.of(builtin).least("T", true).most("T", true);
            assertThat(bounded.complaint(builtin.startsWith("base") ? "AAAT" : "aT", null))
                    .isNull();
        }
    }

    /** Part 2, section 4.3.1: the length of text is the number of its characters, of which some take two places in Java. */
    @Test
    void charactersAreCountedNotPlaces() {
        ValueRule rule = ValueRule.of("string").length(2, 2);
        assertThat(rule.complaint("\ud83d\ude00\ud83d\ude00", null)).isNull();
        assertThat(rule.complaint("\ud83d\ude00", null)).isNotNull();
    }

    @Test
    void aComplaintTellsWhichStepIsBroken() {
        ValueRule base = ValueRule.of("string").length(2, 8);
        ValueRule narrowed = base.named().pattern("[A-Z]*", "[A-Z]*");
        assertThat(narrowed.complaint("A", null).rule()).isSameAs(base);
        assertThat(narrowed.complaint("ab", null).rule()).isSameAs(narrowed);
        assertThat(narrowed.complaint("ab", null).message()).isEqualTo("\"ab\" does not match [A-Z]*");
    }

    @ParameterizedTest
    @CsvSource({
        "boolean,0|1,true,1",
        "boolean,true|0,false,0",
        "boolean,yes,true,true",
        "boolean,0|1,maybe,maybe",
        "int,[0-9]{3},7,007",
        "int,-[0-9]{3},-7,-007",
        "int,[+][0-9],7,+7",
        "int,[0-9]{3},1000,1000",
        "int,[0-9][.]0,7,7",
        "decimal,[0-9]+[.][0-9]{2},5,5.00",
        "decimal,[0-9]+[.][0-9]{2},1.5000,1.50",
        "decimal,[0-9]+[.][0-9]{2},1.505,1.505",
        "decimal,[0-9]+,1.0,1",
        "double,[0-9]+[.][0-9],1.0E10,10000000000.0",
        "double,[0-9]+[.][0-9],1.0E500,1.0E500",
        "double,[0-9]+[.][0-9],1.0E999999999,1.0E999999999",
        "double,0[.]0+1,1.0E-5,0.00001",
        "float,[0-9]+,INF,INF",
        "hexBinary,[0-9a-f]*,0AFF,0aff",
        "string,[a-z]+,ABC,ABC"
    })
    void aValueIsWrittenAsItsPatternsWantIt(String type, String pattern, String ordinary, String fitting) {
        ValueRule rule = ValueRule.of(type).pattern(pattern, pattern);
        assertThat(rule.fitting(ordinary)).isEqualTo(fitting);
        assertThat(ValueRule.listOf(rule).fitting(ordinary + " " + ordinary)).isEqualTo(fitting + " " + fitting);
        boolean same = fitting.equals(ordinary);
        assertThat(rule.complaint(fitting, null) == null || same).isTrue();
    }
}
