package org.protypos.output;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Setting;
import org.protypos.target.SourceFile;

/** Brings a folder in line with a set of files, by the fewest writes. The door of this package. */
public final class OutputFolder {
    private final Path folder;
    private final Findings findings = new Findings();
    private final List<String> added = new ArrayList<>();
    private final List<String> changed = new ArrayList<>();
    private final List<String> kept = new ArrayList<>();
    private final List<String> removed = new ArrayList<>();
    private final Map<String, List<String>> edits = new LinkedHashMap<>();
    private final Map<String, byte[]> writes = new LinkedHashMap<>();
    private final Map<String, String> checksums = new TreeMap<>();

    private final String owner;

    private OutputFolder(Path folder, String owner) {
        this.folder = folder;
        this.owner = owner;
    }

    /** Writes files of a contract that is none of a project, as {@link #write(Path, String, List, boolean, boolean)} does. */
    public static WriteReport write(Path folder, List<SourceFile> files, boolean preview, boolean overwrite)
            throws IOException {
        return write(folder, Ledger.NOBODY, files, preview, overwrite);
    }

    /**
     * Writes files into a folder. A file that no earlier run wrote is never touched: one that stands in the way is an
     * error, and then nothing at all is written. A file of an earlier run that is no longer needed is removed.
     *
     * @param folder the folder; it is made if it is not there
     * @param owner the contract that they are of: files of others are left alone
     * @param files the files of the contract that it is to hold, each path once
     * @param preview whether only to tell what would be done
     * @param overwrite whether files of an earlier run are replaced even if somebody has edited them since
     * @throws IOException when the folder cannot be read or written
     */
    public static WriteReport write(
            Path folder, String owner, List<SourceFile> files, boolean preview, boolean overwrite) throws IOException {
        return new OutputFolder(folder.toAbsolutePath().normalize(), owner).run(files, preview, overwrite);
    }

    /**
     * Removes the files of a contract that no other one needs, and with the last of them what tells of them.
     *
     * @param overwrite whether files go that somebody has edited; otherwise they are left, and told
     * @throws IOException when the folder cannot be read or written
     */
    public static WriteReport remove(Path folder, String owner, boolean overwrite) throws IOException {
        return Files.isRegularFile(folder.resolve(Ledger.FILE))
                ? write(folder, owner, List.of(), false, overwrite)
                : new WriteReport(List.of(), List.of(), List.of(), List.of(), Map.of(), List.of());
    }

    /**
     * Hands the files of a contract over to another name of it.
     *
     * @throws IOException when the folder cannot be read or written
     */
    public static void hand(Path folder, String owner, String to) throws IOException {
        Ledger before = Files.isRegularFile(folder.resolve(Ledger.FILE)) ? Ledger.read(folder) : null;
        if (before != null && !before.files(owner).isEmpty()) {
            try (Staging staging = Staging.into(folder)) {
                Ledger after = before.with(to, before.files(owner)).with(owner, Map.of());
                staging.write(Ledger.FILE, after.bytes());
                staging.commit(List.of());
            }
        }
    }

    /**
     * Looks whether the files of a contract are all there as they were written.
     *
     * @return what a run would tell that writes the same again, or null when something is otherwise
     */
    public static WriteReport asWritten(Path folder, String owner) throws IOException {
        Map<String, String> files = Ledger.read(folder).files(owner);
        boolean same = !files.isEmpty()
                && files.entrySet().parallelStream().allMatch(file -> {
                    try {
                        return Checksum.isOf(
                                file.getValue(), Files.readAllBytes(InsideFolder.resolve(folder, file.getKey())));
                    } catch (IOException e) {
                        return false;
                    }
                });
        return same
                ? new WriteReport(List.of(), List.of(), List.copyOf(files.keySet()), List.of(), Map.of(), List.of())
                : null;
    }

    private WriteReport run(List<SourceFile> files, boolean preview, boolean overwrite) throws IOException {
        if (Files.exists(folder) && !Files.isDirectory(folder)) {
            throw new IOException(folder + " is a file, not a folder");
        }
        if (preview) {
            return run(files, null, overwrite);
        }
        try (Staging staging = Staging.into(folder)) {
            return run(files, staging, overwrite);
        }
    }

    /** Compares, and writes unless there is nothing to write with. */
    private WriteReport run(List<SourceFile> files, Staging staging, boolean overwrite) throws IOException {
        if (staging != null) {
            Staging.tell(staging.left(), findings);
        }
        Ledger before = Ledger.read(folder);
        boolean existing = Files.exists(folder);
        checkFolders(files, existing);
        Map<String, String> others = before.others(owner);
        Map<String, Fresh> fresh = fresh(files, existing);
        for (SourceFile file : files) {
            Fresh one = fresh.get(file.path());
            if (one != null) {
                checksums.put(file.path(), one.checksum());
                writes.put(file.path(), one.bytes());
                added.add(file.path());
                continue;
            }
            compare(file, before.files(owner), others, overwrite);
        }
        for (Map.Entry<String, String> old : before.files(owner).entrySet()) {
            if (!checksums.containsKey(old.getKey()) && !others.containsKey(old.getKey())) {
                stale(old.getKey(), old.getValue(), overwrite);
            }
        }
        if (staging != null && !findings.hasErrors()) {
            commit(staging, before);
        }
        return new WriteReport(added, changed, kept, removed, edits, findings.sorted());
    }

    /** A file that is not there yet. */
    private record Fresh(byte[] bytes, String checksum) {}

