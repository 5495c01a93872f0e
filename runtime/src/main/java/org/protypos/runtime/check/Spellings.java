package org.protypos.runtime.check;

import java.math.BigDecimal;
import java.util.Locale;
import java.util.function.Predicate;

/** The ways to write one value (XML Schema Part 2, section 3.2), for types whose patterns do not take the ordinary one. */
final class Spellings {
    private static final int MOST_ZEROS_BEFORE = 18;
    private static final int MOST_ZEROS_BEHIND = 12;
    private static final int MOST_PLACES = 400;

    private Spellings() {}

    /**
     * Finds another way to write a value.
     *
     * @param primitive the primitive type of the value
     * @param whole whether it is a number without a point
     * @param ordinary the ordinary way
     * @param fits whether a way will do
     * @return the first way that does, the closest to the ordinary one first; null when there is none
     */
    static String find(String primitive, boolean whole, String ordinary, Predicate<String> fits) {
        return switch (primitive) {
            case "boolean" ->
                ordinary.equals("true") ? one("1", fits) : ordinary.equals("false") ? one("0", fits) : null;
            case "hexBinary" -> one(ordinary.toLowerCase(Locale.ROOT), fits);
            case "decimal", "float", "double" -> {
                BigDecimal number = number(ordinary);
                yield number == null ? null : number(number, ordinary.startsWith("-"), whole, fits);
            }
            default -> null;
        };
    }

    /** The number that a text stands for, or null when it is none or would be too long without an exponent. */
    private static BigDecimal number(String text) {
        try {
            BigDecimal number = new BigDecimal(text);
            return Math.abs((long) number.scale()) > MOST_PLACES ? null : number.abs();
        } catch (NumberFormatException e) {
            return null;
        }
    }

    private static String one(String way, Predicate<String> fits) {
        return fits.test(way) ? way : null;
    }

    private static String number(BigDecimal size, boolean negative, boolean whole, Predicate<String> fits) {
        String plain = size.toPlainString();
        int point = plain.indexOf('.');
        String before = point < 0 ? plain : plain.substring(0, point);
        String behind = point < 0 ? "" : plain.substring(point + 1).replaceFirst("0+$", "");
        // What is less than one can be written with no digit before the point, which is the last way to try.
        int most = whole || behind.isEmpty() || !before.equals("0") ? MOST_ZEROS_BEFORE : MOST_ZEROS_BEFORE + 1;
        for (int leading = 0; leading <= most; leading++) {
            String start = leading > MOST_ZEROS_BEFORE ? "" : "0".repeat(leading) + before;
            for (int trailing = 0; trailing <= (whole ? 0 : MOST_ZEROS_BEHIND); trailing++) {
                String fraction = behind + "0".repeat(trailing);
                String digits = start + (fraction.isEmpty() ? "" : "." + fraction);
                String signed = negative ? "-" + digits : digits;
                if (fits.test(signed)) {
                    return signed;
                }
                if (!negative && fits.test("+" + digits)) {
                    return "+" + digits;
                }
            }
        }
        return null;
    }
}
