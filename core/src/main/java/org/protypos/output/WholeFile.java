package org.protypos.output;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermission;
import java.util.EnumSet;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;

/** Writes one file: all of it or, whatever goes wrong, nothing. */
public final class WholeFile {
    private static final Set<PosixFilePermission> WRITING = EnumSet.of(
            PosixFilePermission.OWNER_WRITE, PosixFilePermission.GROUP_WRITE, PosixFilePermission.OTHERS_WRITE);

    private WholeFile() {}

    /**
     * Writes a file, in place of one that may be there; at the end of a link the file that it leads to.
     *
     * @throws IOException when it cannot be written, or nobody may write it; what was there is there still
     */
    public static void write(Path file, String text) throws IOException {
        write(file, text.getBytes(StandardCharsets.UTF_8));
    }

    /** Writes a file of bytes, likewise. */
    public static void write(Path file, byte[] bytes) throws IOException {
        if (Files.exists(file) && !Files.isRegularFile(file)) {
            // A device or a pipe takes what comes, and nothing can take its place.
            try {
                Files.write(file, bytes, StandardOpenOption.WRITE);
            } catch (IOException e) {
                throw of(file, e);
            }
            return;
        }
        Path target = Files.exists(file) ? file.toRealPath() : file;
        Set<PosixFilePermission> permissions = permissions(target);
        if (permissions != null && permissions.stream().noneMatch(WRITING::contains)) {
            // A file that is moved over it would take its place all the same.
            throw new AccessDeniedException(file.toString());
        }
        Path draft = draft(target, bytes);
        try {
            if (permissions != null) {
                Files.setPosixFilePermissions(draft, permissions);
            }
            moveOver(draft, target);
        } catch (IOException e) {
            Files.deleteIfExists(draft);
            throw e;
        }
    }

    /** Who may do what with a file that is there; null where there is none, or the disk does not know of such things. */
    private static Set<PosixFilePermission> permissions(Path file) throws IOException {
        PosixFileAttributeView view = Files.getFileAttributeView(file, PosixFileAttributeView.class);
        return view == null || !Files.exists(file)
                ? null
                : view.readAttributes().permissions();
    }

    /**
     * Writes a file where there is none.
     *
     * @throws FileAlreadyExistsException when there is one
     * @throws IOException when it cannot be written; then there is none still
     */
    public static void writeNew(Path file, String text) throws IOException {
        if (Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
            throw new FileAlreadyExistsException(file.toString());
        }
        Path draft = draft(file, text.getBytes(StandardCharsets.UTF_8));
        try {
            Files.move(draft, file);
        } catch (IOException e) {
            Files.deleteIfExists(draft);
            throw e;
        }
    }

    private static Path draft(Path target, byte[] bytes) throws IOException {
        String mark = Integer.toHexString(ThreadLocalRandom.current().nextInt());
        Path draft = target.resolveSibling("." + target.getFileName() + "." + mark + ".part");
        try {
            Files.write(draft, bytes, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        } catch (NoSuchFileException e) {
            throw new NoSuchFileException(String.valueOf(target.toAbsolutePath().getParent()));
        } catch (IOException e) {
            Files.deleteIfExists(draft);
            throw of(target, e);
        }
        return draft;
    }

    /** A failure of the disk, said of the file that somebody has named. */
    private static IOException of(Path file, IOException failure) {
        if (failure instanceof AccessDeniedException) {
            return new AccessDeniedException(file.toString());
        }
        String why = failure instanceof FileSystemException disk ? disk.getReason() : failure.getMessage();
        return new FileSystemException(file.toString(), null, why);
    }

    /** Moves a file to where another may be, at once where the disk can do that. */
    static void moveOver(Path file, Path target) throws IOException {
        try {
            Files.move(file, target, StandardCopyOption.ATOMIC_MOVE);
        } catch (AtomicMoveNotSupportedException e) {
            Files.move(file, target, StandardCopyOption.REPLACE_EXISTING);
        }
    }
}
