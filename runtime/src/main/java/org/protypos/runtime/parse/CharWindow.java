package org.protypos.runtime.parse;

import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;
import java.util.Locale;
import javax.xml.stream.Location;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.util.StreamReaderDelegate;

/** The part of a message that is looked at, and where that is. */
abstract class CharWindow extends StreamReaderDelegate {
    private static final int FIRST_BUFFER = 2048;
    private static final int KEPT_BUFFER = 1 << 16;

    /** Characters, of which those from {@link #at} to {@link #end} are to come. */
    char[] buffer = new char[FIRST_BUFFER];

    int at;
    int end;

    /** From here on characters are still needed, -1 when only those are that are to come. */
    int mark;

    private final CharSource source = new CharSource();
    private boolean ended;
    private long before;
    private int line;
    private long lineStart;

    final void open(String text) {
        reset();
        source.open(text);
    }

    private void reset() {
        at = 0;
        end = 0;
        mark = -1;
        ended = false;
        before = 0;
        line = 1;
        lineStart = 0;
    }

    final void open(InputStream in, String encoding) throws XMLStreamException {
        reset();
        try {
            source.open(in, encoding);
        } catch (IOException e) {
            throw wrong(e.getMessage());
        }
        if (isAt("\uFEFF")) {
            at++;
            before = -1;
        }
    }

    /** Gives up what took much memory. */
    final void shrink() {
        if (buffer.length > KEPT_BUFFER) {
            buffer = new char[FIRST_BUFFER];
        }
    }

    final XMLStreamException wrong(String what) {
        return new XMLStreamException(what, getLocation()) {
            private static final long serialVersionUID = 1L;

            @Override
            public String getMessage() {
                return what;
            }
        };
    }

    /** Adds to the buffer; what stands before the mark, or before the present place, is given up. */
    final boolean more() throws XMLStreamException {
        if (ended) {
            return false;
        }
        int keep = mark >= 0 ? mark : at;
        System.arraycopy(buffer, keep, buffer, 0, end - keep);
        before += keep;
        at -= keep;
        end -= keep;
        mark = mark >= 0 ? 0 : mark;
        // A character may take two places.
        if (end + 2 > buffer.length) {
            buffer = Arrays.copyOf(buffer, buffer.length * 2);
        }
        try {
            int count = source.read(buffer, end, buffer.length - end);
            ended = count < 0;
            end += Math.max(0, count);
        } catch (IOException e) {
            throw wrong(e.getMessage());
        }
        return !ended;
    }

    final boolean has(int count) throws XMLStreamException {
        while (end - at < count) {
            if (!more()) {
                return false;
            }
        }
        return true;
    }

    final boolean isAt(String wanted) throws XMLStreamException {
        if (!has(wanted.length())) {
            return false;
        }
        for (int i = 0; i < wanted.length(); i++) {
            if (buffer[at + i] != wanted.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    final void need(String wanted, String where) throws XMLStreamException {
        if (!isAt(wanted)) {
            throw wrong(has(1) ? "\"" + wanted + "\" is missing " + where : "it ends " + where);
        }
        at += wanted.length();
    }

    /** How many characters have been passed. */
    final int offset() {
        return (int) Math.min(Integer.MAX_VALUE, before + at);
    }

    final void newLine() {
        line++;
        lineStart = before + at;
    }

    /** Passes over the end of a line, however it is written (XML 1.0, section 2.11). */
    final void lineEnd() throws XMLStreamException {
        at++;
        if (has(1) && buffer[at] == '\n') {
            at++;
        }
        newLine();
    }

    /** Passes over white space. */
    final boolean space() throws XMLStreamException {
        boolean any = false;
        while (at < end || more()) {
            char c = buffer[at];
            if (!Characters.isSpace(c)) {
                return any;
            }
            any = true;
            at++;
            if (c == '\n' || c == '\r' && !(has(1) && buffer[at] == '\n')) {
                newLine();
            }
        }
        return any;
    }

    /** Moves behind what ends something in which anything else may stand. */
    final void past(String what, String where) throws XMLStreamException {
        while (at < end || more()) {
            char c = buffer[at];
            if (c == what.charAt(0) && isAt(what)) {
                at += what.length();
                return;
            }
            at++;
            if (c == '\n' || c == '\r' && !(has(1) && buffer[at] == '\n')) {
                newLine();
            } else if (!Characters.isPlain(c)) {
                legal(c);
            }
        }
        throw wrong("it ends " + where);
    }

    /** Surrogates come in pairs from every decoder. */
    final void legal(char c) throws XMLStreamException {
        if (!Characters.isLegal(c) && !Character.isSurrogate(c)) {
            throw wrong("the character " + String.format(Locale.ROOT, "U+%04X", (int) c) + " has no place in XML");
        }
    }

    /** Behind what was read last. */
    @Override
    public Location getLocation() {
        return new Place(line, (int) (before + at - lineStart) + 1, offset());
    }

    private record Place(int getLineNumber, int getColumnNumber, int getCharacterOffset) implements Location {
        @Override
        public String getPublicId() {
            return null;
        }

        @Override
        public String getSystemId() {
            return null;
        }
    }
}
