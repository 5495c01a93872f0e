package org.protypos.output;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.source.FileHash;
import org.protypos.target.SourceFile;

/** What a run does to a folder, and what it must leave alone. */
class OutputFolderTest {
    private static final FileTime OLD = FileTime.fromMillis(1_000_000_000_000L);

    @TempDir
    private Path home;

    private WriteReport write(SourceFile... files) throws IOException {
        return OutputFolder.write(home.resolve("out"), List.of(files), false, false);
    }

    private static SourceFile file(String path, String text) {
        return new SourceFile(path, text);
    }

    private Map<String, String> content() throws IOException {
        Map<String, String> content = new TreeMap<>();
        Path out = home.resolve("out");
        try (Stream<Path> files = Files.walk(out)) {
            for (Path path : files.filter(Files::isRegularFile).toList()) {
                if (!path.endsWith(Ledger.FILE)) {
                    content.put(out.relativize(path).toString(), Files.readString(path));
                }
            }
        }
        return content;
    }

    @Test
    void onlyWhatChangedIsWrittenAndOnlyOursIsRemoved() throws IOException {
        assertThat(write(file("a/A.java", "1"), file("a/B.java", "2"), file("c/C.java", "3"))
                        .added())
                .hasSize(3);
        Files.writeString(home.resolve("out/a/Mine.java"), "mine");
        for (String path : List.of("a/A.java", "a/B.java", Ledger.FILE)) {
            Files.setLastModifiedTime(home.resolve("out").resolve(path), OLD);
        }
        WriteReport same = write(file("a/A.java", "1"), file("a/B.java", "2"), file("c/C.java", "3"));
        assertThat(same.kept()).hasSize(3);
        assertThat(Files.getLastModifiedTime(home.resolve("out/a/A.java"))).isEqualTo(OLD);
        assertThat(Files.getLastModifiedTime(home.resolve("out").resolve(Ledger.FILE)))
                .isEqualTo(OLD);

        WriteReport report = write(file("a/A.java", "1"), file("a/B.java", "changed"), file("d/D.java", "4"));
        assertThat(report.added()).containsExactly("d/D.java");
        assertThat(report.changed()).containsExactly("a/B.java");
        assertThat(report.removed()).containsExactly("c/C.java");
        assertThat(Files.getLastModifiedTime(home.resolve("out/a/A.java"))).isEqualTo(OLD);
        assertThat(home.resolve("out/c")).doesNotExist();
        assertThat(content())
                .isEqualTo(Map.of("a/A.java", "1", "a/B.java", "changed", "a/Mine.java", "mine", "d/D.java", "4"));
        assertThat(home)
                .isDirectoryContaining(path -> path.endsWith("out"))
                .isDirectoryNotContaining(path -> path.getFileName().toString().contains("work"));
    }

