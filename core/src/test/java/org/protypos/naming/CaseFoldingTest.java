package org.protypos.naming;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Which names are one file, by the mappings of status C and F that Unicode's table of case foldings has. */
class CaseFoldingTest {
    @ParameterizedTest
    @CsvSource({
        "Berth, BERTH",
        "Größe, GRÖSSE",
        "Größe, Grösse",
        "GRÖẞE, größe",
        "Schloſs, Schloss",
        "\u212Aelvin, Kelvin",
        "\u212Bngstrom, \u00E5ngstrom",
        "\uFB01sh, FISH",
        "\uFB03n, ffin",
        "\u03A3\u03AF\u03C3\u03C5\u03C6\u03BF\u03C2, \u03A3\u038A\u03A3\u03A5\u03A6\u039F\u03A3",
        "\u03BB\u03CC\u03B3\u03BF\u03C2, \u03BB\u03CC\u03B3\u03BF\u03C3",
        "\u00B5m, \u03BCm",
        "e\u0301te, \u00C9TE",
        "\u0149a, \u02BCNA",
        "\u0130x, i\u0307X",
        "\u13A0b, \uAB70B",
        "\u1FB3b, \u03B1\u03B9b",
    })
    void oneFile(String a, String b) {
        assertThat(CaseFolding.of(a)).isEqualTo(CaseFolding.of(b));
        assertThat(CaseFolding.of(CaseFolding.of(a))).isEqualTo(CaseFolding.of(a));
    }

    @ParameterizedTest
    @CsvSource({"Berth, Birth", "\u0131s, is", "Grosse, Größe", "\u00E9te, ete", "o\u0308, o", "\uFF21, A"})
    void twoFiles(String a, String b) {
        assertThat(CaseFolding.of(a)).isNotEqualTo(CaseFolding.of(b));
    }
}
