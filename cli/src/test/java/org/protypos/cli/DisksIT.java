package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Disks that are full, devices that take nothing, and others who do the same at the same time. */
class DisksIT {
    private static final String DESK = BuiltProgram.EXAMPLE.resolve("desk.wsdl").toString();

    @TempDir
    private Path folder;

    private Path mounted;

    @AfterEach
    void unmount() throws IOException, InterruptedException {
        if (mounted != null) {
            shell("umount", mounted.toString());
        }
    }

    private static boolean shell(String... command) throws InterruptedException {
        try {
            return new ProcessBuilder(command)
                            .redirectErrorStream(true)
                            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                            .start()
                            .waitFor()
                    == 0;
        } catch (IOException e) {
            return false;
        }
    }

    private static Map<String, String> content(Path of) throws IOException {
        Map<String, String> content = new TreeMap<>();
        try (Stream<Path> files = Files.walk(of)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                content.put(of.relativize(file).toString(), Files.readString(file));
            }
        }
        return content;
    }

    /** A project on a disk with room for its contract and a little more, then for all of it. */
    @Test
    void aFullDiskLeavesAllAsItWas() throws Exception {
        mounted = Files.createDirectory(folder.resolve("disk"));
        boolean can = shell("mount", "-t", "tmpfs", "-o", "size=72k", "tmpfs", mounted.toString());
        if (!can) {
            mounted = null;
        }
        assumeTrue(can, "only who may mount can make a small disk");
        BuiltProgram program = new BuiltProgram(mounted);
        assertThat(program.run("adopt", DESK).status()).isZero();
        Map<String, String> adopted = content(mounted);
        Path other = BuiltProgram.EXAMPLE.resolve("../../tables/tables.wsdl");
        Files.writeString(mounted.resolve("filler"), "x".repeat(16_000));
        for (List<String> command : List.of(
                List.of("generate"),
                List.of("adopt", other.toString(), "--name", "other"),
                List.of("sample", DESK, "--operation", "*", "--into", "samples"),
                List.of("compare", DESK, other.toString(), "--html", "page.html"))) {
            Files.writeString(mounted.resolve("filler2"), "");
            fill(mounted.resolve("filler2"));
            BuiltProgram.Run run = program.run(command.toArray(String[]::new));
            assertThat(run.status()).as(command.toString()).isEqualTo(3);
            assertThat(run.err()).contains("o space left");
            Files.delete(mounted.resolve("filler2"));
            Map<String, String> after = content(mounted);
            after.remove("filler");
            assertThat(after.keySet()).as(command.toString()).isEqualTo(adopted.keySet());
            assertThat(after).as(command.toString()).isEqualTo(adopted);
        }
        assertThat(shell("mount", "-o", "remount,size=16m", mounted.toString())).isTrue();
        assertThat(program.run("adopt", other.toString(), "--name", "other").status())
                .isZero();
        assertThat(program.run("generate").status()).isZero();
        assertThat(program.run("generate", "--check").status()).isZero();
    }

    private static void fill(Path file) throws IOException {
        StringBuilder text = new StringBuilder();
        try {
            while (true) {
                Files.writeString(file, text.append("x".repeat(4_096)));
            }
        } catch (IOException e) {
            // The disk is full.
            Files.writeString(file, text.substring(0, Math.max(0, text.length() - 4_096)));
        }
    }

    @Test
    void whatCannotBeToldIsAFailure() throws Exception {
        Path full = Path.of("/dev/full");
        assumeTrue(Files.exists(full), "this system has no device that is full");
        BuiltProgram program = new BuiltProgram(folder);
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        String jar = Path.of("target/protypos.jar").toAbsolutePath().toString();
        for (String command : List.of(
                "show DESK",
                "check DESK",
                "show DESK --json",
                "sample DESK --operation castOff",
                "generate DESK",
                "--help")) {
            List<String> line = new ArrayList<>(List.of(java, "-jar", jar));
            line.addAll(List.of(command.replace("DESK", DESK).split(" ")));
            Path err = folder.resolve("err.txt");
            Process process = new ProcessBuilder(line)
                    .directory(folder.toFile())
                    .redirectOutput(full.toFile())
                    .redirectError(err.toFile())
                    .start();
            assertThat(process.waitFor()).as(command).isEqualTo(3);
            assertThat(Files.readString(err)).isEqualTo("error: not all of the output could be written\n");
        }
        BuiltProgram.Run page = program.run("compare", DESK, DESK, "--html", "nowhere/page.html");
        assertThat(page.status()).isEqualTo(3);
        assertThat(page.err())
                .isEqualTo("error: " + folder.toRealPath().resolve("nowhere") + ": there is no such file or folder\n");
        assertThat(program.run("compare", DESK, DESK, "--html", "/dev/full").err())
                .isEqualTo("error: /dev/full: No space left on device\n");
    }

    @Test
    void whoReadsTheFirstLinesAloneHearsOfNoFailure() throws Exception {
        Path err = folder.resolve("err.txt");
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-jar",
                        Path.of("target/protypos.jar").toAbsolutePath().toString(),
                        "show",
                        DESK)
                .directory(folder.toFile())
                .redirectError(err.toFile())
                .start();
        process.getInputStream().close();
        assertThat(process.waitFor()).isEqualTo(3);
        assertThat(Files.readString(err)).isEmpty();
    }

    @Test
    void twoWhoAdoptAtOnceBothDo() throws Exception {
        BuiltProgram program = new BuiltProgram(folder);
        for (int round = 0; round < 3; round++) {
            List<CompletableFuture<BuiltProgram.Run>> runs = new ArrayList<>();
            for (int i = 0; i < 3; i++) {
                String name = "desk" + round + i;
                runs.add(CompletableFuture.supplyAsync(() -> {
                    try {
                        return program.run("adopt", DESK, "--name", name);
                    } catch (IOException | InterruptedException e) {
                        throw new IllegalStateException(e);
                    }
                }));
            }
            for (CompletableFuture<BuiltProgram.Run> run : runs) {
                assertThat(run.get().err()).isEmpty();
                assertThat(run.get().status()).isZero();
            }
        }
        String settings = Files.readString(folder.resolve("protypos.yaml"));
        for (int i = 0; i < 9; i++) {
            assertThat(settings).contains("desk" + i / 3 + i % 3 + ":");
        }
        BuiltProgram.Run all = program.run("show", "desk22");
        assertThat(all.status()).isZero();
    }
}
