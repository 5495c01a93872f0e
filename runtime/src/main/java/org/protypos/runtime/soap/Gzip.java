package org.protypos.runtime.soap;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.protypos.runtime.attach.Spool;

/** Packs and unpacks messages (RFC 1952). What unpacks to more than is allowed is refused before it fills memory. */
final class Gzip {
    private Gzip() {}

    static byte[] pack(byte[] message) {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream stream = new GZIPOutputStream(packed)) {
            stream.write(message);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return packed.toByteArray();
    }

    static Spool unpack(Spool packed, Spool into) throws IOException {
        try (InputStream stream = new GZIPInputStream(packed.open())) {
            stream.transferTo(into);
            return into;
        }
    }
}
