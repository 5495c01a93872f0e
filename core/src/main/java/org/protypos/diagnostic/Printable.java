package org.protypos.diagnostic;

import java.util.Locale;

/** Makes text that comes from anywhere fit to stand in a message: it may be long and hold anything. */
public final class Printable {
    private static final int MOST = 80;
    private static final String CUT = "...";
    private static final int ZERO_WIDTH_NON_JOINER = 0x200c;
    private static final int ZERO_WIDTH_JOINER = 0x200d;

    private Printable() {}

    /** The text on one line, with its end cut off when it is long; null is told as such. */
    public static String of(String text) {
        return of(text, MOST);
    }

    /**
     * Does the same with another length.
     *
     * @param most how many characters there may be
     */
    public static String of(String text, int most) {
        String plain = without(String.valueOf(text), '?');
        return plain.length() > most ? plain.substring(0, most - CUT.length()) + CUT : plain;
    }

    /**
     * Whether a character shows nothing of itself and may change how what stands around it is shown: what a terminal
     * obeys, what turns the direction of text, what ends lines in one place and not in another. The two that join
     * letters or keep them apart (Persian, families of pictures) are none.
     */
    public static boolean isHidden(int codePoint) {
        return switch (Character.getType(codePoint)) {
            case Character.CONTROL, Character.LINE_SEPARATOR, Character.PARAGRAPH_SEPARATOR -> true;
            case Character.FORMAT -> codePoint != ZERO_WIDTH_NON_JOINER && codePoint != ZERO_WIDTH_JOINER;
            default -> false;
        };
    }

    /** The text with another character in place of each that is hidden. */
    public static String without(String text, char instead) {
        StringBuilder plain = new StringBuilder(text.length());
        text.codePoints().forEach(c -> plain.appendCodePoint(isHidden(c) ? instead : c));
        return plain.toString();
    }

    /** The text in quotation marks, which YAML and JSON read alike: what is hidden is written as its number. */
    public static String quoted(String text) {
        StringBuilder quoted = new StringBuilder(text.length() + 2).append('"');
        text.codePoints().forEach(c -> {
            switch (c) {
                case '"', '\\' -> quoted.append('\\').append((char) c);
                case '\n' -> quoted.append("\\n");
                case '\r' -> quoted.append("\\r");
                case '\t' -> quoted.append("\\t");
                default -> {
                    if (isHidden(c)) {
                        for (char unit : Character.toChars(c)) {
                            quoted.append(String.format(Locale.ROOT, "\\u%04x", (int) unit));
                        }
                    } else {
                        quoted.appendCodePoint(c);
                    }
                }
            }
        });
        return quoted.append('"').toString();
    }
}
