package org.protypos.runtime.soap;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;

/** Watches a body come, and has the request broken off when hardly anything of it has come for some time. */
final class SlowSenders extends FilterInputStream {
    private static final long ENOUGH = 64 * 1024;

    private final AtomicLong came = new AtomicLong();
    private final ScheduledFuture<?> watch;
    private long seen;

    SlowSenders(InputStream body, ScheduledExecutorService clock, long millis, Runnable breakOff) {
        super(body);
        Runnable check = () -> {
            long now = came.get();
            if (now - seen < ENOUGH) {
                breakOff.run();
            }
            seen = now;
        };
        this.watch = clock.scheduleAtFixedRate(check, millis, millis, TimeUnit.MILLISECONDS);
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
            came.addAndGet(read);
        }
        return read;
    }

    /** Stops watching: the body has come, or is not wanted. */
    void stop() {
        watch.cancel(false);
    }
}
