package org.protypos.output;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;

/**
 * Makes a set of writes whole or none. New files are first written beside the folder or into a hidden folder in it; a
 * list says that they are complete and what is to be done with each; then they are moved into place. A run that ends before the
 * list has changed nothing, and one that ends after it is finished by the next that writes: each file that is still as the run
 * saw it is replaced, one that somebody has changed since is left as it is.
 */
public final class Staging implements AutoCloseable {
    private static final String WORK = ".protypos-work";
    private static final String COMPLETE = ".complete";
    private static final String NOTHING = "-";
    private static final long LONGEST_LIST = 64L << 20;

    private final Path folder;
    private final Path work;
    private final boolean fresh;
    private final List<String> left = new ArrayList<>();
    private final Set<Path> made = new HashSet<>();
    private final Map<String, String> written = new LinkedHashMap<>();

    private final FolderLock lock;

    private Staging(Path folder, Path work, boolean fresh, FolderLock lock) {
        this.lock = lock;
        this.folder = folder;
        this.work = work;
        this.fresh = fresh;
    }

    /**
     * What is to be done with a file.
     *
     * @param before the checksum of what is there when it is decided, or {@link #NOTHING}
     * @param after the checksum of what replaces it, or {@link #NOTHING} when it is removed
     */
    private record Action(String before, String after, String path) {
        String line() {
            return before + " " + after + " " + path;
        }

        static Action of(String line) {
            String[] parts = line.split(" ", 3);
            boolean good = parts.length == 3 && isState(parts[0]) && isState(parts[1]);
            return good ? new Action(parts[0], parts[1], parts[2]) : null;
        }

        private static boolean isState(String text) {
            return text.equals(NOTHING) || Checksum.isOne(text);
        }
    }

    /**
     * Prepares for writing into a folder, after finishing or forgetting what an interrupted run left. No other run writes
     * there until this is closed.
     *
     * @throws IOException when another run is writing there, or what was left is none of ours
     */
    public static Staging into(Path folder) throws IOException {
        Path absolute = folder.toAbsolutePath().normalize();
        FolderLock lock = FolderLock.of(absolute);
        try {
            Path beside = absolute.resolveSibling("." + absolute.getFileName() + WORK);
            delete(beside);
            List<String> left = finishLocked(absolute);
            Path within = absolute.resolve(WORK);
            boolean fresh = !Files.exists(absolute);
            Staging staging = new Staging(absolute, fresh ? beside : within, fresh, lock);
            staging.left.addAll(left);
            return staging;
        } catch (IOException | RuntimeException e) {
            lock.close();
            throw e;
        }
    }

    /**
     * Lets others write into the folder, and forgets what was written and not committed. What was only begun to be put in
     * place stays for the next run to finish.
     */
    @Override
    public void close() throws IOException {
        try {
            if (!Files.exists(work.resolve(COMPLETE))) {
                delete(work);
            }
        } finally {
            lock.close();
        }
    }

    /**
     * Finishes what an interrupted run has completed in a folder, and forgets what it has not.
     *
     * @return the files that somebody has changed since, which are left as they are
     * @throws IOException when the list is none of ours; then nothing is done
     */
    public static List<String> finish(Path folder) throws IOException {
        if (!Files.exists(folder.resolve(WORK)) && !FolderLock.isThere(folder)) {
            return List.of();
        }
        FolderLock lock = FolderLock.of(folder);
        try {
            return finishLocked(folder);
        } finally {
            lock.close();
        }
    }

    private static List<String> finishLocked(Path folder) throws IOException {
        Path within = folder.resolve(WORK);
        Path list = within.resolve(COMPLETE);
        List<String> left = new ArrayList<>();
        if (Files.isDirectory(within) && !Files.isSymbolicLink(within) && Files.isRegularFile(list)) {
            Staging staging = new Staging(folder, within, false, null);
            staging.move(actions(folder, list));
            left.addAll(staging.left);
        }
        delete(within);
        return left;
    }

    /** Reads what is to be done. One line that is none of ours, and none of it is believed. */
    private static List<Action> actions(Path folder, Path list) throws IOException {
        if (Files.isSymbolicLink(list) || Files.size(list) > LONGEST_LIST) {
            throw refused(list, "it is no list of ours");
        }
        List<Action> actions = new ArrayList<>();
        for (String line : Files.readString(list, StandardCharsets.UTF_8).split("\n")) {
            Action action = line.isEmpty() ? null : Action.of(line);
            String complaint = action == null ? null : InsideFolder.complaint(folder, action.path);
            if (!line.isEmpty() && action == null) {
                throw refused(list, "\"" + Printable.of(line) + "\" is no line of ours");
            }
            if (complaint != null) {
                throw refused(list, "\"" + Printable.of(action.path) + "\" " + complaint);
            }
            if (action != null) {
                actions.add(action);
            }
        }
        return actions;
    }

