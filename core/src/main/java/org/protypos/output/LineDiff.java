package org.protypos.output;

import java.util.ArrayList;
import java.util.List;

/** Tells two texts apart line by line, as people read differences: what went with a minus, what came with a plus. */
public final class LineDiff {
    private static final int CONTEXT = 2;
    private static final int MOST_LINES = 4_000;

    private final List<String> before;
    private final List<String> after;

    private LineDiff(String before, String after) {
        this.before = before.lines().toList();
        this.after = after.lines().toList();
    }

    /**
     * The differences, each with a line or two around it.
     *
     * @return the lines, each with a blank, a minus or a plus in front; a line {@code ...} stands for what is alike
     */
    public static List<String> of(String before, String after) {
        return new LineDiff(before, after).lines();
    }

    private List<String> lines() {
        int start = 0;
        int limit = Math.min(before.size(), after.size());
        while (start < limit && before.get(start).equals(after.get(start))) {
            start++;
        }
        int end = 0;
        while (end < limit - start && before.get(before.size() - 1 - end).equals(after.get(after.size() - 1 - end))) {
            end++;
        }
        List<String> changes = new ArrayList<>();
        for (int i = Math.max(0, start - CONTEXT); i < start; i++) {
            changes.add("  " + before.get(i));
        }
        middle(before.subList(start, before.size() - end), after.subList(start, after.size() - end), changes);
        for (int i = before.size() - end; i < Math.min(before.size(), before.size() - end + CONTEXT); i++) {
            changes.add("  " + before.get(i));
        }
        return shortened(changes);
    }

    /** The longest common subsequence decides what stays; texts too long for that differ as a whole. */
    private static void middle(List<String> a, List<String> b, List<String> to) {
        if ((long) a.size() * b.size() > (long) MOST_LINES * MOST_LINES) {
            a.forEach(line -> to.add("- " + line));
            b.forEach(line -> to.add("+ " + line));
            return;
        }
        int[][] common = new int[a.size() + 1][b.size() + 1];
        for (int i = a.size() - 1; i >= 0; i--) {
            for (int j = b.size() - 1; j >= 0; j--) {
                common[i][j] = a.get(i).equals(b.get(j))
                        ? common[i + 1][j + 1] + 1
                        : Math.max(common[i + 1][j], common[i][j + 1]);
            }
        }
        int i = 0;
        int j = 0;
        while (i < a.size() || j < b.size()) {
            if (i < a.size() && j < b.size() && a.get(i).equals(b.get(j))) {
                to.add("  " + a.get(i++));
                j++;
            } else if (j == b.size() || i < a.size() && common[i + 1][j] >= common[i][j + 1]) {
                to.add("- " + a.get(i++));
            } else {
                to.add("+ " + b.get(j++));
            }
        }
    }

    private static List<String> shortened(List<String> lines) {
        List<String> kept = new ArrayList<>();
        boolean left = false;
        for (int i = 0; i < lines.size(); i++) {
            boolean near = false;
            for (int j = Math.max(0, i - CONTEXT); j <= Math.min(lines.size() - 1, i + CONTEXT); j++) {
                near |= !lines.get(j).startsWith("  ");
            }
            if (near) {
                kept.add(lines.get(i));
            } else if (!left || !kept.isEmpty() && !kept.get(kept.size() - 1).equals("...")) {
                kept.add("...");
            }
            left = !near;
        }
        return kept;
    }
}
