package org.protypos.diagnostic;

/** Makes text that comes from anywhere fit to stand in a message: it may be long and hold anything. */
public final class Printable {
    private static final int MOST = 80;
    private static final String CUT = "...";

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
        String plain = String.valueOf(text).replaceAll("\\p{Cntrl}", "?");
        return plain.length() > most ? plain.substring(0, most - CUT.length()) + CUT : plain;
    }
}