    private static IOException refused(Path list, String why) {
        return new IOException("a run that was broken off left " + list + ", which is not believed: " + why
                + "; delete the folder around it if you do not know where it comes from");
    }

    /** The files that an interrupted run was about to replace or remove and somebody has changed since. */
    public List<String> left() {
        return List.copyOf(left);
    }

    /** Tells of files that somebody has changed since a run was interrupted. */
    public static void tell(List<String> left, Findings findings) {
        left.forEach(path -> findings.warning(
                "edited-meanwhile",
                null,
                path + " was changed after a run that was broken off, and is left as it is",
                "look whether it is as you want it"));
    }

    /**
     * Prepares a file.
     *
     * @throws IOException when the path does not lie inside of the folder, or cannot be written
     */
    public void write(String path, byte[] bytes) throws IOException {
        write(path, bytes, Checksum.of(bytes));
    }

    /** Writes a file of which the checksum is known. */
    void write(String path, byte[] bytes, String checksum) throws IOException {
        if (fresh) {
            InsideFolder.require(folder, path);
        } else {
            InsideFolder.resolve(folder, path);
        }
        Path target = work.resolve(path);
        makeFolder(target.getParent());
        Files.write(target, bytes);
        written.put(path, checksum);
    }

    private void makeFolder(Path parent) throws IOException {
        if (made.add(parent)) {
            Files.createDirectories(parent);
        }
    }

    /** Puts everything in place and removes what is no longer needed. */
    public void commit(List<String> removed) throws IOException {
        if (fresh) {
            Files.createDirectories(folder.getParent());
            Files.move(work, folder);
            return;
        }
        List<Action> actions = new ArrayList<>();
        for (Map.Entry<String, String> write : written.entrySet()) {
            actions.add(new Action(present(write.getKey()), write.getValue(), write.getKey()));
        }
        for (String path : removed) {
            actions.add(new Action(present(path), NOTHING, path));
        }
        makeFolder(work);
        Path draft = work.resolve(COMPLETE + ".draft");
        StringBuilder lines = new StringBuilder();
        actions.forEach(action -> lines.append(action.line()).append('\n'));
        Files.writeString(draft, lines, StandardCharsets.UTF_8);
        Files.move(draft, work.resolve(COMPLETE));
        move(actions);
        delete(work);
    }

    /** The checksum of the file that is there. */
    private String present(String path) throws IOException {
        byte[] content = content(path);
        return content == null ? NOTHING : Checksum.of(content);
    }

    private byte[] content(String path) throws IOException {
        Path file = InsideFolder.resolve(folder, path);
        return Files.isRegularFile(file) ? Files.readAllBytes(file) : null;
    }

    private static boolean isIn(String state, byte[] content) {
        return content == null ? state.equals(NOTHING) : Checksum.isOf(state, content);
    }

    private void move(List<Action> actions) throws IOException {
        for (Action action : actions) {
            byte[] present = content(action.path);
            Path target = folder.resolve(action.path);
            if (isIn(action.after, present)) {
                continue;
            }
            if (!isIn(action.before, present)) {
                left.add(action.path);
            } else if (action.after.equals(NOTHING)) {
                Files.deleteIfExists(target);
                removeEmptyFolders(target.getParent());
            } else {
                Path file = work.resolve(action.path);
                if (Files.isRegularFile(file) && Checksum.isOf(action.after, Files.readAllBytes(file))) {
                    makeFolder(target.getParent());
                    WholeFile.moveOver(file, target);
                }
            }
        }
    }

    private void removeEmptyFolders(Path from) throws IOException {
        for (Path path = from;
                path != null && !path.equals(folder) && path.startsWith(folder);
                path = path.getParent()) {
            if (!Files.isDirectory(path)) {
                continue;
            }
            try (var entries = Files.list(path)) {
                if (entries.findAny().isPresent()) {
                    return;
                }
            }
            Files.delete(path);
        }
    }

    private static void delete(Path tree) throws IOException {
        if (!Files.exists(tree) && !Files.isSymbolicLink(tree)) {
            return;
        }
        Files.walkFileTree(tree, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.delete(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path visited, IOException failure) throws IOException {
                Files.delete(visited);
                return FileVisitResult.CONTINUE;
            }
        });
    }
}
