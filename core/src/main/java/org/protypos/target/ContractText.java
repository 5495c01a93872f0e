package org.protypos.target;

import java.util.HexFormat;
import java.util.function.BiFunction;

/** Puts text of a contract into source of languages that write literals as C does, where it must stay text. */
public final class ContractText {
    private static final int LONGEST_COMMENT = 4_000;

    private ContractText() {}

    /** A string literal. Whatever is not a plain letter, digit or sign is written as an escape. */
    public static String literal(String text) {
        StringBuilder literal = new StringBuilder(text.length() + 2).append('"');
        int from = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c < ' ' || c > '~' || c == '"' || c == '\\') {
                literal.append(text, from, i).append(escape(c));
                from = i + 1;
            }
        }
        literal.append(text, from, text.length());
        return literal.append('"').toString();
    }

    private static String escape(char c) {
        return switch (c) {
            case '"' -> "\\\"";
            case '\\' -> "\\\\";
            case '\n' -> "\\n";
            case '\r' -> "\\r";
            case '\t' -> "\\t";
            default -> "\\u" + HexFormat.of().toHexDigits(c);
        };
    }

    /**
     * Text for a documentation comment in which tags and entities are those of XML or HTML. Controls, separators and marks of direction
     * could make a reader see other code than the compiler does: they become blanks.
     *
     * @param own gives what the language writes for a character behind what is written so far, or null for the character itself
     */
    public static String comment(String text, BiFunction<StringBuilder, Integer, String> own) {
        StringBuilder comment = new StringBuilder(text.length());
        text.codePoints().limit(LONGEST_COMMENT).forEach(c -> {
            switch (c) {
                case '&' -> comment.append("&amp;");
                case '<' -> comment.append("&lt;");
                case '>' -> comment.append("&gt;");
                case '\n' -> comment.append('\n');
                default -> {
                    String written = own.apply(comment, c);
                    if (written == null) {
                        appendVisible(comment, c);
                    } else {
                        comment.append(written);
                    }
                }
            }
        });
        return comment.toString();
    }

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
