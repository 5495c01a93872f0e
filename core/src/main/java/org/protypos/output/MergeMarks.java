package org.protypos.output;

/** The lines that version control leaves in a text where both sides have changed the same. */
public final class MergeMarks {
    private static final int LENGTH = 7;

    private MergeMarks() {}

    /** Where the first of them begins, or -1 when there is none. */
    public static int first(String text) {
        int start = 0;
        do {
            if (start + LENGTH <= text.length() && isMark(text, start)) {
                return start;
            }
            start = text.indexOf('\n', start) + 1;
        } while (start > 0);
        return -1;
    }

    private static boolean isMark(String text, int start) {
        char sign = text.charAt(start);
        if (sign != '<' && sign != '=' && sign != '>') {
            return false;
        }
        int end = start + 1;
        while (end < text.length() && text.charAt(end) == sign) {
            end++;
        }
        return end == start + LENGTH && (end == text.length() || " \r\n".indexOf(text.charAt(end)) >= 0);
    }
}
