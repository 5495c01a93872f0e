package org.protypos.testing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/** A COBOL compiler that we did not write, and what it makes. */
public final class Cobc {
    private Cobc() {}

    /** Skips where there is no compiler; in continuous integration its absence fails. */
    public static void assumed() {
        boolean there =
                Stream.of(System.getenv("PATH").split(":")).anyMatch(path -> Files.isExecutable(Path.of(path, "cobc")));
        if (System.getenv("CI") != null) {
            assertThat(there).as("cobc, which .ci/run installs").isTrue();
        }
        assumeTrue(there, "no COBOL compiler here: apt-get install gnucobol3");
    }

    /**
     * Runs a command.
     *
     * @return what it said, and its status behind that when it is not 0 or something was said; empty when all is well
     */
    public static String run(Path folder, String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return process.waitFor() == 0 && said.isEmpty() ? "" : said + process.exitValue();
    }
}
