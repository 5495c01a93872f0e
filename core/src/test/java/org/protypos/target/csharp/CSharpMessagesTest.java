package org.protypos.target.csharp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.generator.GeneratedCode;
import org.protypos.target.RandomMessagesTest;
import org.protypos.target.Targets;
import org.protypos.testing.CSharp;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;
import org.protypos.testing.Sections;

/** The same messages as in Java, through C#: valid ones come out as they went in, wrong ones are refused. */
class CSharpMessagesTest {
    private static final int MESSAGES = 150;

    @BeforeAll
    static void needsCompiler() {
        CSharp.assumed();
    }

    static Stream<Sections> cases() {
        return Sections.in("messages").filter(test -> test.get("seen").isEmpty());
    }

    @ParameterizedTest
    @MethodSource("cases")
    void validMessagesLoseNothingAndWrongOnesAreRefused(Sections test, @TempDir Path folder) throws Exception {
        Path schema = test.layOut(folder);
        Path file = folder.resolve("rules.yaml");
        Rules rules = Files.exists(file)
                ? RuleReader.read(List.of(file), Targets.named("csharp").rules())
                : null;
        Path messages = Files.createDirectories(folder.resolve("messages"));
        List<String> valid = test.startingWith("message").toList();
        List<String> wrong = test.startingWith("wrong").toList();
        List<String> broken = test.startingWith("broken").toList();
        layOut(messages, "valid", valid);
        layOut(messages, "wrong", wrong);
        layOut(messages, "broken", broken);
        Path out = Files.createDirectories(folder.resolve("out"));
        GeneratedCode code = CSharp.library(schema, rules, out);
        CSharp.roundTrip(code, out, messages);
        for (int i = 0; i < valid.size(); i++) {
            survives(schema, valid.get(i), messages, "valid" + i);
        }
        for (int i = 0; i < wrong.size(); i++) {
            assertThat(messages.resolve("wrong" + i + ".refused"))
                    .as(wrong.get(i))
                    .exists();
        }
        List<String> tells = test.startingWith("tells").toList();
        for (int i = 0; i < broken.size(); i++) {
            List<String> told = Files.readAllLines(messages.resolve("broken" + i + ".violations"));
            assertThat(told)
                    .as(broken.get(i))
                    .hasSameSizeAs(tells.get(i).strip().lines().toList());
        }
    }

    private static void layOut(Path folder, String name, List<String> messages) throws IOException {
        for (int i = 0; i < messages.size(); i++) {
            Files.writeString(folder.resolve(name + i + ".xml"), messages.get(i));
        }
    }

    private static void survives(Path schema, String message, Path folder, String name) throws IOException {
        Path refused = folder.resolve(name + ".refused");
        assertThat(Files.exists(refused) ? Files.readString(refused) : "")
                .as(message)
                .isEmpty();
        String copy = Files.readString(folder.resolve(name + ".copy"));
        assertThat(Infoset.of(copy)).isEqualTo(Infoset.of(message));
        assertThat(Infoset.complaint(schema, copy)).as(copy).isNull();
        assertThat(Files.readString(folder.resolve(name + ".violations")))
                .as(message)
                .isEmpty();
        Path changed = folder.resolve(name + ".changed");
        assertThat(Files.exists(changed) ? Infoset.complaint(schema, Files.readString(changed)) : null)
                .as("another message that was made this one: %s", message)
                .isNull();
        Path unequal = folder.resolve(name + ".unequal");
        assertThat(Files.exists(unequal) ? Files.readString(unequal) : "")
                .as(message)
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void randomMessagesLoseNothing(long seed, @TempDir Path folder) throws Exception {
        RandomContract contract = new RandomContract(seed, 60);
        Path schema = contract.layOut(folder);
        Path messages = Files.createDirectories(folder.resolve("messages"));
        List<String> valid = new ArrayList<>();
        for (int i = 0; i < MESSAGES; i++) {
            String message = contract.message();
            if (Infoset.complaint(schema, message) == null) {
                valid.add(message);
            }
        }
        assertThat(valid).as("messages that the validator takes").hasSizeGreaterThan(MESSAGES * 8 / 10);
        layOut(messages, "valid", valid);
        Path out = Files.createDirectories(folder.resolve("out"));
        CSharp.roundTrip(CSharp.library(schema, RandomMessagesTest.rules(seed, folder, "csharp"), out), out, messages);
        for (int i = 0; i < valid.size(); i++) {
            survives(schema, valid.get(i), messages, "valid" + i);
        }
    }
}
