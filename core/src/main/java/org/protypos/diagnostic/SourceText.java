package org.protypos.diagnostic;

import java.util.Arrays;

/** The text of a document together with the name under which findings speak of it. Lines are counted when needed. */
public final class SourceText {
    private final String name;
    private final String text;
    private int[] lineStarts;

    /**
     * Takes a text.
     *
     * @param name how to call the document in a finding
     * @param text its whole text; empty when it could not be read
     */
    public SourceText(String name, String text) {
        this.name = name;
        this.text = text;
    }

    /** How the document is called in a finding. */
    public String name() {
        return name;
    }

    /** The whole text. */
    public String text() {
        return text;
    }

    /** A place in this text; offsets beyond the end mean the end. */
    public Place at(int offset) {
        return new Place(this, Math.max(0, Math.min(offset, text.length())));
    }

    /** A place by line and column, both from 1, as parsers give it. */
    public Place at(int line, int column) {
        int[] starts = lineStarts();
        int index = Math.max(0, Math.min(line - 1, starts.length - 1));
        return at(starts[index] + Math.max(0, column - 1));
    }

    int line(int offset) {
        int found = Arrays.binarySearch(lineStarts(), offset);
        return found >= 0 ? found : -found - 2;
    }

    int lineStart(int line) {
        return lineStarts()[line];
    }

    /** What stands in a line before a place, from its beginning or its last characters. */
    String before(int offset, int most) {
        return text.substring(Math.max(lineStart(line(offset)), offset - most), offset);
    }

    /** What stands in a line from a place on, to its end or the first characters. */
    String behind(int offset, int most) {
        int end = offset;
        while (end < text.length() && end - offset < most && text.charAt(end) != '\n' && text.charAt(end) != '\r') {
            end++;
        }
        return text.substring(offset, end);
    }

    /** Lines end as those of XML do: with a line feed, a carriage return, or both (XML 1.0, section 2.11). */
    private synchronized int[] lineStarts() {
        if (lineStarts == null) {
            int[] starts = new int[64];
            int count = 1;
            for (int at = 0; at < text.length(); at++) {
                char c = text.charAt(at);
                if (c == '\n' || c == '\r' && !text.startsWith("\n", at + 1)) {
                    if (count == starts.length) {
                        starts = Arrays.copyOf(starts, count * 2);
                    }
                    starts[count++] = at + 1;
                }
            }
            lineStarts = Arrays.copyOf(starts, count);
        }
        return lineStarts;
    }
}
