package org.protypos.output;

import java.io.IOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Makes a set of writes whole or none. New files are first written beside the folder or into a hidden folder in it; a
 * mark says that they are complete; then they are moved into place. A run that ends before the mark has changed nothing,
 * and one that ends after it is finished by the next.
 */
public final class Staging {
    private static final String WORK = ".protypos-work";
    private static final String COMPLETE = ".complete";

    private final Path folder;
    private final Path work;
    private final boolean fresh;
    private final Set<Path> made = new HashSet<>();

    private Staging(Path folder, Path work, boolean fresh) {
        this.folder = folder;
        this.work = work;
        this.fresh = fresh;
    }

    /** Prepares for writing into a folder, after finishing or forgetting what an interrupted run left. */
    public static Staging into(Path folder) throws IOException {
        Path absolute = folder.toAbsolutePath().normalize();
        Path beside = absolute.resolveSibling("." + absolute.getFileName() + WORK);
        delete(beside);
        finish(absolute);
        Path within = absolute.resolve(WORK);
        boolean fresh = !Files.exists(absolute);
        return new Staging(absolute, fresh ? beside : within, fresh);
    }

    /** Finishes what an interrupted run has completed in a folder, and forgets what it has not. */
    public static void finish(Path folder) throws IOException {
        Path within = folder.resolve(WORK);
        if (Files.exists(within.resolve(COMPLETE))) {
            new Staging(folder, within, false).move(Files.readAllLines(within.resolve(COMPLETE)));
        }
        delete(within);
    }

    /** Prepares a file. */
    public void write(String path, byte[] bytes) throws IOException {
        Path target = work.resolve(path);
        makeFolder(target.getParent());
        Files.write(target, bytes);
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
        Path draft = work.resolve(COMPLETE + ".draft");
        Files.write(draft, removed);
        Files.move(draft, work.resolve(COMPLETE));
        move(removed);
        delete(work);
    }

    /** Forgets everything written so far. */
    public void abandon() throws IOException {
        delete(work);
    }

    private void move(List<String> removed) throws IOException {
        Files.walkFileTree(work, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                if (!file.equals(work.resolve(COMPLETE))) {
                    Path target = folder.resolve(work.relativize(file).toString());
                    makeFolder(target.getParent());
                    moveOver(file, target);
                }
                return FileVisitResult.CONTINUE;
            }
        });
        for (String path : removed) {
            Files.deleteIfExists(folder.resolve(path));
            removeEmptyFolders(folder.resolve(path).getParent());
        }
    }

    private static void moveOver(Path file, Path target) throws IOException {
        try {
            Files.move(file, target, StandardCopyOption.ATOMIC_MOVE);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(file, target, StandardCopyOption.REPLACE_EXISTING);
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
        if (!Files.exists(tree)) {
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
