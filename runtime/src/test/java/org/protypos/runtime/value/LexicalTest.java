package org.protypos.runtime.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.StringReader;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.Period;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Random;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvFileSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.xml.sax.SAXException;

/** The lexical forms of the built-in types: what is taken, what is refused, and what java.time makes of dates. */
class LexicalTest {
    private static final String SCHEMA =
            "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'><xs:element name='v' type='xs:%s'/></xs:schema>";

    private static Schema oracle(String type) throws SAXException {
        return SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI)
                .newSchema(new StreamSource(new StringReader(SCHEMA.formatted(type))));
    }

    private static boolean isValid(Schema schema, String text) throws Exception {
        try {
            schema.newValidator().validate(new StreamSource(new StringReader("<v>" + text + "</v>")));
            return true;
        } catch (SAXException | ArrayIndexOutOfBoundsException e) {
            // The validator looks letters beyond ASCII up in tables that end there.
            return false;
        }
    }

    private static boolean isTaken(String type, String text) {
        try {
            Lexical.parse(type, text);
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    /** Random changes to good values: for each the platform's validator and our parser must agree. */
    @ParameterizedTest
    @CsvFileSource(resources = "/lexical.csv")
    void agreesWithTheValidatorOnRandomText(String type, String seed) throws Exception {
        Schema schema = oracle(type);
        Random random = new Random(20270509);
        String alphabet = "0123456789+-.:TZPDHMSYEe=aF \u0662\uff11\u00a0\u2212";
        for (int round = 0; round < 400; round++) {
            StringBuilder text = new StringBuilder(seed);
            for (int change = random.nextInt(3); change >= 0; change--) {
                int at = random.nextInt(text.length());
                char c = alphabet.charAt(random.nextInt(alphabet.length()));
                switch (random.nextInt(3)) {
                    case 0 -> text.setCharAt(at, c);
                    case 1 -> text.insert(at, c);
                    default -> {
                        if (text.length() > 1) {
                            text.deleteCharAt(at);
                        }
                    }
                }
            }
            assertThat(isTaken(type, text.toString()))
                    .as("%s \"%s\"", type, text)
                    .isEqualTo(isValid(schema, text.toString()));
        }
    }

    @Test
    void textIsCollapsedReplacedAndSplit() {
        assertThat(Lexical.collapse("")).isEmpty();
        assertThat(Lexical.collapse(" \t a \r\n b ")).isEqualTo("a b");
        assertThat(Lexical.collapse("a b")).isEqualTo("a b");
        assertThat(Lexical.collapse("\u00a0a\u2003")).isEqualTo("\u00a0a\u2003");
        assertThat(Lexical.replace("a\t\nb")).isEqualTo("a  b");
        assertThat(Lexical.items("  1\n2 3 ")).containsExactly("1", "2", "3");
        assertThat(Lexical.items(" ")).isEmpty();
    }

    @Test
    void numbersKeepWhatMatters() {
        assertThat(Lexical.print(Lexical.parseDecimal("1.500"))).isEqualTo("1.500");
        assertThat(Lexical.print(Lexical.parseDecimal("100"))).isEqualTo("100");
        assertThat(Lexical.print(Double.NEGATIVE_INFINITY)).isEqualTo("-INF");
        assertThat(Lexical.print(Float.NaN)).isEqualTo("NaN");
        assertThat(Lexical.parseDouble("-0")).isEqualTo(-0.0);
        assertThat(Lexical.print(List.of(1, 2), value -> "n" + value)).isEqualTo("n1 n2");
        assertThat(Lexical.printHex(Lexical.parseHex("0aff"))).isEqualTo("0AFF");
        assertThat(Lexical.printBase64(Lexical.parseBase64(" AA\nEC /w= ="))).isEqualTo("AAEC/w==");
    }

    @Test
    void dateTimesBecomeJavaTimeAndComeFromIt() {
        XmlDateTime zoned = XmlDateTime.of(" 2027-05-09T14:30:00.1234567891+02:00 ");
        assertThat(zoned.toLocalDateTime()).isEqualTo(LocalDateTime.of(2027, 5, 9, 14, 30, 0, 123_456_789));
        assertThat(zoned.toOffsetDateTime(ZoneOffset.UTC).getOffset()).isEqualTo(ZoneOffset.ofHours(2));
        assertThat(zoned.toInstant(ZoneOffset.UTC)).isEqualTo(Instant.parse("2027-05-09T12:30:00.123456789Z"));
        assertThat(zoned.hasZone()).isTrue();
        XmlDateTime local = XmlDateTime.of("2027-12-31T24:00:00");
        assertThat(local.toLocalDateTime()).isEqualTo(LocalDateTime.of(2028, 1, 1, 0, 0));
        assertThat(local.hasZone()).isFalse();
        assertThat(local.toInstant(ZoneOffset.UTC)).isEqualTo(Instant.parse("2028-01-01T00:00:00Z"));
        assertThat(XmlDateTime.of("12027-01-01T00:00:00Z").toLocalDateTime().getYear())
                .isEqualTo(12027);
        assertThat(XmlDateTime.of("-0044-03-15T00:00:00").toLocalDateTime().getYear())
                .isEqualTo(-44);
        assertThatThrownBy(() -> XmlDateTime.of("99999999999-01-01T00:00:00").toLocalDateTime())
                .isInstanceOf(DateTimeException.class);
        OffsetDateTime offset = OffsetDateTime.of(2027, 5, 9, 10, 0, 0, 5, ZoneOffset.ofHoursMinutes(-3, -30));
        assertThat(XmlDateTime.of(offset).toOffsetDateTime(ZoneOffset.UTC)).isEqualTo(offset);
        assertThat(XmlDateTime.of(LocalDateTime.of(12027, 1, 1, 0, 0)).text()).isEqualTo("12027-01-01T00:00:00");
        assertThat(XmlDateTime.of(Instant.EPOCH).text()).isEqualTo("1970-01-01T00:00:00Z");
    }

    @Test
    void datesTimesAndDurationsToo() {
        assertThat(XmlDate.of("2027-05-09-05:00").toLocalDate()).isEqualTo(LocalDate.of(2027, 5, 9));
        assertThat(XmlDate.of(LocalDate.of(12027, 5, 9)).toLocalDate()).isEqualTo(LocalDate.of(12027, 5, 9));
        assertThat(XmlDate.of("2027-05-09").hasZone()).isFalse();
        assertThat(XmlTime.of("24:00:00Z").toLocalTime()).isEqualTo(LocalTime.MIDNIGHT);
        assertThat(XmlTime.of("10:00:00.1234567899+01:00").toLocalTime())
                .isEqualTo(LocalTime.of(10, 0, 0, 123_456_789));
        assertThat(XmlTime.of(LocalTime.of(9, 5)).text()).isEqualTo("09:05:00");
        assertThat(XmlDuration.of(Duration.ofHours(50).plusMillis(500)).text()).isEqualTo("P2DT2H0.5S");
        assertThat(XmlDuration.of(Duration.ofDays(-2)).text()).isEqualTo("-P2D");
        assertThat(XmlDuration.of(Duration.ZERO).text()).isEqualTo("PT0S");
        assertThat(XmlDuration.of("-P1DT12H").toDuration()).isEqualTo(Duration.ofHours(-36));
        assertThatThrownBy(() -> XmlDuration.of("P1Y").toDuration()).isInstanceOf(DateTimeException.class);
        assertThat(XmlDuration.of(Period.of(1, 2, 3)).toPeriod()).isEqualTo(Period.of(1, 2, 3));
        assertThat(XmlDuration.of(Period.of(-1, -2, 0)).text()).isEqualTo("-P1Y2M");
        assertThatThrownBy(() -> XmlDuration.of(Period.of(1, -2, 0))).isInstanceOf(IllegalArgumentException.class);
        assertThat(XmlDate.of("2027-05-09"))
                .isEqualTo(XmlDate.of(" 2027-05-09"))
                .isNotEqualTo(XmlDate.of("2027-05-09Z"));
        assertThat((Object) XmlDate.of("2027-05-09")).isNotEqualTo(XmlPartialDate.of("2027-05"));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "2027",
                "-0044",
                "2027-05",
                "2027-05:00",
                "2027-05-05:00",
                "--05",
                "--05-09",
                "---09",
                "---31-14:00",
                "--12Z"
            })
    void partialDatesAreTaken(String text) {
        assertThat(XmlPartialDate.of(text).text()).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"27", "02027", "2027-13", "--13", "--02-30", "---32", "---1", "2027-05-09", "--05-", "2027-5", ""
            })
    void otherDatesAreNone(String text) {
        assertThatThrownBy(() -> XmlPartialDate.of(text)).isInstanceOf(IllegalArgumentException.class);
    }
}
