package org.protypos.runtime.check;

/**
 * Text to be matched against a pattern of the contract. Some patterns take for ever on some texts: each look at a
 * character is counted, and beyond a bound, which grows with the text, the match is given up.
 */
final class BoundedText implements CharSequence {
    private static final int LOOKS = 2_000;
    private static final int LOOKS_PER_CHARACTER = 100;

    private final String text;
    private long left;

    BoundedText(String text) {
        this.text = text;
        left = LOOKS + (long) LOOKS_PER_CHARACTER * text.length();
    }

    /** The match was given up. */
    static final class TooSlowException extends RuntimeException {
        private static final long serialVersionUID = 1L;

        TooSlowException() {
            super(null, null, false, false);
        }
    }

    @Override
    public int length() {
        return text.length();
    }

    @Override
    public char charAt(int index) {
        if (--left < 0) {
            throw new TooSlowException();
        }
        return text.charAt(index);
    }

    @Override
    public CharSequence subSequence(int start, int end) {
        return text.subSequence(start, end);
    }

    @Override
    public String toString() {
        return text.toString();
    }
}
