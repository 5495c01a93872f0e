package org.protypos.runtime.attach;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.GZIPOutputStream;
import java.util.zip.Inflater;
import org.protypos.runtime.value.Lexical;

/** Packs and unpacks messages (RFC 1952). What unpacks to more than is allowed is refused before it fills memory. */
public final class Gzip {
    private static final int LONGEST_SHOWN = 100;
    private static final Set<String> WAYS =
            Set.of("gzip", "x-gzip", "deflate", "br", "zstd", "compress", "x-compress", "exi");

    private Gzip() {}

    /**
     * Whether a message came packed. What names no way to pack (a charset, say) stands there by mistake, and is passed over.
     *
     * @param encoding the content encoding that HTTP names (RFC 9110, section 8.4), empty for none
     * @throws IOException when it is packed in another way, or several times
     */
    public static boolean packs(String encoding) throws IOException {
        List<String> ways = Stream.of(encoding.toLowerCase(Locale.ROOT).split(","))
                .map(String::strip)
                .filter(WAYS::contains)
                .toList();
        if (ways.isEmpty()) {
            return false;
        }
        // The older name is the same (RFC 9110, section 8.4.1.3).
        if (ways.size() > 1 || !ways.get(0).endsWith("gzip")) {
            throw new IOException(
                    "it is packed with \"" + Lexical.shortened(encoding, LONGEST_SHOWN) + "\"; gzip alone can be read");
        }
        return true;
    }

    /** Packs a message. */
    public static byte[] pack(byte[] message) {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream stream = new GZIPOutputStream(packed)) {
            stream.write(message);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return packed.toByteArray();
    }

    /**
     * Unpacks a message.
     *
     * @throws IOException when it is damaged, or longer than {@code into} takes
     */
    public static Spool unpack(Spool packed, Spool into) throws IOException {
        try (InputStream stream = open(packed.open())) {
            stream.transferTo(into);
            return into;
        }
    }

    /**
     * Opens packed bytes for reading what is in them.
     *
     * @param packed one member or several (RFC 1952, section 2.2); closed with the stream
     * @return a stream that fails with an {@link IOException} when a member is damaged or cut off
     */
    public static InputStream open(InputStream packed) {
        return new Members(packed);
    }

    /** One member after the other. The platform's own stream goes from one to the next by recursion, which empty ones exhaust. */
    private static final class Members extends InputStream {
        private static final int FIRST = 0x1f;
        private static final int SECOND = 0x8b;
        private static final int DEFLATED = 8;
        private static final int HEAD_CHECKED = 0x02;
        private static final int EXTRA = 0x04;
        private static final int NAME = 0x08;
        private static final int COMMENT = 0x10;

        private final InputStream packed;
        private final byte[] buffer = new byte[8192];
        private final Inflater inflater = new Inflater(true);
        private final CRC32 sum = new CRC32();
        private int at;
        private int end;
        private boolean inMember;
        private boolean ended;

        Members(InputStream packed) {
            this.packed = packed;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] bytes, int offset, int count) throws IOException {
            if (count == 0) {
                return 0;
            }
            while (!ended) {
                if (!inMember) {
                    openMember();
                }
                int read = inflated(bytes, offset, count);
                if (read > 0) {
                    sum.update(bytes, offset, read);
                    return read;
                }
                if (inflater.finished()) {
                    closeMember();
                }
            }
            return -1;
        }

        private int inflated(byte[] bytes, int offset, int count) throws IOException {
            try {
                int read = inflater.inflate(bytes, offset, count);
                if (read == 0 && !inflater.finished()) {
                    need();
                    inflater.setInput(buffer, at, end - at);
                    at = end;
                }
                return read;
            } catch (DataFormatException e) {
                throw new IOException("the packed data are damaged", e);
            }
        }

        /** Section 2.3. */
        private void openMember() throws IOException {
            if (next() != FIRST || next() != SECOND || next() != DEFLATED) {
                throw new IOException("the data are not packed with gzip");
            }
            int flags = next();
            skip(6);
            if ((flags & EXTRA) != 0) {
                skip(next() | next() << 8);
            }
            if ((flags & NAME) != 0) {
                skipText();
            }
            if ((flags & COMMENT) != 0) {
                skipText();
            }
            if ((flags & HEAD_CHECKED) != 0) {
                skip(2);
            }
            inflater.reset();
            inflater.setInput(buffer, at, end - at);
            at = end;
            sum.reset();
            inMember = true;
        }

        private void closeMember() throws IOException {
            at = end - inflater.getRemaining();
            if (number() != (int) sum.getValue() || number() != (int) inflater.getBytesWritten()) {
                throw new IOException("the packed data are damaged");
            }
            inMember = false;
            // What follows without the mark of a member is padding.
            ended = at == end && !filled() || (buffer[at] & 0xff) != FIRST;
        }

        private int number() throws IOException {
            return next() | next() << 8 | next() << 16 | next() << 24;
        }

        private void skip(int count) throws IOException {
            for (int i = 0; i < count; i++) {
                next();
            }
        }

        private void skipText() throws IOException {
            while (next() != 0) {
                continue;
            }
        }

        private int next() throws IOException {
            need();
            return buffer[at++] & 0xff;
        }

        private void need() throws IOException {
            if (at == end && !filled()) {
                throw new EOFException("the packed data end too early");
            }
        }

        private boolean filled() throws IOException {
            at = 0;
            end = Math.max(0, packed.read(buffer, 0, buffer.length));
            return end > 0;
        }

        @Override
        public void close() throws IOException {
            inflater.end();
            packed.close();
        }
    }
}
