package org.protypos.target.cobol;

import java.util.List;
import java.util.stream.Collectors;
import org.protypos.target.SourceFile;
import org.protypos.target.code.LineWrap;

/** COBOL source in fixed form: comments from column 7, headings from 8, all else from 12, nothing behind 72. */
final class CobolFile {
    static final int LAST_COLUMN = 72;

    private static final String COMMENT = "      * ";
    private static final String AREA_A = " ".repeat(7);
    private static final String AREA_B = " ".repeat(11);

    /** The longest clause that a line holds. */
    static final int LONGEST_CLAUSE = LAST_COLUMN - AREA_B.length();

    private final String path;
    private final StringBuilder text = new StringBuilder(2048);

    CobolFile(String path, boolean generated) {
        this.path = path;
        if (generated) {
            comment(SourceFile.MARK + " from a service contract. Changes made here are lost.");
        }
    }

    /** Writes a comment, broken between words. */
    CobolFile comment(String words) {
        for (String part : words.strip().split("\\R")) {
            for (String line : LineWrap.words(plain(part), LAST_COLUMN - COMMENT.length())) {
                for (int from = 0; from == 0 || from < line.length(); from += LAST_COLUMN - COMMENT.length()) {
                    text.append(COMMENT)
                            .append(line, from, Math.min(line.length(), from + LAST_COLUMN - COMMENT.length()))
                            .append('\n');
                }
            }
        }
        return this;
    }

    /** Text that every code page has. */
    static String plain(String words) {
        return words.codePoints()
                .map(c -> c == '\t' ? ' ' : c < ' ' || c > '~' ? '?' : c)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString()
                .strip();
    }

    /** Writes a line that begins a division, a section, a paragraph or a record. */
    CobolFile heading(String line) {
        text.append(AREA_A).append(line).append('\n');
        return this;
    }

    /** Writes a statement or an entry, indented by a number of blanks. */
    CobolFile line(int indent, String line) {
        text.append(AREA_B).append(" ".repeat(indent)).append(line).append('\n');
        return this;
    }

    /** The same source in free form (ISO/IEC 1989:2014, section 6.2). */
    static SourceFile free(SourceFile fixed) {
        return new SourceFile(fixed.path(), free(fixed.text()));
    }

    static String free(String fixed) {
        return fixed.lines()
                .map(line -> line.startsWith(COMMENT.stripTrailing())
                        ? ("*> "
                                        + line.substring(COMMENT.stripTrailing().length())
                                                .strip())
                                .stripTrailing()
                        : line.substring(Math.min(AREA_A.length(), line.length())))
                .collect(Collectors.joining("\n", "", "\n"));
    }

    /** Writes an entry of several clauses, as many to a line as it holds; a long one is indented less. */
    CobolFile clauses(int indent, List<String> clauses) {
        StringBuilder line = new StringBuilder(AREA_B + " ".repeat(indent));
        boolean first = true;
        for (String clause : clauses) {
            if (!first && line.length() + 1 + clause.length() > LAST_COLUMN) {
                text.append(line).append('\n');
                int further = Math.max(0, Math.min(indent + 4, LONGEST_CLAUSE - clause.length()));
                line = new StringBuilder(AREA_B + " ".repeat(further)).append(clause);
            } else {
                line.append(first ? "" : " ").append(clause);
            }
            first = false;
        }
        text.append(line).append('\n');
        return this;
    }

    /** Writes an empty line. */
    CobolFile gap() {
        text.append("      *\n");
        return this;
    }

    /** How much has been written. */
    int length() {
        return text.length();
    }

    /** What has been written from some point on. */
    String since(int from) {
        return text.substring(from);
    }

    /** The file. */
    SourceFile finish() {
        return new SourceFile(path, text.toString());
    }
}
