package org.protypos.runtime.soap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.runtime.xml.XmlFormatException;

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

    /** What the platform's regular expressions find in a path, which take long for some: the longest value at each place, from the left. */
    private static String found(String location, String path) {
        Matcher places = Pattern.compile("\\((\\w)\\)").matcher(location);
        StringBuilder pattern = new StringBuilder();
        List<String> names = new ArrayList<>();
        int at = 0;
        while (places.find()) {
            pattern.append(Pattern.quote(location.substring(at, places.start())));
            String name = places.group(1);
            pattern.append(names.contains(name) ? "\\k<" + name + ">" : "(?<" + name + ">[^/?&]*)");
            names.add(name);
            at = places.end();
        }
        Matcher fits =
                Pattern.compile(pattern + Pattern.quote(location.substring(at))).matcher(path);
        return !fits.matches()
                ? null
                : names.stream()
                        .distinct()
                        .map(name -> name + "=" + fits.group(name))
                        .collect(Collectors.joining("&"));
    }

    private static String some(Random random, int most, String... pieces) {
        StringBuilder text = new StringBuilder();
        for (int i = random.nextInt(most + 1); i > 0; i--) {
            text.append(pieces[random.nextInt(pieces.length)]);
        }
        return text.toString();
    }

    @Test
    void pathsAreTakenApartAsARegularExpressionWould() {
        Random random = new Random(20261203);
        int fitting = 0;
        for (int i = 0; i < 50_000; i++) {
            String location = some(random, 7, "(a)", "(b)", "(c)", "-", "x", "/");
            String path = some(random, 9, "-", "x", "y", "/");
            Fields taken = Fields.taken(location, path);
            String expected = found(location, path);
            assertThat(taken == null ? null : taken.encoded())
                    .as(location + " " + path)
                    .isEqualTo(expected);
            fitting += taken == null || taken.encoded().isEmpty() ? 0 : 1;
        }
        assertThat(fitting).isGreaterThan(2_000);
    }

    /** Row by row, each place comes one behind the one before (SOAP 1.1, section 5.4.2). */
    @ParameterizedTest
    @ValueSource(strings = {"7", "3,4", "1,5", "2,3,4", "2,1,2,2"})
    void placesInAnArrayFollowEachOther(String sizes) {
        String[] size = sizes.split(",");
        int[] at = new int[size.length];
        for (int expected = 0; at[0] < Integer.parseInt(size[0]); expected++) {
            String place = Arrays.toString(at);
            assertThat(EncodedMessage.place(place, "x:int[][" + sizes + "]"))
                    .as(place)
                    .isEqualTo(expected);
            assertThat(EncodedMessage.place(place, "x:int[" + sizes.replaceFirst("^[0-9]+", "") + "]"))
                    .isEqualTo(expected);
            int last = size.length - 1;
            for (at[last]++; last > 0 && at[last] == Integer.parseInt(size[last]); at[last]++) {
                at[last--] = 0;
            }
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "none",
            value = {
                "[1] | x:int[2,2]",
                "[1,1] | x:int[9]",
                "[1,1] | none",
                "[0,2] | x:int[2,2]",
                "[0,1] | x:int[2,]",
                "[-1] | none",
                "[1 | none",
                "1 | none",
                "[] | none",
                "[9999999] | none",
                "[9999,999] | x:int[9999,1000]",
            })
    void whatIsNoPlaceInAnArrayIsRefused(String place, String type) {
        assertThatThrownBy(() -> EncodedMessage.place(place, type))
                .isInstanceOf(XmlFormatException.class)
                .hasMessageContaining("is no place in an array");
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
