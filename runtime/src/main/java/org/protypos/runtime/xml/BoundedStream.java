package org.protypos.runtime.xml;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Refuses a message that is longer than allowed as soon as that many bytes have come. */
final class BoundedStream extends FilterInputStream {
    private final long most;
    private long left;

    BoundedStream(InputStream in, long most) {
        super(in);
        this.most = most;
        this.left = most;
    }

    @Override
    public int read() throws IOException {
        int value = super.read();
        count(value < 0 ? 0 : 1);
        return value;
    }

    @Override
    public int read(byte[] buffer, int offset, int length) throws IOException {
        int read = super.read(buffer, offset, length);
        count(Math.max(0, read));
        return read;
    }

    private void count(int read) throws IOException {
        left -= read;
        if (left < 0) {
            throw new IOException("the message is longer than " + most + " bytes");
        }
    }
}
