package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever is said to the program, and whatever has become of the files: it ends, says why, and keeps its own schemas. */
class RandomCommandsIT {
    private static final int SEEDS = 80;

    @TempDir
    private Path folder;

    @Test
    void noCommandEndsInAMistakeOrInSilence() throws Exception {
        // Letters that addresses, shells and expressions take for something else.
        Path here = Files.createDirectories(folder.resolve("a b#c%20ü&+'(1)$x"));
        Path lines = folder.resolve("lines");
        Process program = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        String.join(
                                File.pathSeparator,
                                Path.of("target/protypos.jar").toAbsolutePath().toString(),
                                Path.of("target/test-classes").toAbsolutePath().toString(),
                                System.getProperty("java.class.path")),
                        RandomCommands.class.getName(),
                        Path.of("../examples").toRealPath().toString(),
                        lines.toString(),
                        "1",
                        String.valueOf(SEEDS))
                .directory(here.toFile())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("said").toFile())
                .start();
        assertThat(program.waitFor(300, TimeUnit.SECONDS)).isTrue();
        assertThat(Files.readString(folder.resolve("said"))).isEmpty();
        assertThat(program.exitValue()).isZero();
        ObjectMapper json = new ObjectMapper();
        Set<String> done = new TreeSet<>();
        for (String line : Files.readAllLines(lines)) {
            RandomCommands.Ran ran = json.readValue(line, RandomCommands.Ran.class);
            String what = "seed " + ran.seed() + " " + ran.arguments();
            assertThat(ran.ended()).as("%s ends", what).isTrue();
            assertThat(ran.status()).as(what).isBetween(0, 4);
            assertThat(ran.err())
                    .as(what)
                    .doesNotContain("mistake in protypos", "\tat ", "java.lang", "java.nio", "jackson", "yaml.events");
            if (ran.status() != 0) {
                assertThat(ran.out() + ran.err()).as(what).isNotBlank();
            }
            String command = ran.arguments().get(0);
            if (ran.arguments().contains("--json") && !ran.out().isEmpty()) {
                assertThat(Schemas.complaints(command, ran.out())).as(what).isEmpty();
            }
            if (ran.status() == 0) {
                done.add(command);
            }
        }
        Set<String> all = new TreeSet<>(RandomCommands.COMMANDS);
        all.removeAll(Set.of("bridge", "call"));
        assertThat(done).as("what comes to a good end, too").isEqualTo(all);
    }
}
