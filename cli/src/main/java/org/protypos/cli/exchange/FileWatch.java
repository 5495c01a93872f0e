package org.protypos.cli.exchange;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Tells which files have become others. One that is still being written is told when it has been the same for a while. */
final class FileWatch {
    private final Map<Path, String> known = new LinkedHashMap<>();
    private final Map<Path, String> seen = new LinkedHashMap<>();

    /** Looks at more files from now on; what they are like now is how they were. */
    void add(Collection<Path> files) {
        files.forEach(file -> known.computeIfAbsent(file, FileWatch::stamp));
    }

    /** The files that are not what they were when this was last asked, in the order in which they were added. */
    List<Path> changed() {
        List<Path> changed = new ArrayList<>();
        known.replaceAll((file, before) -> {
            String now = stamp(file);
            if (now.equals(before) || !now.equals(seen.put(file, now))) {
                return before;
            }
            changed.add(file);
            return now;
        });
        return changed;
    }

    private static String stamp(Path file) {
        try {
            return Files.getLastModifiedTime(file) + " " + Files.size(file);
        } catch (IOException e) {
            return "gone";
        }
    }
}
