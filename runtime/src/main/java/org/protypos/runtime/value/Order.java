package org.protypos.runtime.value;

import java.math.BigDecimal;
import java.math.BigInteger;

/**
 * The order of values of the built-in types (XML Schema Part 2, the order relations of section 3.2). It is partial where
 * a time zone is missing or a duration counts in months.
 */
public final class Order {
    /** Neither is known to be the greater. */
    public static final int UNDECIDED = 2;

    private static final int SECONDS_PER_MINUTE = 60;
    private static final int SECONDS_PER_HOUR = 3_600;
    private static final BigDecimal SECONDS_PER_DAY = BigDecimal.valueOf(86_400);
    private static final BigDecimal WIDEST_ZONE = BigDecimal.valueOf(14L * SECONDS_PER_HOUR);
    private static final int MONTHS_PER_YEAR = 12;
    private static final int DAYS_PER_ERA = 146_097;

    /** The points in time to which durations are added to compare them (section 3.2.6.2), as years and months. */
    private static final int[][] DURATION_STARTS = {{1696, 9}, {1697, 2}, {1903, 3}, {1903, 7}};

    private Order() {}

    /**
     * Compares two values of one type.
     *
     * @param primitive the name of the primitive type they have in common, null when there is none
     * @return negative, zero, positive, or {@link #UNDECIDED}
     * @throws IllegalArgumentException when a text is not of the type, or the values of the type have no order
     */
    public static int compare(String primitive, String a, String b) {
        return switch (String.valueOf(primitive)) {
            case "decimal" -> Lexical.parseDecimal(a).compareTo(Lexical.parseDecimal(b));
            case "float" -> compare(Lexical.parseFloat(a), Lexical.parseFloat(b));
            case "double" -> compare(Lexical.parseDouble(a), Lexical.parseDouble(b));
            case "duration" -> compare(Span.of(a), Span.of(b));
            default -> {
                if (!isMoment(primitive)) {
                    throw new IllegalArgumentException("values of " + primitive + " have no order");
                }
                yield compare(Moment.of(primitive, a), Moment.of(primitive, b));
            }
        };
    }

    /** Something that two values of one type have in common exactly when they are the same value. */
    public static Object identity(String primitive, String text) {
        return switch (primitive) {
            case "decimal" -> Lexical.parseDecimal(text).stripTrailingZeros();
            // The two zeros are one value.
            case "float" -> Lexical.parseFloat(text) + 0f;
            case "double" -> Lexical.parseDouble(text) + 0d;
            case "boolean" -> Lexical.parseBoolean(text);
            case "duration" -> Span.of(text);
            case "hexBinary" -> Lexical.printHex(Lexical.parseHex(text));
            case "base64Binary" -> Lexical.printBase64(Lexical.parseBase64(text));
            default -> isMoment(primitive) ? Moment.of(primitive, text) : text;
        };
    }

    private static boolean isMoment(String primitive) {
        return switch (String.valueOf(primitive)) {
            case "dateTime", "date", "time", "gYear", "gYearMonth", "gMonth", "gMonthDay", "gDay" -> true;
            default -> false;
        };
    }

    /** What is no number is neither less nor greater than any other value (XML Schema Part 2, section 3.2.4). */
    private static int compare(double a, double b) {
        if (Double.isNaN(a) || Double.isNaN(b)) {
            return Double.isNaN(a) && Double.isNaN(b) ? 0 : UNDECIDED;
        }
        return a < b ? -1 : a > b ? 1 : 0;
    }

    private static int compare(Moment a, Moment b) {
        if (a.zoned == b.zoned) {
            return a.seconds.compareTo(b.seconds);
        }
        if (!a.zoned) {
            int reverse = compare(b, a);
            return reverse == UNDECIDED ? UNDECIDED : -reverse;
        }
        if (a.seconds.compareTo(b.seconds.subtract(WIDEST_ZONE)) < 0) {
            return -1;
        }
        return a.seconds.compareTo(b.seconds.add(WIDEST_ZONE)) > 0 ? 1 : UNDECIDED;
    }

    private static int compare(Span a, Span b) {
        int first = 0;
        for (int i = 0; i < DURATION_STARTS.length; i++) {
            int here = a.from(DURATION_STARTS[i]).compareTo(b.from(DURATION_STARTS[i]));
            if (i > 0 && here != first) {
                return UNDECIDED;
            }
            first = here;
        }
        return first;
    }

