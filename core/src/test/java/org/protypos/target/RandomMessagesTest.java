package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.Overlay;
import org.protypos.testing.RandomContract;

/**
 * Random contracts with random messages: whatever the validator takes comes out of generated code as it went in, and a message
 * whose members are made those of another comes out as the other.
 */
public class RandomMessagesTest {
    private static final int MESSAGES = 150;

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void validMessagesLoseNothing(long seed, @TempDir Path folder) throws Exception {
        RandomContract contract = new RandomContract(seed, 60);
        Path schema = contract.layOut(folder);
        try (Generated generated =
                Generated.from(List.of(schema), folder.resolve("out"), rules(seed, folder, "java"))) {
            Overlay overlay = new Overlay(generated);
            int valid = 0;
            for (int i = 0; i < MESSAGES; i++) {
                String message = contract.message();
                if (Infoset.complaint(schema, message) == null) {
                    valid++;
                    Object read = generated.read(message);
                    String written = generated.write(read);
                    assertThat(difference(Infoset.of(message), Infoset.of(written)))
                            .as(message)
                            .isEmpty();
                    assertThat(generated.read(written)).as(message).isEqualTo(read);
                    assertThat(generated.violations(read)).as(message).isEmpty();
                    String changed = overlay.changedInto(message);
                    assertThat(Infoset.complaint(schema, changed)).as(changed).isNull();
                    assertThat(generated.read(changed)).as(message).hasToString(read.toString());
                }
            }
            assertThat(valid).as("messages that the validator takes").isGreaterThan(MESSAGES * 8 / 10);
        }
    }

    /**
     * What the contract of a seed is generated with: every third one lets lists stand for their elements wherever they can.
     *
     * @return the rules, or null for none
     */
    public static Rules rules(long seed, Path folder, String language) throws IOException {
        if (seed % 3 != 0) {
            return null;
        }
        Path file = Files.writeString(folder.resolve("rules.yaml"), "rules:\n  - {on: \"**\", unwrap: true}\n");
        return RuleReader.read(List.of(file), Targets.named(language).rules());
    }

    /** The first line in which two texts differ, with the one before it; empty when they are equal. */
    private static String difference(String expected, String actual) {
        List<String> left = expected.lines().toList();
        List<String> right = actual.lines().toList();
        for (int i = 0; i < Math.max(left.size(), right.size()); i++) {
            String a = i < left.size() ? left.get(i) : "the end";
            String b = i < right.size() ? right.get(i) : "the end";
            if (!a.equals(b)) {
                return (i == 0 ? "" : left.get(i - 1) + "\n") + "expected " + a + "\nbut came " + b;
            }
        }
        return "";
    }
}
