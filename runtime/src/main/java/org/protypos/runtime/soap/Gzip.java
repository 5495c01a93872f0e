package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

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

    static byte[] unpack(byte[] packed, long most) throws IOException {
        try (InputStream stream = new GZIPInputStream(new ByteArrayInputStream(packed))) {
            byte[] message = stream.readNBytes((int) Math.min(Integer.MAX_VALUE - 8, most + 1));
            if (message.length > most) {
                throw new IOException("the message is longer than " + most + " bytes");
            }
            return message;
        }
    }
}
