package org.protypos.output;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Setting;
import org.protypos.target.SourceFile;

/** Writes files that are the reader's own from then on: no ledger is kept of them. */
public final class LooseFiles {
    private LooseFiles() {}

    /**
     * Writes files side by side into a folder, all or none.
     *
     * @param folder the folder; it is made if it is not there
     * @param files the files, each a plain name
     * @param overwrite whether files that are there with other content are replaced
     * @throws IOException when the folder cannot be read or written
     */
    public static WriteReport write(Path folder, List<SourceFile> files, boolean overwrite) throws IOException {
        Map<String, byte[]> bytes = new LinkedHashMap<>();
        files.forEach(file -> bytes.put(file.path(), file.text().getBytes(StandardCharsets.UTF_8)));
        return write(folder, bytes, overwrite);
    }

    /** Writes files of any kind, by their paths below the folder, likewise. */
    public static WriteReport write(Path folder, Map<String, byte[]> files, boolean overwrite) throws IOException {
        if (Files.exists(folder) && !Files.isDirectory(folder)) {
            throw new IOException(folder + " is a file, not a folder");
        }
        Findings findings = new Findings();
        List<String> added = new ArrayList<>();
        List<String> changed = new ArrayList<>();
        List<String> kept = new ArrayList<>();
        try (Staging staging = Staging.into(folder)) {
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                byte[] bytes = file.getValue();
                Path path = folder.resolve(file.getKey());
                if (!Files.exists(path)) {
                    added.add(file.getKey());
                } else if (Arrays.equals(Files.readAllBytes(path), bytes)) {
                    kept.add(file.getKey());
                    continue;
                } else if (overwrite) {
                    changed.add(file.getKey());
                } else {
                    findings.error(
                            "already-there",
                            null,
                            path + " is already there with other content",
                            "name another folder with " + Setting.INTO + ", or add " + Setting.OVERWRITE);
                    continue;
                }
                staging.write(file.getKey(), bytes);
            }
            if (!findings.hasErrors() && !(added.isEmpty() && changed.isEmpty())) {
                staging.commit(List.of());
            }
        }
        return new WriteReport(added, changed, kept, List.of(), Map.of(), findings.sorted());
    }
}
