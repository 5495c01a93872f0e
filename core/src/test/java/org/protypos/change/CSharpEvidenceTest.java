package org.protypos.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.target.Targets;
import org.protypos.testing.CSharp;

/**
 * Random edits of a contract: C# that uses everything that was generated from the old one is compiled against what is generated from the
 * new one, and what is told is what the compiler says.
 */
class CSharpEvidenceTest {
    private static final Path YARD = EditedYard.YARD;
    private static final int EDITS = Integer.getInteger("csharp.edits", 10);

    @TempDir
    private Path folder;

    @BeforeEach
    void needsCompiler() {
        CSharp.assumed();
    }

    private static PlannedContract plan(Path folder) {
        return Generator.of(List.of(folder.resolve("yard.wsdl").toString()))
                .target(Targets.named("csharp"))
                .plan();
    }

    @Test
    void whatIsToldIsWhatTheCompilerSays() throws Exception {
        PlannedContract before = plan(YARD);
        Path old = Files.createDirectories(folder.resolve("old"));
        CSharp.library(YARD.resolve("yard.wsdl"), null, old);
        Path usage = folder.resolve("usage.exe");
        CSharp.compile(List.of(YARD.resolve("Usage.cs")), "exe", usage, List.of());
        Files.copy(CSharp.runtime(), old.resolve(CSharp.runtime().getFileName()));
        Path calling = folder.resolve("Calling.cs");
        Path implementing = folder.resolve("Implementing.cs");
        List<String> written = List.of(
                "mono",
                usage.toString(),
                old.resolve("contract.dll").toString(),
                calling.toString(),
                implementing.toString());
        assertThat(CSharp.run(written, folder)).isEmpty();
        assertThat(errors(calling, old)).isEmpty();
        assertThat(errors(implementing, old)).isEmpty();
        EditedYard.Outcome outcome =
                EditedYard.judged(EDITS, Long.getLong("csharp.seed", 11), folder, (edited, edit) -> {
                    PlannedContract after = plan(edited);
                    if (!after.isSound()) {
                        return null;
                    }
                    CSharp.library(edited.resolve("yard.wsdl"), null, edited);
                    return new EditedYard.Verdict(
                            Comparison.of(before.contract(), after.contract(), before.surface(), after.surface())
                                    .differences(),
                            errors(calling, edited),
                            errors(implementing, edited));
                });
        assertThat(outcome.faults())
                .as("%d of %d break", outcome.breaking(), EDITS)
                .isEmpty();
        assertThat(outcome.breaking()).isGreaterThan(1);
    }

    /** The errors of the compiler when source is compiled against the code in a folder. */
    private static String errors(Path source, Path code) throws IOException {
        String said = CSharp.run(
                List.of(
                        "mcs",
                        "-nowarn:0219",
                        "-r:System.Core,System.Numerics,System.Xml,System.Xml.Linq,System.Net.Http",
                        "-r:" + code.resolve("contract.dll"),
                        "-r:" + CSharp.runtime().toAbsolutePath(),
                        "-target:library",
                        "-out:" + code.resolve("used.dll"),
                        source.toString()),
                Path.of("."));
        return said.lines()
                .filter(line -> line.contains("error"))
                .limit(3)
                .reduce("", (all, line) -> all + line + "\n");
    }
}
