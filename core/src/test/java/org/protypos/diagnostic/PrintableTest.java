package org.protypos.diagnostic;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import java.io.IOException;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Text from anywhere, where people and parsers read it. */
class PrintableTest {
    private static final int[] ODD = {
        'a', ' ', '"', '\\', '\n', '\r', '\t', '#', ':', '/', 0x7f, 0x80, 0x85, 0x9b, 0xa0, 0xad, 0x200b, 0x200c,
        0x200d, 0x200e, 0x2028, 0x2029, 0x202e, 0x2066, 0xfeff, 0xfffd, 0x1f600, 0x1d173, 0xe0041
    };

    /** The judges are parsers of JSON and of YAML: both read what was meant, and nothing in it is hidden. */
    @Test
    void quotedTextIsTheSameInJsonAndYaml() throws IOException {
        Random random = new Random(5);
        for (int round = 0; round < 500; round++) {
            StringBuilder text = new StringBuilder();
            for (int length = random.nextInt(12); length > 0; length--) {
                text.appendCodePoint(ODD[random.nextInt(ODD.length)]);
            }
            String quoted = Printable.quoted(text.toString());
            assertThat(quoted.codePoints().noneMatch(Printable::isHidden)).isTrue();
            for (JsonFactory factory : List.of(new JsonFactory(), new YAMLFactory())) {
                try (JsonParser parser = factory.createParser(quoted)) {
                    parser.nextToken();
                    assertThat(parser.getText()).as(quoted).isEqualTo(text.toString());
                }
            }
        }
    }

    @Test
    void whatIsHiddenShowsAsSomethingElse() {
        assertThat(Printable.of("a\u009b31m\u202eb\nc\u2028d")).isEqualTo("a?31m?b?c?d");
        assertThat(Printable.of("\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645"))
                .isEqualTo("\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645");
    }
}
