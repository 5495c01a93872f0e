package org.protypos.cli.terminal;

import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.Map;

/** What the program tells its caller at the end. */
public final class ExitStatus {
    public static final int DONE = 0;
    /** The contract is at fault. */
    public static final int CONTRACT = 1;
    /** The command line is at fault. */
    public static final int USAGE = 2;
    /** Something outside failed: network or disk. */
    public static final int OUTSIDE = 3;

    /** A promise is broken: drift, or a change that breaks something. */
    public static final int PROMISE = 4;

    /** What failures of the disk mean that give no reason themselves. */
    private static final Map<Class<?>, String> REASONS = Map.of(
            NoSuchFileException.class, "there is no such file or folder",
            FileAlreadyExistsException.class, "it is there already",
            AccessDeniedException.class, "access is denied",
            NotDirectoryException.class, "it is no folder",
            DirectoryNotEmptyException.class, "the folder is not empty");

    private ExitStatus() {}

    /** What went wrong, for a person; failures of the disk say by themselves no more than the name of a file. */
    static String describe(Throwable failure) {
        if (failure instanceof UncheckedIOException && failure.getCause() != null) {
            return failure.getMessage().equals(failure.getCause().toString())
                    ? describe(failure.getCause())
                    : failure.getMessage();
        }
        if (failure instanceof FileSystemException disk && disk.getFile() != null) {
            String why = REASONS.getOrDefault(disk.getClass(), disk.getReason());
            return disk.getFile() + (why == null ? "" : ": " + why);
        }
        return failure.getMessage() == null ? failure.getClass().getSimpleName() : failure.getMessage();
    }
}
