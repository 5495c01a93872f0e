package org.protypos.target.java;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.output.OutputFolder;
import org.protypos.target.SourceFile;
import org.protypos.target.java.text.EmbeddedRuntime;
import org.protypos.testing.Generated;

/** The runtime that is written beside generated code is the whole runtime, and stands on its own. */
class EmbeddedRuntimeTest {
    private static final Path RUNTIME = Path.of("../runtime/src/main/java/org/protypos/runtime");

    @Test
    void everyFileOfTheRuntimeIsWritten() throws IOException {
        Set<String> embedded = EmbeddedRuntime.files("harbour.runtime", true, true).stream()
                .map(SourceFile::path)
                .collect(Collectors.toCollection(TreeSet::new));
        try (Stream<Path> files = Files.walk(RUNTIME)) {
            Set<String> sources = files.filter(Files::isRegularFile)
                    .map(file -> "harbour/runtime/"
                            + RUNTIME.relativize(file).toString().replace('\\', '/'))
                    .collect(Collectors.toCollection(TreeSet::new));
            assertThat(embedded).isEqualTo(sources);
        }
    }

    @Test
    void itIsMovedIntoItsNewPackageAndCompilesWithoutTheRest(@TempDir Path folder) throws IOException {
        for (boolean soap : new boolean[] {false, true}) {
            List<SourceFile> files = EmbeddedRuntime.files("deep.harbour.runtime", soap, false);
            assertThat(files).noneMatch(file -> file.text().contains("org.protypos"));
            Path home = folder.resolve(String.valueOf(soap));
            OutputFolder.write(home.resolve("sources"), files, false, false);
            Path classes = Files.createDirectories(home.resolve("classes"));
            assertThat(Generated.compile(home.resolve("sources"), classes)).isEmpty();
            assertThat(home.resolve("classes/deep/harbour/runtime/soap")
                            .toFile()
                            .exists())
                    .isEqualTo(soap);
        }
    }
}
