package org.protypos.cli.terminal;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.Writer;

/**
 * Writes for a person who looks, where what is shown whole (a message, a sketch) may hold characters that are obeyed
 * instead: controls of the second set, one of which begins a command (ECMA-48, section 5.3), and marks that turn the
 * direction of text. They show as what cannot be shown. Commands of our own begin with ESC, which no XML holds.
 */
public final class TamedWriter extends FilterWriter {
    /** Stands before a writer. */
    public TamedWriter(Writer out) {
        super(out);
    }

    @Override
    public void write(int c) throws IOException {
        out.write(tamed((char) c));
    }

    @Override
    public void write(char[] text, int from, int count) throws IOException {
        char[] tame = new char[count];
        for (int i = 0; i < count; i++) {
            tame[i] = tamed(text[from + i]);
        }
        out.write(tame, 0, count);
    }

    @Override
    public void write(String text, int from, int count) throws IOException {
        write(text.toCharArray(), from, count);
    }

    private static char tamed(char c) {
        boolean isObeyed =
                c >= '\u0080' && c <= '\u009f' || c >= '\u202a' && c <= '\u202e' || c >= '\u2066' && c <= '\u2069';
        return isObeyed ? Terminal.INSTEAD : c;
    }
}
