package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.InvocationTargetException;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.Sections;

/** Real messages through generated types: valid ones come out as they went in, wrong ones are refused with their place. */
class MessagesTest {
    static Stream<Sections> cases() {
        return Sections.in("messages");
    }

    @ParameterizedTest
    @MethodSource("cases")
    void validMessagesLoseNothingAndWrongOnesAreNamed(Sections test, @TempDir Path folder) throws Exception {
        Path schema = test.layOut(folder);
        try (Generated generated = Generated.from(schema, folder.resolve("out"), null)) {
            for (String message : test.startingWith("message").toList()) {
                assertThat(Infoset.complaint(schema, message))
                        .as("the oracle on the message")
                        .isNull();
                Object read = generated.read(message);
                String written = generated.write(read);
                assertThat(Infoset.of(written)).isEqualTo(Infoset.of(message));
                assertThat(Infoset.complaint(schema, written))
                        .as("the oracle on the copy")
                        .isNull();
                Object again = generated.read(written);
                assertThat(again).isEqualTo(read).hasSameHashCodeAs(read).hasToString(read.toString());
            }
            List<String> wrong = test.startingWith("wrong").toList();
            List<String> says = test.startingWith("says").toList();
            for (int i = 0; i < wrong.size(); i++) {
                assertThat(Infoset.complaint(schema, wrong.get(i)))
                        .as(wrong.get(i))
                        .isNotNull();
                String refusal = refusal(generated, wrong.get(i));
                assertThat(refusal).as(wrong.get(i)).isNotNull();
                if (!says.isEmpty()) {
                    assertThat(refusal).isEqualTo(says.get(i).strip());
                }
            }
        }
    }

    /** How the generated types refuse a message, or null when they take it. */
    private static String refusal(Generated generated, String message) throws ReflectiveOperationException {
        try {
            generated.read(message);
            return null;
        } catch (InvocationTargetException e) {
            assertThat(e.getCause().getClass().getSimpleName()).isEqualTo("XmlFormatException");
            return e.getCause().getMessage();
        }
    }
}
