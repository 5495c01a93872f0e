package org.protypos.diagnostic;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a parser has against a text is told in words for who has written it. */
class MalformedTextTest {
    private static final List<String> SLIPS = List.of(
            "[", "]", "{", "}", "\"", "'", ":", ",", "- x", "a: b", "&a x", "*a", "!!int 3", "01", "\u0000", "\u0007",
            "|\n  x", "\t", "%", "@x", "`", "? x", "!<x> y", "\\", "<<: *a", "fals", "// x", "{}", "[]", "-", ".5");

    /** The place and the reason, or null when there is nothing wrong. */
    private static String told(JsonFactory factory, String text) throws IOException {
        SourceText source = new SourceText("text", text);
        try (JsonParser parser = factory.createParser(text)) {
            while (parser.nextToken() != null) {
                // What it says does not matter.
            }
            return null;
        } catch (JsonProcessingException e) {
            Place place = MalformedText.place(source, e);
            return place.line() + ":" + place.column() + " " + MalformedText.reason(e);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '#',
            quoteCharacter = '\0',
            value = {
                "{\"a\": 1 # 1:8 it ends before everything is closed that was opened",
                "{\"a\" 1} # 1:6 a colon is expected here, behind a name",
                "{a: 1} # 1:2 a name is expected here",
                "[1 2] # 1:4 a comma, or the end of what is open, is expected here",
                "[1] } # 1:5 a bracket closes here that is not open",
                "[fals] # 1:6 a value is expected here; texts stand in quotes",
                "[01] # 1:3 this is no number in JSON",
                "[\"\\x\"] # 1:4 a backslash means nothing with what follows it",
                "// x # 1:1 there are no comments in JSON"
            })
    void ofJson(String text, String told) throws Exception {
        assertThat(told(new JsonFactory(), text)).isEqualTo(told);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '#',
            quoteCharacter = '\0',
            value = {
                "rules:~ - on: x~  name: Y # 3:3 this does not continue what stands before it: its indentation fits nothing,"
                        + " or a sign is missing",
                "on: \"x~name: Y # 1:5 a quote opens here that nothing closes",
                "on: a: b # 1:6 a colon with a blank behind it may not stand here; a text with one stands in quotes",
                "limit: stream exceeds the maximum~ x: numeric value: a value # 2:3 a colon with a blank behind it"
                        + " may not stand here; a text with one stands in quotes",
                "on: @x # 1:5 no text begins with @ unless it stands in quotes",
                "[] on: x # 1:2 a name is expected here",
                "a: *b c # 1:7 this does not continue what stands before it: its indentation fits nothing, or a sign is missing"
            })
    void ofYaml(String text, String told) throws Exception {
        assertThat(told(new YAMLFactory(), text.replace('~', '\n'))).isEqualTo(told);
    }

    /** The parser of YAML reads in pieces, and says where in its piece such a character is. */
    @Test
    void aControlCharacterIsFoundInALongText() throws Exception {
        String text = "a: b\n".repeat(3000) + "c: \u009bd\n";
        assertThat(told(new YAMLFactory(), text))
                .isEqualTo(
                        "3001:4 a control character stands here, which has to be written with a backslash in quotes");
    }

    /** The words of the parsers themselves do not get through, whatever slips into a file. */
    @Test
    void nothingIsToldInTheWordsOfAParser() throws Exception {
        Random random = new Random(7);
        List<String> texts = List.of(
                Files.readString(Path.of("../examples/customs/names.yaml")),
                Files.readString(Path.of("../examples/fog/fog-signal.yaml")),
                "{\"names\": {\"a b\": [1, 2.5e3, true, null, \"x\\ny\"]},\n \"more\": [{}, [], \"\"]}");
        Set<String> reasons = new TreeSet<>();
        for (int i = 0; i < 6_000; i++) {
            int which = i % texts.size();
            StringBuilder text = new StringBuilder(texts.get(which));
            int at = random.nextInt(text.length());
            if (random.nextBoolean()) {
                text.insert(at, SLIPS.get(random.nextInt(SLIPS.size())));
            } else {
                text.delete(at, Math.min(text.length(), at + 1 + random.nextInt(5)));
            }
            String told = told(which == 2 ? new JsonFactory() : new YAMLFactory(), text.toString());
            if (told != null) {
                reasons.add(told.replaceFirst("\\S+ ", ""));
            }
        }
        assertThat(reasons).hasSizeGreaterThan(12);
        assertThat(reasons)
                .noneMatch(reason ->
                        reason.matches("(?i).*(yaml|token|scalar|node|stream|source|entr|null|no value can).*"));
    }
}
