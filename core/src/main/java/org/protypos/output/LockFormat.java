package org.protypos.output;

import com.fasterxml.jackson.core.JsonFactory;

/** How lock files are read and written: JSON with a fact on each line, in which version control may have left its marks. */
public final class LockFormat {
    /** Names of fields are facts, each of them there once: remembering them costs, and saves nothing. */
    public static final JsonFactory JSON = JsonFactory.builder()
            .disable(JsonFactory.Feature.CANONICALIZE_FIELD_NAMES)
            .disable(JsonFactory.Feature.INTERN_FIELD_NAMES)
            .build();

    private static final int LENGTH = 7;

    private LockFormat() {}

    /** Where the first line begins that a merge has left which nobody has finished, or -1 when there is none. */
    public static int firstMergeMark(String text) {
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
