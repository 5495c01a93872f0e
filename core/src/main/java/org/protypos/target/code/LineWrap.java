package org.protypos.target.code;

import java.util.ArrayList;
import java.util.List;

/** Breaks lines of source that are too long, where languages with braces may be broken: never inside a literal. */
public final class LineWrap {
    /** The longest line. */
    public static final int WIDTH = 120;

    private LineWrap() {}

    /**
     * Ends a line, which is broken if it has to be.
     *
     * @param start where the line starts
     * @param indent the white space before it, which is there already
     * @param further the white space before what goes on in the next line, beside that
     */
    static void end(StringBuilder to, int start, String indent, String further) {
        if (to.length() - start > WIDTH) {
            String line = to.substring(start + indent.length());
            to.setLength(start);
            broken(to, indent, further, line);
        } else {
            to.append('\n');
        }
    }

    private static void broken(StringBuilder to, String indent, String further, String line) {
        String rest = line;
        String before = indent;
        while (before.length() + rest.length() > WIDTH) {
            int at = place(rest, WIDTH - before.length());
            if (at <= 0) {
                break;
            }
            to.append(before).append(rest, 0, at).append('\n');
            rest = rest.substring(at).stripLeading();
            before = indent + further;
        }
        to.append(before).append(rest).append('\n');
    }

    /** Breaks text between words, each line as long as it may be; a word that is longer stays whole. */
    public static List<String> words(String text, int width) {
        List<String> lines = new ArrayList<>();
        String rest = text;
        while (rest.length() > width) {
            int at = rest.lastIndexOf(' ', width);
            if (at <= 0) {
                at = rest.indexOf(' ');
            }
            if (at <= 0) {
                break;
            }
            lines.add(rest.substring(0, at));
            rest = rest.substring(at + 1);
        }
        lines.add(rest);
        return lines;
    }

    /** Where to break: the outermost place that leaves the first part short enough, the last of those; 0 for none. */
    private static int place(String line, int room) {
        int best = 0;
        int bestDepth = Integer.MAX_VALUE;
        int depth = 0;
        int limit = Math.min(room, line.length() - 1);
        for (int i = 0; i <= limit; i++) {
            char c = line.charAt(i);
            if (c == '"' || c == '\'') {
                i = endOfLiteral(line, i, limit);
                continue;
            }
            boolean breaks = false;
            int at = i;
            if (c == '(' || c == '{' || c == '[') {
                depth++;
                breaks = c == '(' && i + 1 < line.length() && line.charAt(i + 1) != ')';
                at = i + 1;
            } else if (c == ')' || c == '}' || c == ']') {
                depth--;
            } else if (c == ' ' && i > 0) {
                char last = line.charAt(i - 1);
                breaks = last == ','
                        || startsAny(line, i + 1, "&& ", "|| ", "? ", ": ", "+ ", "throws ", "implements ")
                        || line.startsWith("= ", i - 2);
            }
            if (breaks && at <= limit && depth <= bestDepth && at > 0) {
                best = at;
                bestDepth = depth;
            }
        }
        return best;
    }

    private static boolean startsAny(String line, int at, String... starts) {
        for (String start : starts) {
            if (line.startsWith(start, at)) {
                return true;
            }
        }
        return false;
    }

    /** Where a literal ends; one that goes on behind the limit need not be read to its end. */
    private static int endOfLiteral(String line, int start, int limit) {
        int i = start + 1;
        while (i <= limit && line.charAt(i) != line.charAt(start)) {
            i += line.charAt(i) == '\\' ? 2 : 1;
        }
        return i;
    }
}
