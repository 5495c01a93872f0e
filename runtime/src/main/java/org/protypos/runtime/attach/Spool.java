package org.protypos.runtime.attach;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Takes bytes that come in: few into memory, many into a temporary file without a name, which the system takes back when
 * nobody reads it any more. More than allowed are refused.
 */
public final class Spool extends OutputStream {
    private static final int IN_MEMORY = 256 * 1024;

    private final long most;
    private final long inMemory;
    private final String what;
    private ByteArrayOutputStream memory = new ByteArrayOutputStream();
    private FileChannel file;
    private long length;
    private boolean full;

    private Spool(long most, long inMemory, String what) {
        this.most = most;
        this.inMemory = inMemory;
        this.what = what;
    }

    /**
     * Starts taking bytes that may be too many for memory.
     *
     * @param most how many are allowed
     * @param what what they are, for the complaint when there are more
     */
    public static Spool large(long most, String what) {
        return new Spool(most, IN_MEMORY, what);
    }

    /** Starts taking bytes of which the allowed number fits into memory. */
    public static Spool small(long most, String what) {
        return new Spool(most, most, what);
    }

    @Override
    public void write(int value) throws IOException {
        write(new byte[] {(byte) value}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int count) throws IOException {
        write(ByteBuffer.wrap(bytes, offset, count));
    }

    /** Takes all that remains in a buffer. */
    public void write(ByteBuffer bytes) throws IOException {
        if (length + bytes.remaining() > most) {
            full = true;
            close();
            throw new IOException(what + " is longer than " + most + " bytes");
        }
        length += bytes.remaining();
        if (file == null && length > inMemory) {
            Path path = Files.createTempFile("message", null);
            // Under this option the file has no name any more, or loses it when it is closed.
            file = FileChannel.open(
                    path, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.DELETE_ON_CLOSE);
            write(file, ByteBuffer.wrap(memory.toByteArray()));
            memory = null;
        }
        if (file != null) {
            write(file, bytes);
        } else {
            byte[] taken = new byte[bytes.remaining()];
            bytes.get(taken);
            memory.writeBytes(taken);
        }
    }

    private static void write(FileChannel to, ByteBuffer bytes) throws IOException {
        while (bytes.hasRemaining()) {
            to.write(bytes);
        }
    }

    /** Gives what was taken up: for messages that failed on their way. */
    @Override
    public void close() throws IOException {
        memory = null;
        if (file != null) {
            file.close();
        }
    }

    /** Whether more came than allowed. */
    public boolean isFull() {
        return full;
    }

    /** How many bytes have been taken. */
    public long length() {
        return length;
    }

    /** All that was taken, in memory. */
    public byte[] bytes() throws IOException {
        return file == null ? memory.toByteArray() : open().readAllBytes();
    }

    /** Opens all that was taken. */
    public InputStream open() {
        return open(0, length);
    }

    /** Opens a piece of what was taken: from one byte on up to another. */
    public InputStream open(long from, long to) {
        return file == null
                ? new ByteArrayInputStream(memory.toByteArray(), (int) from, (int) (to - from))
                : new Slice(file, from, to);
    }

    /** Reads a piece of a file; several may do so at once, for none moves the file's own position. */
    private static final class Slice extends InputStream {
        private final FileChannel file;
        private final long end;
        private long at;

        Slice(FileChannel file, long from, long end) {
            this.file = file;
            this.at = from;
            this.end = end;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
        }

        @Override
        public int read(byte[] buffer, int offset, int count) throws IOException {
            int wanted = (int) Math.min(count, end - at);
            if (wanted <= 0) {
                return count == 0 ? 0 : -1;
            }
            int read = file.read(ByteBuffer.wrap(buffer, offset, wanted), at);
            at += Math.max(0, read);
            return read;
        }

        @Override
        public int available() {
            return (int) Math.min(Integer.MAX_VALUE, end - at);
        }
    }
}
