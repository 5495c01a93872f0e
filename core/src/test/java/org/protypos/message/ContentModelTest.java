package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.ContractReader;
import org.protypos.message.model.ContentModel;
import org.protypos.message.model.Leaf;
import org.protypos.message.model.Vocabulary;
import org.protypos.source.DocumentGatherer;

/** Automata of content models against regular expressions of the platform: each element is a letter. */
class ContentModelTest {
    private static final String LETTERS = "abcd";
    private static final int[][] COUNTS = {
        {0, 1}, {1, 1}, {0, -1}, {1, -1}, {2, 2}, {2, 3}, {0, 3}, {3, -1}, {1, 40}, {35, 40}, {34, -1}, {0, 60}
    };

    @TempDir
    private Path folder;

    /** A content model in the two ways of writing. */
    private record Model(String schema, String expression) {}

    private ContentModel model(String particle) throws IOException {
        String schema =
                "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\"><xs:element name=\"r\"><xs:complexType>"
                        + particle + "</xs:complexType></xs:element></xs:schema>";
        Path file = Files.writeString(folder.resolve("model.xsd"), schema);
        Vocabulary vocabulary =
                new Vocabulary(ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null))
                        .schema());
        return vocabulary.typeOf(vocabulary.element(new QName("r"))).content();
    }

    private static boolean takes(ContentModel model, String text) {
        ContentModel at = model;
        for (char letter : text.toCharArray()) {
            ContentModel.Step step = at.step(new QName(String.valueOf(letter)));
            if (step == null) {
                return false;
            }
            at = step.rest();
        }
        return at.isComplete();
    }

    private static Model random(Random random, int depth) {
        int[] count = COUNTS[random.nextInt(random.nextInt(4) == 0 ? COUNTS.length : 8)];
        String occurs = " minOccurs=\"" + count[0] + "\" maxOccurs=\"" + (count[1] < 0 ? "unbounded" : count[1]) + "\"";
        String times = "{" + count[0] + "," + (count[1] < 0 ? "" : count[1]) + "}";
        if (depth == 0 || random.nextInt(4) == 0) {
            char letter = LETTERS.charAt(random.nextInt(LETTERS.length()));
            return new Model("<xs:element name=\"" + letter + "\"" + occurs + "/>", "(?:" + letter + ")" + times);
        }
        boolean choice = random.nextBoolean();
        StringBuilder schema = new StringBuilder(choice ? "<xs:choice" : "<xs:sequence")
                .append(occurs)
                .append('>');
        StringBuilder expression = new StringBuilder("(?:");
        for (int i = 1 + random.nextInt(3); i > 0; i--) {
            Model part = random(random, depth - 1);
            schema.append(part.schema);
            expression.append(choice && expression.length() > 3 ? "|" : "").append(part.expression);
        }
        schema.append(choice ? "</xs:choice>" : "</xs:sequence>");
        return new Model(schema.toString(), expression + ")" + times);
    }

    /** Texts that are nearly right: letters of a walk through the automaton, one of them changed now and then. */
    private static String walk(ContentModel model, Random random) {
        StringBuilder text = new StringBuilder();
        ContentModel at = model;
        for (int i = random.nextInt(random.nextInt(3) == 0 ? 90 : 8); i > 0; i--) {
            List<Leaf> next = ContentModel.next(at);
            if (next.isEmpty()) {
                break;
            }
            Leaf.Element leaf = (Leaf.Element) next.get(random.nextInt(next.size()));
            text.append(leaf.declaration().name().getLocalPart());
            at = at.step(leaf.declaration().name()).rest();
        }
        if (random.nextInt(3) == 0) {
            int place = random.nextInt(text.length() + 1);
            text.insert(place, LETTERS.charAt(random.nextInt(LETTERS.length())));
        }
        return text.toString();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    @Timeout(60)
    void verdictsAreThoseOfTheExpression(long seed) throws IOException {
        Random random = new Random(seed);
        int taken = 0;
        for (int i = 0; i < 40; i++) {
            Model made = random(random, 3);
            String particle = made.schema.startsWith("<xs:element")
                    ? "<xs:sequence>" + made.schema + "</xs:sequence>"
                    : made.schema;
            ContentModel model = model(particle);
            Pattern expression = Pattern.compile(made.expression);
            for (int j = 0; j < 60; j++) {
                String text = walk(model, random);
                Boolean expected = matches(expression, text);
                if (expected != null) {
                    assertThat(takes(model, text))
                            .as("%s on \"%s\"", made, text)
                            .isEqualTo(expected);
                    taken += expected ? 1 : 0;
                }
            }
        }
        assertThat(taken).isBetween(300, 2_200);
    }

    /** What the platform's matcher says, or null when it would look for ever. */
    private static Boolean matches(Pattern expression, String text) {
        int[] looks = {0};
        CharSequence bounded = new CharSequence() {
            @Override
            public int length() {
                return text.length();
            }

            @Override
            public char charAt(int index) {
                if (++looks[0] > 200_000) {
                    throw new IllegalStateException("too many looks");
                }
                return text.charAt(index);
            }

            @Override
            public CharSequence subSequence(int start, int end) {
                return text.subSequence(start, end);
            }
        };
        try {
            return expression.matcher(bounded).matches();
        } catch (IllegalStateException | StackOverflowError e) {
            return null;
        }
    }

    /** Where what must come before it is passed over, and what must come first. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "'' | c | a",
                "a | c | b",
                "ab | c | c",
                "abc | a | -",
            })
    void whatIsMissingIsFound(String came, String wanted, String demanded) throws IOException {
        ContentModel at = model("<xs:sequence><xs:element name=\"a\"/><xs:element name=\"d\" minOccurs=\"0\"/>"
                + "<xs:element name=\"b\"/><xs:element name=\"c\"/></xs:sequence>");
        for (char letter : came.toCharArray()) {
            at = at.step(new QName(String.valueOf(letter))).rest();
        }
        ContentModel.Step skipped = at.skipTo(new QName(wanted));
        assertThat(skipped == null).isEqualTo(demanded == null);
        Leaf first = at.demanded();
        assertThat(first == null ? null : first.expected()).isEqualTo(demanded == null ? null : "<" + demanded + ">");
    }

    private static String elements(int from, int to) {
        StringBuilder elements = new StringBuilder();
        IntStream.range(from, to)
                .forEach(i -> elements.append("<xs:element name=\"e").append(i).append("\"/>"));
        return elements.toString();
    }

    /** Repetitions inside repetitions, hundreds of alternatives, and long messages: each element is one look. */
    @Test
    @Timeout(30)
    void longMessagesOfWideModels() throws IOException {
        String many = " minOccurs=\"0\" maxOccurs=\"unbounded\"";
        ContentModel at = model("<xs:sequence" + many + "><xs:sequence" + many + "><xs:choice" + many + ">"
                + elements(0, 200) + "</xs:choice><xs:choice" + many + ">" + elements(200, 400)
                + "</xs:choice></xs:sequence></xs:sequence>");
        Random random = new Random(5);
        for (int i = 0; i < 200_000; i++) {
            at = at.step(new QName("e" + random.nextInt(400))).rest();
        }
        assertThat(at.isComplete()).isTrue();
    }

    @Test
    @Timeout(30)
    void largeCountsAreCounted() throws IOException {
        ContentModel at =
                model("<xs:sequence minOccurs=\"100000\" maxOccurs=\"2000000\"><xs:element name=\"a\" maxOccurs=\"3\"/>"
                        + "<xs:element name=\"b\" minOccurs=\"0\"/></xs:sequence>");
        for (int i = 0; i < 299_999; i++) {
            at = at.step(new QName("a")).rest();
            assertThat(at.isComplete()).isEqualTo(i >= 99_999);
        }
        assertThat(at.step(new QName("c"))).isNull();
    }

    /** A group of groups that each name the one before twice has few states, however deep it goes. */
    @Test
    @Timeout(30)
    void groupsThatDoubleAreSharedNotCopied() throws IOException {
        StringBuilder groups = new StringBuilder("<xs:group name=\"g0\"><xs:sequence>"
                + "<xs:element name=\"a\" type=\"xs:int\" minOccurs=\"0\"/></xs:sequence></xs:group>");
        for (int i = 1; i <= 30; i++) {
            String before = "<xs:group ref=\"g" + (i - 1) + "\"/>";
            groups.append(
                    "<xs:group name=\"g" + i + "\"><xs:sequence>" + before + before + "</xs:sequence></xs:group>");
        }
        String schema = "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\">" + groups
                + "<xs:element name=\"r\"><xs:complexType><xs:group ref=\"g30\"/></xs:complexType></xs:element></xs:schema>";
        Path file = Files.writeString(folder.resolve("doubling.xsd"), schema);
        Vocabulary vocabulary =
                new Vocabulary(ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null))
                        .schema());
        ContentModel model =
                vocabulary.typeOf(vocabulary.element(new QName("r"))).content();
        assertThat(takes(model, "a".repeat(500))).isTrue();
        assertThat(takes(model, "b")).isFalse();
        assertThat(model.skipTo(new QName("b"))).isNull();
        assertThat(ContentModel.all(model)).hasSize(2);
        assertThat(ContentModel.next(model)).hasSize(1);
    }
}
