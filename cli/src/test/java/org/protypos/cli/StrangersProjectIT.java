package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Somebody opens a project that an enemy made: whatever they type, nothing outside of it is touched, and nothing becomes code. */
class StrangersProjectIT {
    /** A contract beside a project that has adopted it. */
    @TempDir
    private static Path laidOut;

    @TempDir
    private Path home;

    private Path folder;
    private Path treasure;
    private BuiltProgram program;

    @BeforeAll
    static void adopt() throws Exception {
        copy(BuiltProgram.EXAMPLE, laidOut.resolve("contract"));
        Path project = Files.createDirectory(laidOut.resolve("project"));
        assertThat(new BuiltProgram(project)
                        .run("adopt", "../contract/desk.wsdl", "--name", "desk")
                        .status())
                .isZero();
    }

    private static void copy(Path from, Path to) throws IOException {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.toList()) {
                Path copy = to.resolve(from.relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(copy);
                } else {
                    Files.copy(file, copy);
                }
            }
        }
    }

    @BeforeEach
    void layOut() throws Exception {
        copy(laidOut, home);
        folder = home.resolve("project");
        treasure = Files.createDirectory(home.resolve("treasure"));
        Files.writeString(treasure.resolve("gold.txt"), "gold");
        program = new BuiltProgram(folder);
    }

    /** Everything on the disk around the project. */
    private Map<String, String> outside() {
        Map<String, String> all = new TreeMap<>();
        for (Path root : new Path[] {treasure, home.resolve("contract")}) {
            try (Stream<Path> files = Files.walk(root)) {
                files.filter(Files::isRegularFile).forEach(file -> {
                    try {
                        all.put(file.toString(), Files.readString(file));
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                });
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return all;
    }

    private void replace(String file, String before, String after) throws IOException {
        Path path = folder.resolve(file);
        String text = Files.readString(path);
        assertThat(text).contains(before);
        Files.writeString(path, text.replace(before, after));
    }

    /** Runs what people type first, and sees that nothing outside has changed. */
    private void harmless(String... more) throws Exception {
        Map<String, String> before = outside();
        for (String[] command : new String[][] {
            {"show", "desk"},
            {"check", "desk"},
            {"completion", "bash"},
            {"generate"},
            {"refresh", "--accept", "breaking"}
        }) {
            BuiltProgram.Run run = program.run(command);
            assertThat(run.err()).doesNotContain("mistake in protypos");
            assertThat(run.status()).isBetween(0, 4);
        }
        assertThat(outside()).isEqualTo(before);
        for (String text : more) {
            try (Stream<Path> files = Files.walk(folder)) {
                assertThat(files.filter(file -> file.toString().endsWith(".java"))
                                .filter(file -> {
                                    try {
                                        return Files.readString(file).contains(text);
                                    } catch (IOException e) {
                                        throw new UncheckedIOException(e);
                                    }
                                }))
                        .isEmpty();
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"../treasure/gold.txt", "../../treasure/gold.txt", "link/gold.txt"})
    void theListOfAnInterruptedRun(String path) throws Exception {
        Path work = Files.createDirectories(folder.resolve(".protypos-work"));
        Files.createSymbolicLink(folder.resolve("link"), treasure);
        Files.writeString(work.resolve(".complete"), path + "\n");
        assertThat(program.run("completion", "bash").status()).isZero();
        assertThat(program.run("check", "desk").status()).isZero();
        harmless();
        String hash = "6b7f7c41dd7e2a1b9c7b9c8a36c9d35f49d6d8a4e53f35dd1d0ecb8cb9a2f7e1";
        Files.createDirectories(work);
        Files.writeString(work.resolve(".complete"), hash + " - " + path + "\n");
        harmless();
        assertThat(treasure.resolve("gold.txt")).hasContent("gold");
    }

    /** Who only reads finishes nothing. */
    @Test
    void readingRecoversNothing() throws Exception {
        Path work = Files.createDirectories(folder.resolve(".protypos-work"));
        Files.writeString(work.resolve("more.txt"), "more");
        String list = "- 187897ce0afcf20b50ba2b37dca84a951b7046f29ed5ab94f010619f69d6e189 more.txt\n";
        Files.writeString(work.resolve(".complete"), list);
        assertThat(program.run("show", "desk").status()).isZero();
        assertThat(program.run("completion", "bash").status()).isZero();
        assertThat(program.run("generate", "--preview").status()).isZero();
        assertThat(work.resolve(".complete")).hasContent(list);
        assertThat(folder.resolve("more.txt")).doesNotExist();
        assertThat(program.run("generate").status()).isZero();
        assertThat(folder.resolve("more.txt")).hasContent("more");
        assertThat(work).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "\"desk.wsdl\" | \"../../../treasure/gold.txt\"",
                "\"desk.wsdl\" | \"/etc/hostname\"",
                "\"documents\" : [ | \"documents\" : null, \"x\" : [",
                "\"documents\" : [ | \"documents\" : [ null, ",
                "\"documents\" : [ | \"other\" : {}, \"documents\" : [",
                "\"entry\" : true | \"entry\" : false",
                "{ | [",
            })
    void aLockFileThatNobodyOfUsWrote(String before, String after) throws Exception {
        assertThat(program.run("generate").status()).isZero();
        int files = count();
        replace("contracts/desk/protypos.lock.json", before, after);
        harmless();
        assertThat(count()).as("the code is still there").isGreaterThanOrEqualTo(files);
    }

    private int count() throws IOException {
        try (Stream<Path> files = Files.walk(folder.resolve("generated"))) {
            return (int) files.count();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"Evil { static { int evil; } }", "evil;", "", "class", "../Evil", "a.b"})
    void namesThatAreNone(String name) throws Exception {
        assertThat(program.run("generate").status()).isZero();
        String lock = Files.readString(folder.resolve("contracts/desk/protypos.lock.json"));
        assertThat(lock).contains(": \"Vessel\"");
        Files.writeString(
                folder.resolve("contracts/desk/protypos.lock.json"),
                lock.replace(": \"Vessel\"", ": \"" + name + "\""));
        BuiltProgram.Run run = program.run("generate");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.err()).contains("kept-name");
        harmless("int evil;", "evil;");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "package: \"a; class Evil { int evil; }\"",
                "package: class",
                "package: a..b",
                "into: ../treasure",
                "into: /tmp/treasure",
                "into: link",
                "into: link/deeper",
                "scaffold: link",
                "folder: ../treasure",
                "folder: link",
                "rules: [../treasure]",
                "produce: [[types]]",
            })
    void aProjectFileThatLeadsElsewhere(String line) throws Exception {
        Files.createSymbolicLink(folder.resolve("link"), treasure);
        Files.writeString(
                folder.resolve("protypos.yaml"), "contracts:\n  desk:\n    into: generated\n    " + line + "\n");
        BuiltProgram.Run run = program.run("generate");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.err()).isNotBlank();
        harmless("int evil;");
    }

    @Test
    void filesThatAreTooDeepOrNeverEnd() throws Exception {
        for (String deep : new String[] {"[".repeat(20_000), "a: " + "{b: ".repeat(20_000), "- ".repeat(20_000)}) {
            Files.writeString(folder.resolve("protypos.yaml"), deep);
            harmless();
            Files.writeString(folder.resolve("deep.yaml"), deep);
            BuiltProgram.Run run = program.run("show", "../contract/desk.wsdl", "--rules", "deep.yaml");
            assertThat(run.status()).isEqualTo(1);
            assertThat(run.err()).contains("deep.yaml:1:").doesNotContain("mistake");
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "call --saved ../../treasure/gold | a name is of letters",
                "call ../contract/desk.wsdl payDues --header Host:x | written by HTTP itself",
                "call ../contract/desk.wsdl payDues --header 'a b:x' | no name for an HTTP header",
                "call ../contract/desk.wsdl payDues --header a:\u20ac | no HTTP header can have",
                "call ../contract/desk.wsdl payDues --timeout -5 | less than 1",
                "call ../contract/desk.wsdl payDues --address ftp://a/b | neither http",
                "call ../contract/desk.wsdl payDues --address http:///x | ",
                "call ../contract/desk.wsdl payDues --repeat 0 | less than 1",
                "stand-in ../contract/desk.wsdl --port 70000 | more than 65535",
                "stand-in ../contract/desk.wsdl --forward file:///etc | neither http",
                "generate ../contract/desk.wsdl --package class | no package name in Java",
                "generate ../contract/desk.wsdl --package 'a; class B {}' | no package name in Java",
            })
    void argumentsOutOfRange(String line, String says) throws Exception {
        String[] arguments = Stream.of(line.split(" (?=(?:[^']*'[^']*')*[^']*$)"))
                .map(one -> one.replace("'", ""))
                .toArray(String[]::new);
        BuiltProgram.Run run = program.run(arguments);
        assertThat(run.err()).contains(says == null ? "" : says).doesNotContain("mistake");
        assertThat(run.status()).isEqualTo(2);
        assertThat(outside()).hasSize(4);
    }
}
