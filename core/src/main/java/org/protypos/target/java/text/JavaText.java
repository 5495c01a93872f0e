package org.protypos.target.java.text;

import org.protypos.target.ContractText;

/** Puts text of a contract into Java source, where it must stay text: in literals and in comments. */
public final class JavaText {
    /** A constant of a class file holds 65,535 bytes (JVM specification, section 4.4.7), and a character may take three. */
    private static final int LONGEST_LITERAL = 65_535 / 3;

    private JavaText() {}

    /**
     * A string literal, or several joined when a class file cannot hold it as one. Whatever is not a plain letter, digit or
     * sign is written as an escape.
     */
    public static String literal(String text) {
        if (text.length() <= LONGEST_LITERAL) {
            return ContractText.literal(text);
        }
        StringBuilder joined = new StringBuilder("String.join(\"\"");
        for (int from = 0; from < text.length(); from += LONGEST_LITERAL) {
            joined.append(", ")
                    .append(ContractText.literal(
                            text.substring(from, Math.min(text.length(), from + LONGEST_LITERAL))));
        }
        return joined.append(')').toString();
    }

    /** Text for a documentation comment: nothing in it can end the comment, be a tag or an escape. */
    public static String comment(String text) {
        return ContractText.comment(text, JavaText::ofComment);
    }

    private static String ofComment(StringBuilder before, int c) {
        char last = before.isEmpty() ? ' ' : before.charAt(before.length() - 1);
        return switch (c) {
            case '@' -> "&#64;";
            case '\\' -> "&#92;";
            case '*' -> last == '/' ? "&#42;" : "*";
            case '/' -> last == '*' ? "&#47;" : "/";
            default -> null;
        };
    }
}
