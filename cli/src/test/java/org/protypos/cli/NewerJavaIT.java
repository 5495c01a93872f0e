package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Who has a newer Java than ours builds with it and runs on it: the newest that is on this machine, where there is one. */
class NewerJavaIT {
    @TempDir
    private Path folder;

    private Path home;

    @BeforeEach
    void newest() throws IOException {
        Path all = Path.of("/usr/lib/jvm");
        List<Path> homes = new ArrayList<>();
        if (Files.isDirectory(all)) {
            try (Stream<Path> some = Files.list(all)) {
                some.filter(one -> Files.isExecutable(one.resolve("bin/javac")))
                        .filter(one -> version(one) > Runtime.version().feature())
                        .forEach(homes::add);
            }
        }
        home = homes.stream().max(Comparator.comparing(NewerJavaIT::version)).orElse(null);
        assumeThat(home).as("a newer Java").isNotNull();
    }

    private static int version(Path home) {
        try (Stream<String> lines = Files.lines(home.resolve("release"))) {
            return lines.filter(line -> line.startsWith("JAVA_VERSION="))
                    .map(line -> line.replaceFirst("[^0-9]+", "").replaceFirst("[^0-9].*", ""))
                    .mapToInt(Integer::parseInt)
                    .findFirst()
                    .orElse(0);
        } catch (IOException e) {
            return 0;
        }
    }

    private String said(List<String> command) throws Exception {
        Path said = Files.createTempFile(folder, "said", ".txt");
        Process process = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        assertThat(process.waitFor(240, TimeUnit.SECONDS)).isTrue();
        return Files.readString(said) + "status " + process.exitValue();
    }

    @Test
    void itCompilesWithAllWarningsAsErrors() throws Exception {
        List<String> arguments = new ArrayList<>(List.of(
                "--release",
                "17",
                "-Xlint:all,-path",
                "-Werror",
                "-proc:none",
                "-d",
                folder.resolve("classes").toString()));
        arguments.addAll(List.of("-cp", '"' + System.getProperty("java.class.path") + '"'));
        for (String module : List.of("runtime", "core", "cli")) {
            try (Stream<Path> sources = Files.walk(Path.of("..", module, "src/main/java"))) {
                sources.filter(source -> source.toString().endsWith(".java"))
                        // What servlets need is not among what the program needs.
                        .filter(source -> !source.toString().contains("servlet"))
                        .forEach(source -> arguments.add(
                                '"' + source.toAbsolutePath().normalize().toString() + '"'));
            }
        }
        Path list = Files.write(folder.resolve("arguments"), arguments);
        assertThat(said(List.of(home.resolve("bin/javac").toString(), "@" + list)))
                .isEqualTo("status 0");
    }

    @Test
    void theDemoRuns() throws Exception {
        String said = said(List.of(
                home.resolve("bin/java").toString(),
                "-jar",
                Path.of("target/protypos.jar").toAbsolutePath().toString(),
                "demo",
                "--into",
                "bay"));
        assertThat(said).endsWith("status 0").doesNotContain("WARNING");
    }
}
