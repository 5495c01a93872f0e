package org.protypos.layout;

/**
 * The fixed form of one value.
 *
 * @param usage how it stands in bytes
 * @param size how many characters or bytes it has, or how many digits, those behind the point among them
 * @param decimals how many of the digits stand behind the point
 * @param signed whether a number may be negative
 */
public record Picture(Usage usage, int size, int decimals, boolean signed) {
    /** The most digits of a binary number: what eight bytes hold. */
    public static final int MOST_BINARY_DIGITS = 18;

    private static final int HALF_WORD_DIGITS = 4;
    private static final int WORD_DIGITS = 9;

    /** Text of so many characters of one byte each. */
    public static Picture text(int size) {
        return new Picture(Usage.TEXT, size, 0, false);
    }

    /** So many bytes. */
    public static Picture bytes(int size) {
        return new Picture(Usage.BYTES, size, 0, false);
    }

    /** The name of a file, of so many characters. */
    public static Picture file(int size) {
        return new Picture(Usage.FILE, size, 0, false);
    }

    /** A number that counts up to some other. */
    public static Picture counting(int most) {
        return new Picture(Usage.BINARY, most > 9_999 ? WORD_DIGITS : HALF_WORD_DIGITS, 0, true);
    }

    /** Whether it holds a number. */
    public boolean isNumber() {
        return usage == Usage.ZONED || usage == Usage.PACKED || usage == Usage.BINARY;
    }

    /** Its length in bytes. */
    public int length() {
        return switch (usage) {
            case TEXT, BYTES, FILE, ZONED -> size;
            case PACKED -> size / 2 + 1;
            case BINARY -> size <= HALF_WORD_DIGITS ? 2 : size <= WORD_DIGITS ? 4 : 8;
        };
    }
}