    /** Days from a fixed day to the first of a month, in the calendar that goes on for ever in both directions. */
    private static BigDecimal days(BigInteger year, int month, int day) {
        BigInteger shifted = month <= 2 ? year.subtract(BigInteger.ONE) : year;
        BigInteger[] parts = shifted.divideAndRemainder(BigInteger.valueOf(400));
        if (parts[1].signum() < 0) {
            parts[0] = parts[0].subtract(BigInteger.ONE);
            parts[1] = parts[1].add(BigInteger.valueOf(400));
        }
        int ofEra = parts[1].intValue();
        int ofYear = (153 * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1;
        int inEra = ofEra * 365 + ofEra / 4 - ofEra / 100 + ofYear;
        return new BigDecimal(
                parts[0].multiply(BigInteger.valueOf(DAYS_PER_ERA)).add(BigInteger.valueOf(inEra)));
    }

    /** A point on the time line, in seconds; without a time zone it is only near one. */
    private record Moment(BigDecimal seconds, boolean zoned) {
        static Moment of(String type, String text) {
            String value = Lexical.collapse(text);
            Lexical.parse(type, value);
            int end = CalendarText.zoneStart(value);
            String local = value.substring(0, end);
            BigInteger year = BigInteger.valueOf(1972);
            int month = 12;
            int day = 31;
            if (type.equals("dateTime") || type.equals("date") || type.startsWith("gYear")) {
                int dash = local.indexOf('-', 1);
                year = Lexical.parseInteger(dash < 0 ? local : local.substring(0, dash));
                year = year.signum() < 0 ? year.add(BigInteger.ONE) : year;
                month = dash < 0 ? 1 : number(local, dash + 1);
                day = dash < 0 || type.startsWith("gYear") ? 1 : number(local, dash + 4);
            } else if (type.startsWith("g")) {
                month = type.equals("gDay") ? 1 : number(local, 2);
                day = type.equals("gMonth") ? 1 : type.equals("gDay") ? number(local, 3) : number(local, 5);
            }
            BigDecimal seconds = days(year, month, day).multiply(SECONDS_PER_DAY);
            int time = type.equals("time") ? 0 : local.indexOf('T') + 1;
            if (time > 0 || type.equals("time")) {
                seconds = seconds.add(BigDecimal.valueOf((long) number(local, time) * SECONDS_PER_HOUR
                                + (long) number(local, time + 3) * SECONDS_PER_MINUTE))
                        .add(Lexical.parseDecimal(local.substring(time + 6)));
            }
            seconds = seconds.subtract(BigDecimal.valueOf(zone(value.substring(end)) * (long) SECONDS_PER_MINUTE));
            return new Moment(
                    seconds.signum() == 0 ? BigDecimal.ZERO : seconds.stripTrailingZeros(), end < value.length());
        }

        private static int number(String text, int at) {
            return Integer.parseInt(text.substring(at, at + 2));
        }

        private static int zone(String text) {
            if (text.length() < "+00:00".length()) {
                return 0;
            }
            int minutes = number(text, 1) * SECONDS_PER_MINUTE + number(text, 4);
            return text.charAt(0) == '-' ? -minutes : minutes;
        }
    }

    /** A duration as months and seconds, which do not convert into each other. */
    private record Span(BigInteger months, BigDecimal seconds) {
        static Span of(String text) {
            String value = XmlDuration.of(text).text();
            boolean negative = value.startsWith("-");
            BigDecimal[] parts = new BigDecimal[6];
            int slot = 0;
            int start = value.indexOf('P') + 1;
            for (int i = start; i < value.length(); i++) {
                char c = value.charAt(i);
                if (c == 'T') {
                    slot = 3;
                    start = i + 1;
                } else if (c > '9') {
                    slot = c == 'Y' ? 0 : c == 'D' ? 2 : c == 'H' ? 3 : c == 'S' ? 5 : slot >= 3 ? 4 : 1;
                    parts[slot] = Lexical.parseDecimal(value.substring(start, i));
                    start = i + 1;
                }
            }
            BigDecimal months =
                    part(parts[0]).multiply(BigDecimal.valueOf(MONTHS_PER_YEAR)).add(part(parts[1]));
            BigDecimal seconds = part(parts[2])
                    .multiply(SECONDS_PER_DAY)
                    .add(part(parts[3]).multiply(BigDecimal.valueOf(SECONDS_PER_HOUR)))
                    .add(part(parts[4]).multiply(BigDecimal.valueOf(SECONDS_PER_MINUTE)))
                    .add(part(parts[5]));
            BigDecimal total = seconds.signum() == 0 ? BigDecimal.ZERO : seconds.stripTrailingZeros();
            return new Span(
                    negative ? months.toBigInteger().negate() : months.toBigInteger(),
                    negative ? total.negate() : total);
        }

        private static BigDecimal part(BigDecimal value) {
            return value == null ? BigDecimal.ZERO : value;
        }

        BigDecimal from(int[] start) {
            BigInteger month = months.add(BigInteger.valueOf((long) start[0] * MONTHS_PER_YEAR + start[1] - 1));
            BigInteger[] parts = month.divideAndRemainder(BigInteger.valueOf(MONTHS_PER_YEAR));
            if (parts[1].signum() < 0) {
                parts[0] = parts[0].subtract(BigInteger.ONE);
                parts[1] = parts[1].add(BigInteger.valueOf(MONTHS_PER_YEAR));
            }
            return days(parts[0], parts[1].intValue() + 1, 1)
                    .multiply(SECONDS_PER_DAY)
                    .add(seconds);
        }
    }
}
