package org.protypos.cli.terminal;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;

/** Rows of text, their columns lined up. */
public final class Columns {
    private final int indent;
    private final List<String[]> rows = new ArrayList<>();

    /** Starts a table whose lines are indented by a number of blanks. */
    public Columns(int indent) {
        this.indent = indent;
    }

    /** Adds a line of cells. */
    public void row(String... cells) {
        for (int i = 0; i < cells.length; i++) {
            cells[i] = Terminal.plain(cells[i]);
        }
        rows.add(cells);
    }

    /** Prints the lines, each column as wide as its widest cell. */
    public void print(PrintWriter out) {
        int[] widths = new int[rows.stream().mapToInt(row -> row.length).max().orElse(0)];
        for (String[] row : rows) {
            for (int i = 0; i < row.length; i++) {
                widths[i] = Math.max(widths[i], row[i].length());
            }
        }
        for (String[] row : rows) {
            StringBuilder line = new StringBuilder(" ".repeat(indent));
            for (int i = 0; i < row.length; i++) {
                line.append(row[i]).append(" ".repeat(widths[i] - row[i].length() + 2));
            }
            out.println(line.toString().stripTrailing());
        }
    }
}
