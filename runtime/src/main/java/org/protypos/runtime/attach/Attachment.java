package org.protypos.runtime.attach;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Base64;
import java.util.Objects;

/**
 * Bytes of some media type that travel beside a message or inside it. They are read when they are needed and need not
 * fit into memory; what came in and is large lies in a temporary file that goes away with the last reference to it.
 * Never changes.
 */
public final class Attachment {
    /** The media type of bytes about which nothing is known (RFC 2046, section 4.5.1). */
    public static final String ANY_TYPE = "application/octet-stream";

    private static final int BUFFER = 64 * 1024;

    private final Source source;
    private final String contentType;
    private final long length;

    /** Gives the bytes from the first one on, each time it is asked. */
    @FunctionalInterface
    public interface Source {
        /** Opens the bytes. */
        InputStream open() throws IOException;
    }

    private Attachment(Source source, String contentType, long length) {
        this.source = Objects.requireNonNull(source, "source");
        this.contentType = Objects.requireNonNull(contentType, "contentType");
        this.length = length;
    }

    /** Bytes of no particular type, held in memory. */
    public static Attachment of(byte[] content) {
        return of(content, ANY_TYPE);
    }

    /** Bytes held in memory. */
    public static Attachment of(byte[] content, String contentType) {
        byte[] own = content.clone();
        return new Attachment(() -> new ByteArrayInputStream(own), contentType, own.length);
    }

    /**
     * The bytes of a file, read when they are sent.
     *
     * @throws UncheckedIOException when there is no such file
     */
    public static Attachment of(Path file, String contentType) {
        try {
            return new Attachment(() -> Files.newInputStream(file), contentType, Files.size(file));
        } catch (IOException e) {
            throw new UncheckedIOException("the file to attach cannot be read: " + e.getMessage(), e);
        }
    }

    /**
     * Bytes that come from somewhere else.
     *
     * @param length how many there are, or -1 when that is not known
     */
    public static Attachment of(Source source, String contentType, long length) {
        return new Attachment(source, contentType, length);
    }

    /** The media type, with its parameters. */
    public String contentType() {
        return contentType;
    }

    /** The same bytes as of a media type, unless they have one that says something. */
    public Attachment of(String declared) {
        return contentType.equals(ANY_TYPE) ? new Attachment(source, declared, length) : this;
    }

    /** The number of bytes, or -1 when that is not known. */
    public long length() {
        return length;
    }

    /** Opens the bytes. */
    public InputStream open() throws IOException {
        return source.open();
    }

    /**
     * All the bytes, in memory.
     *
     * @throws UncheckedIOException when they cannot be read
     */
    public byte[] bytes() {
        try (InputStream in = open()) {
            return in.readAllBytes();
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    /** Writes the bytes into a file, which is replaced if it is there. */
    public void saveTo(Path file) throws IOException {
        try (InputStream in = open()) {
            Files.copy(in, file, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** The bytes as {@code xs:base64Binary}. */
    public String toBase64() {
        return Base64.getEncoder().encodeToString(bytes());
    }

    private static UncheckedIOException unreadable(IOException e) {
        return new UncheckedIOException("an attachment cannot be read: " + e.getMessage(), e);
    }

    /** Attachments are equal when their bytes are; the media type is not part of a message in which they stand. */
    @Override
    public boolean equals(Object other) {
        if (this == other) {
            return true;
        }
        if (!(other instanceof Attachment that) || length >= 0 && that.length >= 0 && length != that.length) {
            return false;
        }
        try (InputStream ours = open();
                InputStream theirs = that.open()) {
            byte[] left;
            do {
                left = ours.readNBytes(BUFFER);
                if (!Arrays.equals(left, theirs.readNBytes(BUFFER))) {
                    return false;
                }
            } while (left.length > 0);
            return true;
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    @Override
    public int hashCode() {
        try (InputStream in = open()) {
            return Arrays.hashCode(in.readNBytes(BUFFER));
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    @Override
    public String toString() {
        return contentType + (length < 0 ? "" : ", " + length + " bytes");
    }
}
