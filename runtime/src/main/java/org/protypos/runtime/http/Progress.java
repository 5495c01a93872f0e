package org.protypos.runtime.http;

/** How much of a body came or went, so that who is hardly getting on can be broken off. */
final class Progress {
    private static final long ENOUGH = 64 * 1024;

    private volatile long moved;
    private volatile boolean running;
    private long seen;
    private long since;

    /** From now on something is to move. */
    void start() {
        moved = 0;
        seen = 0;
        since = System.nanoTime();
        running = true;
    }

    /** Nothing more is to move. */
    void stop() {
        running = false;
    }

    /** Some bytes moved. Only one thread counts. */
    void count(int bytes) {
        long before = moved;
        moved = before + bytes;
    }

    /** Whether less than 64 KiB moved in so many nanoseconds. Asked by one thread only, again and again. */
    boolean isStuck(long now, long allowed) {
        if (!running || now - since < allowed) {
            return false;
        }
        boolean stuck = moved - seen < ENOUGH;
        seen = moved;
        since = now;
        return stuck;
    }
}
