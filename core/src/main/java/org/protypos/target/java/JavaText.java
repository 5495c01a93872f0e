package org.protypos.target.java;

/** Puts text of a contract into Java source, where it must stay text: in literals and in comments. */
final class JavaText {
    private static final int LONGEST_COMMENT = 4_000;

    /** A constant of a class file holds 65,535 bytes (JVM specification, section 4.4.7), and a character may take three. */
    private static final int LONGEST_LITERAL = 65_535 / 3;

    private JavaText() {}

    /**
     * A string literal, or several joined when a class file cannot hold it as one. Whatever is not a plain letter, digit or
     * sign is written as an escape.
     */
    static String literal(String text) {
        if (text.length() <= LONGEST_LITERAL) {
            return one(text);
        }
        StringBuilder joined = new StringBuilder("String.join(\"\"");
        for (int from = 0; from < text.length(); from += LONGEST_LITERAL) {
            joined.append(", ").append(one(text.substring(from, Math.min(text.length(), from + LONGEST_LITERAL))));
        }
        return joined.append(')').toString();
    }

    private static String one(String text) {
        StringBuilder literal = new StringBuilder(text.length() + 2).append('"');
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '"' -> literal.append("\\\"");
                case '\\' -> literal.append("\\\\");
                case '\n' -> literal.append("\\n");
                case '\r' -> literal.append("\\r");
                case '\t' -> literal.append("\\t");
                default -> {
                    if (c >= ' ' && c <= '~') {
                        literal.append(c);
                    } else {
                        literal.append(String.format("\\u%04x", (int) c));
                    }
                }
            }
        }
        return literal.append('"').toString();
    }

    /** Text for a documentation comment: nothing in it can end the comment, be a tag or an escape. */
    static String comment(String text) {
        StringBuilder comment = new StringBuilder(text.length());
        text.codePoints().limit(LONGEST_COMMENT).forEach(c -> {
            switch (c) {
                case '&' -> comment.append("&amp;");
                case '<' -> comment.append("&lt;");
                case '>' -> comment.append("&gt;");
                case '@' -> comment.append("&#64;");
                case '\\' -> comment.append("&#92;");
                case '*' ->
                    comment.append(comment.isEmpty() || comment.charAt(comment.length() - 1) != '/' ? "*" : "&#42;");
                case '/' ->
                    comment.append(!comment.isEmpty() && comment.charAt(comment.length() - 1) == '*' ? "&#47;" : "/");
                case '\n' -> comment.append('\n');
                default -> appendVisible(comment, c);
            }
        });
        return comment.toString();
    }

    /** Controls, separators and marks of direction could make a reader see other code than the compiler does. */
    private static void appendVisible(StringBuilder comment, int c) {
        switch (Character.getType(c)) {
            case Character.CONTROL,
                    Character.FORMAT,
                    Character.SURROGATE,
                    Character.PRIVATE_USE,
                    Character.UNASSIGNED,
                    Character.LINE_SEPARATOR,
                    Character.PARAGRAPH_SEPARATOR -> comment.append(' ');
            default -> comment.appendCodePoint(c);
        }
    }
}
