package org.protypos.target.csharp.emit;

import java.util.ArrayList;
import java.util.List;

/**
 * Writes the blocks of characters that a pattern names (XML Schema Part 2, appendix F.1.1) out as ranges, for a runtime that does not
 * know them by name.
 */
final class CharacterBlocks {
    private CharacterBlocks() {}

    /** A pattern with no block in it any longer. */
    static String writtenOut(String pattern) {
        if (!pattern.contains("{Is")) {
            return pattern;
        }
        StringBuilder text = new StringBuilder();
        int inClass = 0;
        for (int i = 0; i < pattern.length(); i++) {
            char c = pattern.charAt(i);
            if (c == '\\' && (pattern.startsWith("p{Is", i + 1) || pattern.startsWith("P{Is", i + 1))) {
                int end = pattern.indexOf('}', i);
                String ranges = ranges(pattern.substring(i + 5, end), pattern.charAt(i + 1) == 'P');
                text.append(inClass > 0 ? ranges : "[" + ranges + "]");
                i = end;
            } else if (c == '\\') {
                text.append(c).append(pattern.charAt(++i));
            } else {
                inClass += c == '[' ? 1 : c == ']' ? -1 : 0;
                text.append(c);
            }
        }
        return text.toString();
    }

    private static String ranges(String name, boolean others) {
        List<int[]> ranges = new ArrayList<>();
        Character.UnicodeBlock block = Character.UnicodeBlock.forName(name);
        int start = -1;
        for (int c = 0; c <= Character.MAX_CODE_POINT + 1; c++) {
            boolean in = c <= Character.MAX_CODE_POINT
                    && !(c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE)
                    && block.equals(Character.UnicodeBlock.of(c)) != others;
            if (in && start < 0) {
                start = c;
            } else if (!in && start >= 0) {
                ranges.add(new int[] {start, c - 1});
                start = -1;
            }
        }
        StringBuilder text = new StringBuilder();
        ranges.forEach(range -> text.append(escaped(range[0])).append('-').append(escaped(range[1])));
        return text.toString();
    }

    private static String escaped(int c) {
        return "\\|.?*+(){}-[]^".indexOf(c) >= 0 ? "\\" + (char) c : Character.toString(c);
    }
}
