package org.protypos.runtime.soap;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Watches a body come, and has the request broken off when hardly anything of it has come for some time. */
final class SlowSenders extends FilterInputStream {
    private static final long ENOUGH = 64 * 1024;

    private final Runnable breakOff;
    private volatile long came;
    private volatile boolean done;
    private long seen;
    private long since = System.nanoTime();

    SlowSenders(InputStream body, Runnable breakOff) {
        super(body);
        this.breakOff = breakOff;
    }

    /** Breaks the request off if hardly anything of it has come in so many nanoseconds. Called by one thread only. */
    void check(long now, long allowed) {
        if (done || now - since < allowed) {
            return;
        }
        if (came - seen < ENOUGH) {
            done = true;
            breakOff.run();
        }
        seen = came;
        since = now;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] buffer, int offset, int length) throws IOException {
        int read = super.read(buffer, offset, length);
        if (read < 0) {
            stop();
        } else {
            count(read);
        }
        return read;
    }

    /** Only the thread that reads counts. */
    private void count(int read) {
        long before = came;
        came = before + read;
    }

    /** Stops watching: the body has come, or is not wanted. */
    void stop() {
        done = true;
    }
}
