package org.protypos.output;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.concurrent.ThreadLocalRandom;

/**
 * Keeps two runs from writing into one folder at once. The lock is the system's and ends with the process that has it, however
 * that ends; its file says which process that is.
 */
final class FolderLock implements AutoCloseable {
    private static final String NAME = ".protypos-lock";
    private static final long PATIENCE_MILLIS = 5_000;
    private static final long PAUSE_MILLIS = 50;
    private static final int LONGEST_MARK = 60_000;

    private final Path file;
    private final FileChannel channel;

    private FolderLock(Path file, FileChannel channel) {
        this.file = file;
        this.channel = channel;
    }

    /**
     * Takes the lock of a folder, and waits a little for who has it.
     *
     * @throws IOException when another keeps it
     */
    static FolderLock of(Path folder) throws IOException {
        long end = System.nanoTime() + PATIENCE_MILLIS * 1_000_000;
        while (true) {
            // A folder that is not there yet comes into being whole: until then the lock stands beside it.
            boolean there = Files.isDirectory(folder);
            Path file = there ? folder.resolve(NAME) : folder.resolveSibling("." + folder.getFileName() + NAME);
            FolderLock lock = attempt(file);
            if (lock != null && Files.isDirectory(folder) == there) {
                return lock;
            }
            if (lock != null) {
                lock.close();
            } else if (System.nanoTime() > end) {
                throw new IOException("another run of protypos" + holder(file) + " is writing into " + folder
                        + "; try again when it has ended");
            }
            pause();
        }
    }

    /** Whether somebody has the lock of a folder, or a run that was killed has left its file. */
    static boolean isThere(Path folder) {
        return Files.exists(folder.resolve(NAME), LinkOption.NOFOLLOW_LINKS);
    }

    private static FolderLock attempt(Path file) throws IOException {
        if (Files.isSymbolicLink(file)) {
            throw new IOException(file + " is a link, and no lock of ours");
        }
        if (file.getParent() != null) {
            Files.createDirectories(file.getParent());
        }
        FileChannel channel = FileChannel.open(
                file,
                StandardOpenOption.CREATE,
                StandardOpenOption.READ,
                StandardOpenOption.WRITE,
                LinkOption.NOFOLLOW_LINKS);
        try {
            FileLock lock = channel.tryLock();
            // Who had the lock removes its file, and another may have made one since: ours is the one that has our
            // mark.
            if (lock != null && isMarked(channel, file)) {
                return new FolderLock(file, channel);
            }
        } catch (OverlappingFileLockException | NoSuchFileException e) {
            // Another thread of this process has it, or had it a moment ago.
        }
        channel.close();
        return null;
    }

    /**
     * Writes who has the lock, and looks whether that is found where others look for it: a file of just that length. The file is not
     * opened again for that, for on some systems closing it once gives up all locks that a process has on it.
     */
    private static boolean isMarked(FileChannel channel, Path file) throws IOException {
        byte[] process = (ProcessHandle.current().pid() + "\n").getBytes(StandardCharsets.US_ASCII);
        long length = process.length + ThreadLocalRandom.current().nextInt(1, LONGEST_MARK);
        try {
            channel.truncate(0);
            channel.write(ByteBuffer.wrap(process), 0);
            // What lies between is a hole, and takes no room on the disk.
            channel.write(ByteBuffer.wrap(new byte[] {'\n'}), length - 1);
        } catch (IOException e) {
            // On a full disk the lock holds all the same; who waits for it is not told the process.
            return true;
        }
        return Files.size(file) == length;
    }

    private static String holder(Path file) {
        try {
            String text = Files.readString(file, StandardCharsets.US_ASCII).strip();
            String process = text.lines().findFirst().orElse("");
            return process.matches("[0-9]{1,10}") ? " (process " + process + ")" : "";
        } catch (IOException e) {
            return "";
        }
    }

    private static void pause() throws IOException {
        try {
            Thread.sleep(PAUSE_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while waiting for another run", e);
        }
    }

    /** Gives the lock up. */
    @Override
    public void close() throws IOException {
        if (channel.isOpen()) {
            Files.deleteIfExists(file);
            channel.close();
        }
    }
}