    /** Runs at one time come one after another: what is left is of one of them, and of all that list it. */
    @Test
    void runsAtOneTimeDoNotMix() throws Exception {
        List<Callable<WriteReport>> runs = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            String text = "run " + i;
            runs.add(() -> write(file("A.java", text), file("d/B.java", text), file(text + ".java", text)));
        }
        ExecutorService threads = Executors.newFixedThreadPool(runs.size());
        try {
            for (Future<WriteReport> run : threads.invokeAll(runs)) {
                assertThat(run.get().findings()).isEmpty();
            }
        } finally {
            threads.shutdownNow();
        }
        Map<String, String> content = content();
        String last = content.get("A.java");
        assertThat(content).isEqualTo(Map.of("A.java", last, "d/B.java", last, last + ".java", last));
        assertThat(Ledger.read(home.resolve("out")).files("")).containsOnlyKeys(content.keySet());
        assertThat(home).isDirectoryNotContaining("glob:**lock");
    }

    @Test
    void aForeignOrEditedFileStopsEverything() throws IOException {
        write(file("A.java", "1"), file("B.java", "2"));
        Files.writeString(home.resolve("out/C.java"), "mine");
        Files.writeString(home.resolve("out/B.java"), "edited");
        WriteReport report = write(file("A.java", "new"), file("B.java", "new"), file("C.java", "new"));
        assertThat(report.findings()).extracting("code").containsExactlyInAnyOrder("not-ours", "edited-by-hand");
        assertThat(content()).isEqualTo(Map.of("A.java", "1", "B.java", "edited", "C.java", "mine"));

        WriteReport stale = write(file("A.java", "1"));
        assertThat(stale.findings()).extracting("code").containsExactly("edited-by-hand");
        assertThat(content()).containsEntry("B.java", "edited");
    }

    @Test
    void overwriteReplacesEditedFilesButNotForeignOnes() throws IOException {
        write(file("A.java", "1"));
        Files.writeString(home.resolve("out/A.java"), "edited");
        List<SourceFile> files = List.of(file("A.java", "new"));
        assertThat(OutputFolder.write(home.resolve("out"), files, false, true).changed())
                .containsExactly("A.java");
        assertThat(content()).isEqualTo(Map.of("A.java", "new"));
    }

    @Test
    void previewWritesNothing() throws IOException {
        WriteReport report = OutputFolder.write(home.resolve("out"), List.of(file("A.java", "1")), true, false);
        assertThat(report.added()).containsExactly("A.java");
        assertThat(home).isEmptyDirectory();
    }

    @Test
    void whatAnInterruptedRunLeftIsFinishedOrForgotten() throws IOException {
        write(file("A.java", "1"), file("B.java", "2"));
        Path work = Files.createDirectories(home.resolve("out/.protypos-work/d"));
        Files.writeString(work.resolve("D.java"), "half");
        write(file("A.java", "1"), file("B.java", "2"));
        assertThat(content()).isEqualTo(Map.of("A.java", "1", "B.java", "2"));

        Files.createDirectories(work);
        Files.writeString(work.resolve("D.java"), "whole");
        Ledger after = Ledger.read(home.resolve("nowhere"))
                .with(
                        "",
                        Map.of(
                                "A.java",
                                Ledger.read(home.resolve("out")).files("").get("A.java")));
        Path ledger = home.resolve("out").resolve(Ledger.FILE);
        Files.write(home.resolve("out/.protypos-work").resolve(Ledger.FILE), after.bytes());
        String before = FileHash.of(Files.readAllBytes(ledger));
        Files.writeString(
                home.resolve("out/.protypos-work/.complete"),
                hash("2") + " - B.java\n- " + hash("whole") + " d/D.java\n" + before + " " + FileHash.of(after.bytes())
                        + " " + Ledger.FILE + "\n");
        Staging.into(home.resolve("out")).close();
        assertThat(content()).isEqualTo(Map.of("A.java", "1", "d/D.java", "whole"));
        assertThat(Ledger.read(home.resolve("out")).files("")).containsOnlyKeys("A.java");
    }

    /** Ledgers of earlier versions hashed files with SHA-256: what nobody has edited since is known by that. */
    @Test
    void whatEarlierVersionsWroteIsKnown() throws IOException {
        write(file("A.java", "1"), file("B.java", "2"));
        Path ledger = home.resolve("out").resolve(Ledger.FILE);
        String now = Files.readString(ledger);
        Files.writeString(ledger, now.replace(checksum("1"), hash("1")).replace(checksum("2"), hash("2")));
        assertThat(Files.readString(ledger)).isNotEqualTo(now);
        Files.writeString(home.resolve("out/B.java"), "edited");
        WriteReport edited = write(file("A.java", "1"), file("B.java", "new"));
        assertThat(edited.findings()).extracting("code").containsExactly("edited-by-hand");
        assertThat(OutputFolder.asWritten(home.resolve("out"), "")).isNull();
        Files.writeString(home.resolve("out/B.java"), "2");
        assertThat(OutputFolder.asWritten(home.resolve("out"), "")).isNotNull();
        assertThat(write(file("A.java", "1"), file("B.java", "2")).kept()).hasSize(2);
        assertThat(Files.readString(ledger)).isEqualTo(now);
    }

    /** The check values that the catalogues of such checks give for the nine digits. */
    @Test
    void checksumsAreThoseOfTheStandards() {
        assertThat(checksum("123456789")).isEqualTo("e3069283cbf43926");
        assertThat(checksum("")).isEqualTo("0000000000000000");
    }

    private static String checksum(String content) {
        return Checksum.of(content.getBytes(StandardCharsets.UTF_8));
    }

    private static String hash(String content) {
        return FileHash.of(content.getBytes(StandardCharsets.UTF_8));
    }

    /** What somebody has written since a run was broken off is theirs. */
    @Test
    void editsAfterARunThatWasBrokenOffStay() throws IOException {
        write(file("A.java", "1"), file("B.java", "2"), file("C.java", "3"));
        Path work = Files.createDirectories(home.resolve("out/.protypos-work"));
        Files.writeString(work.resolve("A.java"), "new");
        Files.writeString(work.resolve("C.java"), "new");
        Files.writeString(
                work.resolve(".complete"),
                hash("1") + " " + hash("new") + " A.java\n" + hash("2") + " - B.java\n" + hash("3") + " " + hash("new")
                        + " C.java\n");
        Files.writeString(home.resolve("out/A.java"), "mine");
        Files.writeString(home.resolve("out/B.java"), "mine too");
        try (Staging staging = Staging.into(home.resolve("out"))) {
            assertThat(staging.left()).containsExactly("A.java", "B.java");
        }
        assertThat(content()).isEqualTo(Map.of("A.java", "mine", "B.java", "mine too", "C.java", "new"));
        assertThat(home.resolve("out/.protypos-work")).doesNotExist();
    }

    /** A list that no run of ours can have left is not obeyed, not in one line. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../outside/B.java",
                "d/../../outside/B.java",
                "/tmp/B.java",
                "link/B.java",
                "C:/B.java",
                "..\\outside\\B.java",
                "d//B.java",
                "\u0000",
                "",
                "~/B.java"
            })
    void aListThatIsNoneOfOursIsRefused(String path) throws IOException {
        Path outside = Files.createDirectory(home.resolve("outside"));
        Files.writeString(outside.resolve("B.java"), "2");
        write(file("A.java", "1"));
        Files.createSymbolicLink(home.resolve("out/link"), outside);
        Path work = Files.createDirectories(home.resolve("out/.protypos-work"));
        Files.writeString(work.resolve("A.java"), "new");
        Files.writeString(
                work.resolve(".complete"),
                hash("1") + " " + hash("new") + " A.java\n" + hash("2") + " - " + path + "\n");
        assertThatThrownBy(() -> Staging.into(home.resolve("out"))).hasMessageContaining("is not believed");
        assertThat(outside.resolve("B.java")).hasContent("2");
        assertThat(home.resolve("out/A.java")).hasContent("1");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"files\": {\"../outside/B.java\": \"%s\"}}",
                "{\"files\": {\"link/B.java\": \"%s\"}}",
                "{\"files\": {\"A.java\": [\"%s\"]}}",
                "{\"contracts\": {\"desk\": null}}",
                "{\"files\": {",
            })
    void aLedgerThatIsNoneOfOursIsRefused(String ledger) throws IOException {
        Path outside = Files.createDirectory(home.resolve("outside"));
        Files.writeString(outside.resolve("B.java"), "2");
        write(file("A.java", "1"));
        Files.createSymbolicLink(home.resolve("out/link"), outside);
        Files.writeString(home.resolve("out").resolve(Ledger.FILE), ledger.formatted(hash("2")));
        assertThatThrownBy(() -> write(file("A.java", "1"))).isInstanceOf(IOException.class);
        assertThat(outside.resolve("B.java")).hasContent("2");
        assertThat(home.resolve("out/A.java")).hasContent("1");
    }

    @Test
    void nothingIsWrittenOutsideTheFolder() throws IOException {
        Path outside = Files.createDirectory(home.resolve("outside"));
        assertThatThrownBy(() -> write(file("../outside/A.java", "1"))).hasMessageContaining("outside");
        Files.createDirectory(home.resolve("out"));
        Files.createSymbolicLink(home.resolve("out/link"), outside);
        assertThatThrownBy(() -> write(file("link/A.java", "1"))).isInstanceOf(IOException.class);
        assertThat(outside).isEmptyDirectory();
    }

    /** Whoever may read or write a file may do so when it has other content, and what nobody may write stays. */
    @Test
    void filesKeepTheirPermissions(@TempDir Path folder) throws IOException {
        assumeTrue(FileSystems.getDefault().supportedFileAttributeViews().contains("posix"));
        Path file = Files.writeString(folder.resolve("rules.yaml"), "old");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r-----"));
        WholeFile.write(file, "new");
        assertThat(file).hasContent("new");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-r-----");
        Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("r--r--r--"));
        assertThatThrownBy(() -> WholeFile.write(file, "newer")).isInstanceOf(AccessDeniedException.class);
        assertThat(file).hasContent("new");
        assertThat(folder).isDirectoryNotContaining("glob:**.part");
    }
}
