package org.protypos.runtime.attach;

import java.io.BufferedInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Decodes content in the encoding for text that is nearly plain (RFC 2045, section 6.7). */
final class QuotedPrintable extends FilterInputStream {
    QuotedPrintable(InputStream in) {
        super(new BufferedInputStream(in));
    }

    @Override
    public int read() throws IOException {
        int value = in.read();
        while (value == '=') {
            int first = in.read();
            int second = first == '\n' ? -1 : in.read();
            int high = Character.digit(first, 16);
            int low = Character.digit(second, 16);
            if (first == '\r' && second == '\n' || first == '\n') {
                value = in.read();
            } else if (high >= 0 && low >= 0) {
                return high * 16 + low;
            } else {
                throw new IOException("a part is not quoted-printable: = is followed by no digits");
            }
        }
        return value;
    }

    @Override
    public int read(byte[] buffer, int offset, int count) throws IOException {
        int at = 0;
        while (at < count) {
            int value = read();
            if (value < 0) {
                break;
            }
            buffer[offset + at++] = (byte) value;
        }
        return at == 0 && count > 0 ? -1 : at;
    }
}
