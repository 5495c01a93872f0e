package org.protypos.record;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.util.HexFormat;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.layout.Picture;
import org.protypos.layout.Usage;

/** Numbers in the bytes in which compilers have them: those in ASCII are what GnuCOBOL writes, those in EBCDIC what IBM's manuals show. */
class NumberFieldTest {
    private static NumberField field(Usage usage, int digits, int decimals, boolean signed, String page) {
        String[] parts = page.split("/");
        RecordForm bytes = new RecordForm(Charset.forName(parts[0]), parts.length > 1);
        return new NumberField(new Picture(usage, digits, decimals, signed), bytes);
    }

    @ParameterizedTest
    @CsvSource({
        "ZONED,  7, 2, true,  ISO-8859-1, 123.45,        30303132333435",
        "ZONED,  7, 2, true,  ISO-8859-1, -123.45,       30303132333475",
        "ZONED,  4, 0, false, ISO-8859-1, 42,            30303432",
        "ZONED,  5, 0, true,  Cp1047,     12345,         F1F2F3F4C5",
        "ZONED,  5, 0, true,  Cp1047,     -12345,        F1F2F3F4D5",
        "ZONED,  4, 0, false, Cp037,      42,            F0F0F4F2",
        "PACKED, 7, 2, true,  ISO-8859-1, 123.45,        0012345C",
        "PACKED, 4, 0, true,  Cp1140,     -7,            00007D",
        "PACKED, 4, 0, false, ISO-8859-1, 42,            00042F",
        "PACKED, 31, 5, true, Cp1047,     -1.5,          0000000000000000000000000150000D",
        "BINARY, 4, 0, true,  ISO-8859-1, -2,            FFFE",
        "BINARY, 9, 0, true,  ISO-8859-1, 123456789,     075BCD15",
        "BINARY, 18, 5, true, ISO-8859-1, -1.5,          FFFFFFFFFFFDB610",
        "BINARY, 9, 0, false, ISO-8859-1, 999999999,     3B9AC9FF",
        "BINARY, 9, 0, true,  UTF-8/little, 123456789,   15CD5B07",
        "BINARY, 4, 0, true,  UTF-8/little, -2,          FEFF"
    })
    void numbersStandInTheBytesOfCompilers(
            Usage usage, int digits, int decimals, boolean signed, String page, BigDecimal number, String hex)
            throws Exception {
        NumberField field = field(usage, digits, decimals, signed, page);
        byte[] record = new byte[hex.length() / 2];
        field.put(number, record, 0);
        assertThat(HexFormat.of().withUpperCase().formatHex(record)).isEqualTo(hex);
        assertThat(field.get(record, 0)).isEqualByComparingTo(number);
    }

    @ParameterizedTest
    @CsvSource({
        "PACKED, 3, 0, true,  1000,        4 digits before the point",
        "PACKED, 5, 2, true,  1.234,       3 digits behind the point",
        "ZONED,  3, 0, false, -1,          no negative numbers",
        "BINARY, 4, 0, true,  32767,       5 digits before the point",
        "PACKED, 5, 2, true,  1E-999999999, 999999999 digits behind the point",
        "PACKED, 5, 2, true,  1E999999999, digits before the point"
    })
    void whatDoesNotFitIsRefused(
            Usage usage, int digits, int decimals, boolean signed, BigDecimal number, String message) {
        NumberField field = field(usage, digits, decimals, signed, "ISO-8859-1");
        assertThatThrownBy(() -> field.put(number, new byte[16], 0)).hasMessageContaining(message);
    }

    @ParameterizedTest
    @CsvSource({
        "PACKED, 5, true,  404040, no packed number",
        "PACKED, 5, true,  123451, no packed number",
        "PACKED, 5, true,  12A45C, no packed number",
        "PACKED, 5, false, 12345D, no negative numbers",
        "ZONED,  3, true,  202020, no number of digits",
        "ZONED,  3, false, 313274, no number of digits"
    })
    void badDigitsAreRefused(Usage usage, int digits, boolean signed, String hex, String message) {
        NumberField field = field(usage, digits, 0, signed, "ISO-8859-1");
        assertThatThrownBy(() -> field.get(HexFormat.of().parseHex(hex), 0)).hasMessageContaining(message);
    }
}
