package org.protypos.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.target.Targets;
import org.protypos.testing.CSharp;
import org.protypos.testing.RandomEdit;

/**
 * Random edits of a contract: C# that uses everything that was generated from the old one is compiled against what is generated from the
 * new one, and what is told is what the compiler says.
 */
class CSharpEvidenceTest {
    private static final Path YARD = Path.of("src/test/resources/change");
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
        String original = Files.readString(YARD.resolve("yard.xsd"));
        Random chance = new Random(Long.getLong("csharp.seed", 11));
        List<String> faults = new ArrayList<>();
        int breaking = 0;
        for (int judged = 0; judged < EDITS; ) {
            RandomEdit.Edited edit = RandomEdit.of(original, chance);
            Path edited = Files.createDirectories(folder.resolve("e" + judged));
            Files.copy(YARD.resolve("yard.wsdl"), edited.resolve("yard.wsdl"), StandardCopyOption.REPLACE_EXISTING);
            Files.writeString(edited.resolve("yard.xsd"), edit.document());
            PlannedContract after = plan(edited);
            if (!after.isSound()) {
                continue;
            }
            judged++;
            Set<Reader> breaks = EnumSet.noneOf(Reader.class);
            Comparison.of(before.contract(), after.contract(), before.surface(), after.surface())
                    .differences()
                    .forEach(difference -> breaks.addAll(difference.breaks()));
            breaks.retainAll(EnumSet.of(Reader.CLIENT_CODE, Reader.SERVER_CODE));
            CSharp.library(edited.resolve("yard.wsdl"), null, edited);
            Set<Reader> seen = EnumSet.noneOf(Reader.class);
            String called = errors(calling, edited);
            String implemented = errors(implementing, edited);
            if (!called.isEmpty()) {
                seen.add(Reader.CLIENT_CODE);
            }
            if (!implemented.isEmpty()) {
                seen.add(Reader.SERVER_CODE);
            }
            breaking += seen.isEmpty() ? 0 : 1;
            if (!breaks.equals(seen)) {
                faults.add(edit.told() + ": told " + breaks + ", seen " + seen + "\n" + called + implemented);
            }
        }
        assertThat(faults).as("%d of %d break", breaking, EDITS).isEmpty();
        assertThat(breaking).isGreaterThan(1);
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
