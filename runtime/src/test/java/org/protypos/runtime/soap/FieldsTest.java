package org.protypos.runtime.soap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Names and values in queries, forms and paths (WSDL 1.1, sections 4.5 and 4.6), and what of a message is written to a log. */
class FieldsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a=1&b=2 | a=1&b=2",
                "a=%C3%A9+x | a=%C3%A9+x",
                "a=&&b | a=&b=",
                "a=1=2 | a=1%3D2",
                "a=1&a=2 | a=1&a=2",
                "%61=%26 | a=%26",
            })
    void queriesAreReadAndWritten(String text, String again) {
        assertThat(Fields.parse(text).encoded()).isEqualTo(again);
    }

    @ParameterizedTest
    @ValueSource(strings = {"a=%", "a=%zz", "a=%C3%28", "a=%FF", "%2=1", "a=%00", "a=%0B", "a=%EF%BF%BF"})
    void whatHasNoPlaceInXmlIsRefused(String text) {
        assertThatThrownBy(() -> Fields.parse(text)).isInstanceOf(Request.Refused.class);
    }

    @Test
    void thereAreNotMoreFieldsThanTheLimit() {
        assertThatThrownBy(() -> Fields.parse("a=1&".repeat(1_001)))
                .isInstanceOf(Request.Refused.class)
                .hasMessageContaining("more than 1000");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "o/(a)/x | o/north%20pier/x",
                "o(a)(b)p | onorth%20pier%2Fp",
                "o/(c)/x | o//x",
                "o/() | o/()",
                "(a | (a",
            })
    void valuesReplaceNamesInALocation(String location, String replaced) {
        assertThat(Fields.parse("a=north+pier&b=%2F").replacedIn(location)).isEqualTo(replaced);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "none",
            value = {
                "o/(a)/x | o/north%20pier/x | a=north+pier",
                "o/(a)/(b) | o/1/2 | a=1&b=2",
                "o/(a) | o/1/2 | none",
                "o/(a) | p/1 | none",
                "o.(a) | ox1 | none",
                "o/(a) | o/1+2 | a=1%2B2",
                "o/(a)(b) | o/12 | a=12&b=",
                "o/(a),(b).(c)x | o/1,2,3.4.5x | a=1%2C2&b=3.4&c=5",
                "o/(a),(b).(c)x | o/1,2,3.4.5 | none",
                "o/(a)-(b)/(a) | o/1-2-3/1 | a=1&b=2-3",
                "o/(a)-(b)/(a) | o/1-2-3/1-2 | a=1-2&b=3",
                "o/(a)-(b)/(a) | o/1-2-3/2 | none",
            })
    void valuesAreTakenFromAPath(String location, String path, String fields) {
        Fields taken = Fields.taken(location, path);
        assertThat(taken == null ? null : taken.encoded()).isEqualTo(fields);
    }

    @Test
    void secretsAreBlankedInWhatIsLogged() {
        String message = "<a><password>x</password><t:apiKey xmlns:t='urn:t'>y</t:apiKey><name>z</name>"
                + "<b userToken=\"u\" pin='1' spin='2'/></a>";
        assertThat(WireLog.blanked(message))
                .contains("<password>***</password>", ">***</t:apiKey>", "<name>z</name>", "userToken=\"***\"")
                .doesNotContain(">x<", ">y<", "\"u\"");
        assertThat(List.of("Authorization", "Cookie", "Set-Cookie", "X-Api-Key", "Proxy-Authorization"))
                .allMatch(name -> WireLog.blankedHeader(name, "v").equals("***"));
        assertThat(WireLog.blankedHeader("Content-Type", "text/xml")).isEqualTo("text/xml");
    }

    /** The order is said in {@link SoapSettings}: the property is asked first, the contract last. */
    @Test
    void addressesComeFromOutsideInOrder() {
        assertThat(OutsideAddress.of("Office", "Desk", "http://contract")).isEqualTo("http://contract");
        System.setProperty("address.Office.Desk", " http://property ");
        try {
            assertThat(OutsideAddress.of("Office", "Desk", "http://contract")).isEqualTo("http://property");
        } finally {
            System.clearProperty("address.Office.Desk");
        }
    }
}
