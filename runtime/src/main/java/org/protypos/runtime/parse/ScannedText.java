package org.protypos.runtime.parse;

/** A text on its way: as long as it stands in the buffer in one piece it is not copied before somebody asks for it. */
final class ScannedText {
    private static final int KEPT = 1 << 16;

    private StringBuilder pieces = new StringBuilder();
    private int start;
    private int end;
    private boolean whole;
    private boolean blank;

    void begin() {
        pieces.setLength(0);
        blank = true;
        whole = true;
    }

    /** Something else than white space has come. */
    void seeMark() {
        blank = false;
    }

    /** Takes a piece from the buffer, whose content may change then. */
    void add(char[] buffer, int from, int to) {
        pieces.append(buffer, from, to - from);
        whole = false;
    }

    /** Takes a character that is written otherwise. */
    void add(int point) {
        pieces.appendCodePoint(point);
        whole = false;
        blank &= point < 128 && Characters.isSpace((char) point);
    }

    /** Takes the last piece, which stays in the buffer for the time being. */
    void end(char[] buffer, int from, int to) {
        start = from;
        end = to;
        if (!whole) {
            pieces.append(buffer, from, to - from);
        }
    }

    String finished(char[] buffer, int from, int to) {
        end(buffer, from, to);
        return text(buffer);
    }

    String text(char[] buffer) {
        return whole ? new String(buffer, start, end - start) : pieces.toString();
    }

    boolean isBlank() {
        return blank;
    }

    /** Gives up what took much memory. */
    void close() {
        if (pieces.capacity() > KEPT) {
            pieces = new StringBuilder();
        }
    }
}
