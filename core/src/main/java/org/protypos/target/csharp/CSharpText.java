package org.protypos.target.csharp;

/** Puts text of a contract into C# source, where it must stay text: in literals and in comments. */
final class CSharpText {
    private static final int LONGEST_COMMENT = 4_000;

    private CSharpText() {}

    /** A string literal. Whatever is not a plain letter, digit or sign is written as an escape. */
    static String literal(String text) {
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

    /** Text for a documentation comment, which is XML: nothing in it can end a line early or be a tag. */
    static String comment(String text) {
        StringBuilder comment = new StringBuilder(text.length());
        text.codePoints().limit(LONGEST_COMMENT).forEach(c -> {
            switch (c) {
                case '&' -> comment.append("&amp;");
                case '<' -> comment.append("&lt;");
                case '>' -> comment.append("&gt;");
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
