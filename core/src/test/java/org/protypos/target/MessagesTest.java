package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.binding.RuleReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.Overlay;
import org.protypos.testing.Sections;

/** Real messages through generated types: valid ones come out as they went in, wrong ones are refused with their place. */
class MessagesTest {
    /** Generates as the rules of the case say, if it has any, and compiles code of its own together with that. */
    private static Generated generate(Sections test, Path schema, Path folder) throws IOException {
        Path rules = folder.resolve("rules.yaml");
        return Files.exists(rules)
                ? Generated.beside(
                        schema, folder.resolve("out"), RuleReader.read(List.of(rules), new JavaNames()), folder)
                : Generated.from(schema, folder.resolve("out"), null);
    }

    static Stream<Sections> cases() {
        return Sections.in("messages");
    }

    @ParameterizedTest
    @MethodSource("cases")
    void validMessagesLoseNothingAndWrongOnesAreNamed(Sections test, @TempDir Path folder) throws Exception {
        Path schema = test.layOut(folder);
        try (Generated generated = generate(test, schema, folder)) {
            Vocabulary vocabulary = new Vocabulary(generated.contract().schema());
            MessageChecker checker = new MessageChecker(vocabulary);
            Overlay overlay = new Overlay(generated);
            for (String message : test.startingWith("message").toList()) {
                assertThat(deviations(checker, message)).as(message).isEmpty();
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
                assertThat(generated.violations(read)).as(message).isEmpty();
                assertThat(again).isEqualTo(read).hasSameHashCodeAs(read).hasToString(read.toString());
                if (!test.toString().contains("names-in-text")) {
                    // What a prefix in a text stands for is not in the text.
                    String changed = overlay.changedInto(message);
                    assertThat(Infoset.complaint(schema, changed)).as(changed).isNull();
                    assertThat(generated.read(changed)).as(message).hasToString(read.toString());
                }
            }
            List<String> wrong = test.startingWith("wrong").toList();
            List<String> says = test.startingWith("says").toList();
            for (int i = 0; i < wrong.size(); i++) {
                assertThat(Infoset.complaint(schema, wrong.get(i)))
                        .as(wrong.get(i))
                        .isNotNull();
                assertThat(deviations(checker, wrong.get(i))).as(wrong.get(i)).isNotEmpty();
                String refusal = refusal(generated, wrong.get(i));
                assertThat(refusal).as(wrong.get(i)).isNotNull();
                if (!says.isEmpty()) {
                    assertThat(refusal).isEqualTo(says.get(i).strip());
                }
            }
        }
    }

    /** Broken messages are of the right shape, so that they can be read; values say what is wrong as far as they see it. */
    @ParameterizedTest
    @MethodSource("cases")
    void valuesTellWhatIsWrongWithThem(Sections test, @TempDir Path folder) throws Exception {
        List<String> broken = test.startingWith("broken").toList();
        List<String> tells = test.startingWith("tells").toList();
        if (broken.isEmpty()) {
            return;
        }
        Path schema = test.layOut(folder);
        try (Generated generated = generate(test, schema, folder)) {
            for (int i = 0; i < broken.size(); i++) {
                assertThat(Infoset.complaint(schema, broken.get(i))).isNotNull();
                assertThat(deviations(
                                new MessageChecker(
                                        new Vocabulary(generated.contract().schema())),
                                broken.get(i)))
                        .as(broken.get(i))
                        .isNotEmpty();
                assertThat(generated.violations(generated.read(broken.get(i))))
                        .extracting(Object::toString)
                        .containsExactlyElementsOf(tells.get(i).strip().lines().toList());
            }
        }
    }

    /** Code that uses what rules made of the types, and what it sees there. */
    @ParameterizedTest
    @MethodSource("cases")
    void codeSeesTheTypesInTheShapeThatRulesGive(Sections test, @TempDir Path folder) throws Exception {
        if (test.get("seen").isEmpty()) {
            return;
        }
        Path schema = test.layOut(folder);
        try (Generated generated = generate(test, schema, folder)) {
            String seen =
                    (String) generated.load("yard.own.Uses").getMethod("seen").invoke(null);
            assertThat(seen).isEqualTo(test.get("seen").strip());
        }
    }

    /** Lenient readings: what they make of a message, and what they tell of it. */
    @ParameterizedTest
    @MethodSource("cases")
    void lenientReadingsPassOverWhatBreaksTheContract(Sections test, @TempDir Path folder) throws Exception {
        Path schema = test.layOut(folder);
        try (Generated generated = generate(test, schema, folder)) {
            for (String wrong : test.startingWith("wrong").toList()) {
                if (!wrong.contains("<!DOCTYPE")) {
                    assertThat(leniently(generated, wrong)).as(wrong).hasSizeGreaterThan(1);
                }
            }
            List<String> lenient = test.startingWith("lenient").toList();
            List<String> gives = test.startingWith("gives").toList();
            for (int i = 0; i < lenient.size(); i++) {
                assertThat(leniently(generated, lenient.get(i)))
                        .containsExactlyElementsOf(gives.get(i).strip().lines().toList());
            }
        }
    }

    /** What a lenient reading tells, and at the end the message that it understood. */
    private static List<String> leniently(Generated generated, String message) throws ReflectiveOperationException {
        List<String> told = new ArrayList<>();
        Object read = generated.read(message, deviation -> told.add(((RuntimeException) deviation).getMessage()));
        told.add(generated.write(read).lines().skip(1).collect(Collectors.joining()));
        return told;
    }

    private static List<?> deviations(MessageChecker checker, String message) {
        Findings findings = new Findings();
        MessageElement root = MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), findings);
        return root == null ? findings.sorted() : checker.check(root).deviations();
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
