package org.protypos.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.io.StringWriter;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Publication;
import org.protypos.output.OutputFolder;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;
import org.protypos.target.classes.Plan;
import org.protypos.target.java.JavaSurface;
import org.protypos.testing.Plans;
import org.protypos.testing.Usage;

/**
 * Random edits of a contract: source that uses everything that was generated from the old one is compiled against what is generated from
 * the new one, and what is told is what the compiler says.
 */
class CodeEvidenceTest {
    private static final Path YARD = EditedYard.YARD;
    private static final int EDITS = Integer.getInteger("code.edits", 30);

    private static Contract read(Path folder) {
        return ContractReader.read(
                DocumentGatherer.gather(List.of(folder.resolve("yard.wsdl").toString()), null));
    }

    private static Plan plan(Contract contract) {
        return Plans.of(contract);
    }

    @Test
    void whatIsToldIsWhatTheCompilerSays(@TempDir Path folder) throws Exception {
        Contract before = read(YARD);
        Path old = sources(before, folder.resolve("old"));
        Path classes = Files.createDirectories(folder.resolve("old-classes"));
        assertThat(compile(List.of(old), classes, List.of())).isEmpty();
        String calling;
        String implementing;
        try (URLClassLoader loader =
                new URLClassLoader(new URL[] {classes.toUri().toURL()}, CodeEvidenceTest.class.getClassLoader())) {
            List<Class<?>> all = load(classes, loader);
            calling = Usage.calling(all);
            implementing = Usage.implementing(all);
        }
        Path caller =
                Files.writeString(Files.createDirectories(folder.resolve("c")).resolve("Calling.java"), calling);
        Path server = Files.writeString(
                Files.createDirectories(folder.resolve("i")).resolve("Implementing.java"), implementing);
        assertThat(compile(List.of(caller, server), folder.resolve("c"), List.of(classes)))
                .isEmpty();
        EditedYard.Outcome outcome = EditedYard.judged(EDITS, Long.getLong("code.seed", 5), folder, (edited, edit) -> {
            Contract after = read(edited);
            if (!after.isSound()) {
                return null;
            }
            Path now = sources(after, edited.resolve("code"));
            Path compiled = Files.createDirectories(edited.resolve("classes"));
            assertThat(compile(List.of(now), compiled, List.of())).as(edit).isEmpty();
            return new EditedYard.Verdict(
                    Comparison.of(before, after, JavaSurface.of(plan(before)), JavaSurface.of(plan(after)))
                            .differences(),
                    compile(List.of(caller), edited, List.of(compiled)),
                    compile(List.of(server), edited, List.of(compiled)));
        });
        assertThat(outcome.faults())
                .as("%d of %d break", outcome.breaking(), EDITS)
                .isEmpty();
        assertThat(outcome.breaking()).isGreaterThan(EDITS / 4);
    }

    private static Path sources(Contract contract, Path folder) throws IOException {
        Set<Product> all = EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
        OutputFolder.write(folder, Plans.code(contract).emit(all, false, () -> Publication.of(contract)), false, false);
        return folder;
    }

    private static List<Class<?>> load(Path classes, ClassLoader loader) throws Exception {
        List<Class<?>> all = new ArrayList<>();
        try (Stream<Path> files = Files.walk(classes)) {
            for (Path file : files.filter(path -> path.toString().matches("[^$]*\\.class"))
                    .sorted()
                    .toList()) {
                String name =
                        classes.relativize(file).toString().replace('/', '.').replaceFirst("\\.class$", "");
                all.add(loader.loadClass(name));
            }
        }
        return all;
    }

    /** The errors of the compiler; there are none when it compiles. */
    private static String compile(List<Path> sources, Path classes, List<Path> with) throws IOException {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        StringWriter messages = new StringWriter();
        List<Path> files = new ArrayList<>();
        for (Path source : sources) {
            try (Stream<Path> found = Files.walk(source)) {
                found.filter(file -> file.toString().endsWith(".java")).forEach(files::add);
            }
        }
        String path = System.getProperty("java.class.path");
        for (Path one : with) {
            path = one + File.pathSeparator + path;
        }
        try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8)) {
            boolean fine = compiler.getTask(
                            messages,
                            manager,
                            null,
                            List.of("-proc:none", "-nowarn", "-cp", path, "-d", classes.toString()),
                            null,
                            manager.getJavaFileObjectsFromPaths(files))
                    .call();
            return fine ? "" : messages.toString();
        }
    }
}
