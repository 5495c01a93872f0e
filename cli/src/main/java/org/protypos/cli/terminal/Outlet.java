package org.protypos.cli.terminal;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.Locale;

/** Where results go, with a memory of why they did not: who reads the first lines and leaves has had enough, and nothing failed. */
public final class Outlet extends FilterOutputStream {
    private volatile boolean left;

    /** Stands before a stream. */
    public Outlet(OutputStream out) {
        super(out);
    }

    /** Whether the reader at the other end of a pipe has gone. */
    public boolean isLeft() {
        return left;
    }

    @Override
    public void write(byte[] bytes, int from, int count) throws IOException {
        try {
            out.write(bytes, from, count);
        } catch (IOException e) {
            throw seen(e);
        }
    }

    @Override
    public void flush() throws IOException {
        try {
            out.flush();
        } catch (IOException e) {
            throw seen(e);
        }
    }

    private IOException seen(IOException failure) {
        left |= String.valueOf(failure.getMessage()).toLowerCase(Locale.ROOT).contains("pipe");
        return failure;
    }
}
