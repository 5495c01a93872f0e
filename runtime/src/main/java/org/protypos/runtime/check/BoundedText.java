package org.protypos.runtime.check;

/**
 * Text to be matched against a pattern of the contract. Some patterns take for ever on some texts: each look at a
 * character is counted, and beyond a bound the match is given up.
 */
final class BoundedText implements CharSequence {
    private static final int MOST_LOOKS = 5_000_000;

    private final CharSequence text;
    private final int[] looks;

    BoundedText(CharSequence text) {
        this(text, new int[1]);
    }

    private BoundedText(CharSequence text, int[] looks) {
        this.text = text;
        this.looks = looks;
    }

    @Override
    public int length() {
        return text.length();
    }

    @Override
    public char charAt(int index) {
        if (++looks[0] > MOST_LOOKS) {
            throw new IllegalStateException("the pattern takes too long on this text");
        }
        return text.charAt(index);
    }

    @Override
    public CharSequence subSequence(int start, int end) {
        return new BoundedText(text.subSequence(start, end), looks);
    }

    @Override
    public String toString() {
        return text.toString();
    }
}
