package org.protypos.generator;

import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.output.Checksum;
import org.protypos.output.OutputFolder;
import org.protypos.output.WholeFile;
import org.protypos.output.WriteReport;
import org.protypos.project.AdoptedContract;
import org.protypos.project.PinnedDocument;
import org.protypos.project.Project;

/**
 * Remembers, outside of the project, from what the code of a contract was made last: as long as all of that is the same,
 * and the code is as it was written, there is nothing to generate. Losing the memory costs a run, no more.
 */
final class LastRun {
    private final AdoptedContract contract;
    private final Path memory;

    LastRun(AdoptedContract contract) {
        this.contract = contract;
        String cache = System.getenv("XDG_CACHE_HOME");
        Path home =
                cache == null || cache.isBlank() ? Path.of(System.getProperty("user.home"), ".cache") : Path.of(cache);
        this.memory = home.resolve("protypos").resolve(Checksum.of(project().getBytes(StandardCharsets.UTF_8)));
    }

    /** What a run would tell that writes the same again, or null when something may be otherwise. */
    WriteReport same() {
        try {
            String known = Files.readString(memory);
            return known.equals(fingerprint())
                    ? OutputFolder.asWritten(
                            contract.project()
                                    .root()
                                    .resolve(contract.settings().into()),
                            contract.owner())
                    : null;
        } catch (IOException e) {
            return null;
        }
    }

    /** Remembers that the code is now what would be generated. */
    void remember() {
        try {
            Files.createDirectories(memory.getParent());
            WholeFile.write(memory, fingerprint());
        } catch (IOException e) {
            // A memory that cannot be written is a slower run next time.
        }
    }

    /** What all is that the code depends on, a line each: the tool, what is asked for, documents, names, rules. */
    private String fingerprint() throws IOException {
        Path root = contract.project().root();
        Path folder = root.resolve(contract.settings().folder());
        List<Path> files = new ArrayList<>(List.of(root.resolve(Project.FILE), folder.resolve("protypos.lock.json")));
        for (PinnedDocument document :
                contract.project().pinned(contract.settings().name()).documents()) {
            files.add(folder.resolve(document.path()));
        }
        files.addAll(contract.rules());
        StringBuilder lines =
                new StringBuilder(tool()).append('\n').append(project()).append('\n');
        for (Path file : files) {
            byte[] bytes = Files.readAllBytes(file);
            lines.append(Checksum.of(bytes)).append(' ').append(bytes.length).append('\n');
        }
        return lines.toString();
    }

    private String project() {
        return contract.project().root() + " " + contract.owner();
    }

    /** Which program this is: its bytes are many, and another build of it is another file. */
    private static String tool() throws IOException {
        try {
            Path home = Path.of(LastRun.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            if (!Files.isRegularFile(home)) {
                throw new IOException("classes that lie in a folder may change one by one");
            }
            return Version.current() + " " + home + " " + Files.size(home) + " " + Files.getLastModifiedTime(home);
        } catch (URISyntaxException e) {
            throw new IOException(e);
        }
    }
}
