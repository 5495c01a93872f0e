package org.protypos.target;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders that nobody keeps: for code that is compiled, for what is read before it is written to where it belongs. */
public final class ToolchainFolder {
    private ToolchainFolder() {}

    /** Deletes a folder with all that is in it. */
    public static void delete(Path folder) throws IOException {
        try (Stream<Path> found = Files.walk(folder)) {
            for (Path path : found.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(path);
            }
        }
    }
}
