package org.protypos.diagnostic;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;

/** Reads files that somebody names and anybody may have written: they end, they are no folders, and their text is UTF-8. */
public final class GivenFile {
    /** The longest file of rules, answers or settings, and the longest request that is read from a file. */
    public static final int LONGEST_BYTES = 64 << 20;

    /** What stands for bytes that are no text. */
    private static final char REPLACEMENT = '\uFFFD';

    private GivenFile() {}

    /**
     * Reads the text of a file.
     *
     * @param name what to call it
     * @throws IOException when it cannot be read, is a folder, is too long, or is no text in UTF-8; the message says which
     */
    public static SourceText text(Path file, String name) throws IOException {
        return new SourceText(name, decoded(bytes(file), name));
    }

    /** Reads the bytes of a file, likewise. */
    public static byte[] bytes(Path file) throws IOException {
        if (Files.isDirectory(file)) {
            throw new IOException(file + " is a folder, where a file is wanted");
        }
        try (InputStream in = Files.newInputStream(file)) {
            return bytes(in, file.toString());
        } catch (NoSuchFileException e) {
            throw new NoSuchFileException(file.toString(), null, "there is no such file");
        }
    }

    /**
     * Reads a stream to its end.
     *
     * @param name what to call it
     * @throws IOException when it cannot be read or does not end within {@link #LONGEST_BYTES}
     */
    public static byte[] bytes(InputStream in, String name) throws IOException {
        byte[] bytes = in.readNBytes(LONGEST_BYTES + 1);
        if (bytes.length > LONGEST_BYTES) {
            throw new IOException(name + " is longer than " + (LONGEST_BYTES >> 20) + " MB");
        }
        return bytes;
    }

    /** The text of bytes in UTF-8; a byte order mark at the start is left out. */
    public static String decoded(byte[] bytes, String name) throws IOException {
        String text = new String(bytes, StandardCharsets.UTF_8);
        if (text.indexOf(REPLACEMENT) >= 0 && !Arrays.equals(text.getBytes(StandardCharsets.UTF_8), bytes)) {
            throw new IOException(name + " is no text in UTF-8");
        }
        return text.startsWith("\ufeff") ? text.substring(1) : text;
    }
}
