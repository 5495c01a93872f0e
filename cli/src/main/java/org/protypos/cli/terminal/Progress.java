package org.protypos.cli.terminal;

import java.io.IOException;
import java.io.PrintStream;
import java.util.Set;

/**
 * Says on one line of a terminal what is being done, while it takes long: the line appears after a second, is drawn anew as
 * things go on, and is gone at the end. Where nobody looks there is none.
 */
public final class Progress {
    /** Set by the launcher, which alone can tell on every Java version whether a person reads the messages. */
    private static final boolean WATCHED = Boolean.getBoolean("protypos.progress")
            && !Set.of("", "dumb").contains(System.getenv().getOrDefault("TERM", ""));

    private static final long PATIENCE_MILLIS = 1_000;
    private static final long PACE_MILLIS = 200;
    private static final int WIDTH = 78;
    private static final String CLEAR = "\r\u001b[K";

    private static Progress running;

    private final Progress around;
    private final PrintStream out = System.err;
    private final long begin = System.nanoTime();
    private final Thread drawer;
    private volatile String doing;
    private boolean drawn;
    private boolean over;

    private Progress(String doing, boolean watched) {
        this.doing = doing;
        this.around = running;
        running = this;
        drawer = watched && around == null ? new Thread(this::draw, "progress") : null;
        if (drawer != null) {
            drawer.setDaemon(true);
            drawer.start();
            // Whoever breaks off gets the terminal back as it was.
            Runtime.getRuntime().addShutdownHook(new Thread(this::clear));
        }
    }

    /** What is being done. */
    public interface Work<T> {
        T run() throws IOException;
    }

    /**
     * Does something that may take long; what is done within it is told in its line.
     *
     * @param silent whether nothing is to be shown, for the sake of who reads the output by a program
     */
    public static <T> T during(String doing, boolean silent, Work<T> work) throws IOException {
        Progress progress;
        synchronized (Progress.class) {
            progress = new Progress(doing, WATCHED && !silent);
        }
        try {
            return work.run();
        } finally {
            progress.close();
        }
    }

    /** Says what is being done now; gives whether somebody is shown it. */
    public static synchronized boolean at(String doing) {
        Progress outermost = running;
        while (outermost != null && outermost.around != null) {
            outermost = outermost.around;
        }
        if (outermost == null || outermost.drawer == null) {
            return false;
        }
        outermost.doing = doing;
        return true;
    }

    private void draw() {
        try {
            Thread.sleep(PATIENCE_MILLIS);
            while (true) {
                synchronized (this) {
                    if (over) {
                        return;
                    }
                    String what = Terminal.plain(doing);
                    String since = ", " + (System.nanoTime() - begin) / 1_000_000_000L + " s";
                    int room = WIDTH - since.length();
                    out.print(CLEAR + (what.length() > room ? what.substring(0, room - 1) + "…" : what) + since);
                    out.flush();
                    drawn = true;
                }
                Thread.sleep(PACE_MILLIS);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private synchronized void clear() {
        over = true;
        if (drawn) {
            out.print(CLEAR);
            out.flush();
            drawn = false;
        }
    }

    private void close() {
        synchronized (Progress.class) {
            running = around;
        }
        if (drawer != null) {
            clear();
        }
    }
}
