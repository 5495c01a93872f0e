package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** The built program, run in a process of its own with a folder as its working directory. */
record BuiltProgram(Path folder) {
    private static final Path JAR = Path.of("target/protypos.jar").toAbsolutePath();
    private static final Path ARCHIVE = Path.of("target/it.jsa").toAbsolutePath();
    static final Path EXAMPLE = Path.of("../examples/harbour/contract").toAbsolutePath();

    /** What a run gave. */
    record Run(int status, String out, String err) {}

    /** As the launcher starts it, with an archive of loaded classes: hundreds of runs would wait long for each. */
    private static List<String> command(String... arguments) {
        List<String> command = flags();
        if (Files.isRegularFile(ARCHIVE)) {
            command.add("-XX:SharedArchiveFile=" + ARCHIVE);
        }
        command.addAll(List.of("-jar", JAR.toString()));
        command.addAll(List.of(arguments));
        return command;
    }

    private static List<String> flags() {
        List<String> flags = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "-XX:-UsePerfData",
                "-Xshare:auto",
                "-Xlog:disable",
                "-Xlog:all=error:stderr"));
        // In the place of the tests.
        ManagementFactory.getRuntimeMXBean().getInputArguments().stream()
                .filter(argument -> argument.startsWith("-Duser."))
                .forEach(flags::add);
        return flags;
    }

    private static synchronized void archive() throws IOException, InterruptedException {
        boolean fresh = Files.isRegularFile(ARCHIVE)
                && Files.getLastModifiedTime(ARCHIVE).compareTo(Files.getLastModifiedTime(JAR)) > 0;
        if (!fresh) {
            Files.deleteIfExists(ARCHIVE);
            List<String> command = flags();
            command.addAll(List.of("-XX:ArchiveClassesAtExit=" + ARCHIVE, "-jar", JAR.toString()));
            command.addAll(List.of("generate", EXAMPLE.resolve("desk.wsdl").toString(), "--preview"));
            new ProcessBuilder(command)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start()
                    .waitFor();
        }
    }

    /** Begins a command that goes on until it is ended; what it says goes into a file. */
    Process begin(Path out, String... arguments) throws IOException, InterruptedException {
        archive();
        return new ProcessBuilder(command(arguments))
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(out.toFile())
                .start();
    }

    Run run(String... arguments) throws IOException, InterruptedException {
        return run(System.getenv("PATH"), List.of(arguments));
    }

    /** Runs it with another path for programs than ours. */
    Run run(String path, List<String> given) throws IOException, InterruptedException {
        archive();
        String[] arguments = given.toArray(String[]::new);
        Path out = Files.createTempFile("out", ".txt");
        Path err = Files.createTempFile("err", ".txt");
        ProcessBuilder program = new ProcessBuilder(command(arguments));
        program.environment().put("PATH", path);
        Process process = program.directory(folder.toFile())
                .redirectOutput(out.toFile())
                .redirectError(err.toFile())
                .start();
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
        Run run = new Run(process.exitValue(), Files.readString(out), Files.readString(err));
        Files.delete(out);
        Files.delete(err);
        assertThat(run.err()).doesNotContain("\tat ", "Exception");
        if (given.contains("--json") && !run.out().isEmpty()) {
            assertThat(Schemas.complaints(arguments[0], run.out()))
                    .as("what %s says", given)
                    .isEmpty();
        }
        return run;
    }

    /** Puts the harbour contract into the folder. */
    void example() throws IOException {
        try (Stream<Path> files = Files.list(EXAMPLE)) {
            for (Path file : files.toList()) {
                Files.copy(file, folder.resolve(file.getFileName()));
            }
        }
    }
}