    /** The files that are not there yet; all processors have a share in their bytes and checksums. */
    private Map<String, Fresh> fresh(List<SourceFile> files, boolean existing) {
        return files.parallelStream()
                .filter(file -> !existing || !Files.exists(folder.resolve(file.path())))
                .collect(Collectors.toConcurrentMap(
                        SourceFile::path,
                        file -> {
                            byte[] bytes = file.text().getBytes(StandardCharsets.UTF_8);
                            return new Fresh(bytes, Checksum.of(bytes));
                        },
                        (one, other) -> one));
    }

    /** No path may lead out of the folder, be it through a link. */
    private void checkFolders(List<SourceFile> files, boolean existing) throws IOException {
        Path real = existing ? folder.toRealPath() : folder;
        Set<Path> seen = new HashSet<>();
        for (SourceFile file : files) {
            Path parent = path(file).normalize().getParent();
            if (!seen.add(parent)) {
                continue;
            }
            Path there = parent;
            while (existing && !Files.exists(there)) {
                there = there.getParent();
            }
            if (!parent.startsWith(folder) || existing && !there.toRealPath().startsWith(real)) {
                throw new IOException(file.path() + " would lie outside " + folder);
            }
        }
    }

    private Path path(SourceFile file) throws IOException {
        try {
            return folder.resolve(file.path());
        } catch (InvalidPathException e) {
            throw new IOException(
                    "no file can be called " + file.path() + " where names are in "
                            + System.getProperty("sun.jnu.encoding") + ": set LC_ALL=C.UTF-8, or give it another name",
                    e);
        }
    }

    private void compare(SourceFile file, Map<String, String> own, Map<String, String> others, boolean overwrite)
            throws IOException {
        byte[] bytes = file.text().getBytes(StandardCharsets.UTF_8);
        String known = own.getOrDefault(file.path(), others.get(file.path()));
        Path path = folder.resolve(file.path());
        byte[] present = Files.readAllBytes(path);
        checksums.put(file.path(), Checksum.of(bytes));
        if (known != null && Arrays.equals(present, bytes)) {
            kept.add(file.path());
            return;
        }
        boolean marked = isMarked(file.text(), present);
        if (sameText(present, file.text())) {
            // A checkout with other line ends, or a ledger that was lost, makes it no other file.
            kept.add(file.path());
        } else if (known == null && marked && overwrite) {
            writes.put(file.path(), bytes);
            changed.add(file.path());
        } else if (known == null && marked) {
            edits.put(file.path(), LineDiff.of(file.text(), new String(present, StandardCharsets.UTF_8)));
            findings.error(
                    "unknown-edit",
                    null,
                    file.path() + " was generated, and nothing tells whether somebody has changed it since",
                    "look at the difference, and add " + Setting.OVERWRITE + " when nobody has");
        } else if (known == null) {
            findings.error(
                    "not-ours",
                    null,
                    file.path() + " is already there, and protypos did not write it",
                    "move it away, or choose another folder with " + Setting.INTO + " or another package with "
                            + Setting.PACKAGE);
        } else if (others.containsKey(file.path()) && !Checksum.isOf(others.get(file.path()), bytes)) {
            findings.error(
                    "shared-file",
                    null,
                    file.path() + " is also generated for another contract, with other content",
                    "give one of the contracts another package, or another folder");
        } else if (!overwrite && !isAsWritten(present, known)) {
            edits.put(file.path(), LineDiff.of(file.text(), new String(present, StandardCharsets.UTF_8)));
            findings.error(
                    "edited-by-hand",
                    null,
                    file.path() + " was changed by hand since it was generated",
                    "say it with a rule (docs/rules.md) or keep it elsewhere, and add " + Setting.OVERWRITE
                            + ", which replaces the file");
        } else {
            writes.put(file.path(), bytes);
            changed.add(file.path());
        }
    }

    /** Whether a file is what was written, be it with other line ends. */
    private static boolean isAsWritten(byte[] present, String known) {
        String plain = new String(present, StandardCharsets.UTF_8).replace("\r\n", "\n");
        return Checksum.isOf(known, present) || Checksum.isOf(known, plain.getBytes(StandardCharsets.UTF_8));
    }

    /** Whether a file begins with the line by which ours are known. */
    private static boolean isMarked(String ours, byte[] present) {
        int end = ours.indexOf('\n');
        String mark = end < 0 ? "" : ours.substring(0, end);
        String text = new String(present, StandardCharsets.UTF_8);
        return mark.contains(SourceFile.MARK)
                && text.lines().findFirst().orElse("").equals(mark);
    }

    private static boolean sameText(byte[] present, String text) {
        return new String(present, StandardCharsets.UTF_8).replace("\r\n", "\n").equals(text);
    }

    private void stale(String path, String known, boolean overwrite) throws IOException {
        Path file = InsideFolder.resolve(folder, path);
        if (!Files.isRegularFile(file)) {
            return;
        }
        if (overwrite || isAsWritten(Files.readAllBytes(file), known)) {
            removed.add(path);
        } else {
            findings.warning(
                    "edited-by-hand",
                    null,
                    path + " is no longer generated, but was changed by hand and is left in place",
                    "delete it when you do not need it");
        }
    }

    private void commit(Staging staging, Ledger before) throws IOException {
        if (writes.isEmpty() && removed.isEmpty() && before.files(owner).equals(checksums)) {
            return;
        }
        for (Map.Entry<String, byte[]> write : writes.entrySet()) {
            staging.write(write.getKey(), write.getValue(), checksums.get(write.getKey()));
        }
        Ledger after = before.with(owner, checksums);
        List<String> gone = new ArrayList<>(removed);
        if (after.isEmpty()) {
            gone.add(Ledger.FILE);
        } else {
            staging.write(Ledger.FILE, after.bytes());
        }
        staging.commit(gone);
    }
}
