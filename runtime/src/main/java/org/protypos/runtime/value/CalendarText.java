package org.protypos.runtime.value;

/**
 * Scans the parts that dates and times are written with (XML Schema Part 2, section 3.2.7.1 and appendix D). Each
 * method takes one part and moves behind it.
 */
final class CalendarText {
    /** Stands for a time zone that is not given. */
    static final int NO_ZONE = Integer.MIN_VALUE;

    private static final int MINUTES_PER_HOUR = 60;
    private static final int WIDEST_ZONE = 14 * MINUTES_PER_HOUR;

    private final String text;
    private int at;

    CalendarText(String text) {
        this.text = text;
    }

    IllegalArgumentException wrong() {
        return new IllegalArgumentException(text);
    }

    boolean comes(char c) {
        return at < text.length() && text.charAt(at) == c;
    }

    boolean skip(char c) {
        boolean there = comes(c);
        at += there ? 1 : 0;
        return there;
    }

    void expect(char c) {
        if (!skip(c)) {
            throw wrong();
        }
    }

    /** Takes digits and gives them as text. */
    String digits(int atLeast) {
        int start = at;
        while (at < text.length() && text.charAt(at) >= '0' && text.charAt(at) <= '9') {
            at++;
        }
        if (at - start < atLeast) {
            throw wrong();
        }
        return text.substring(start, at);
    }

    int twoDigits(int least, int most) {
        int start = at;
        String digits = digits(2);
        int value = digits.length() == 2 ? Integer.parseInt(digits) : -1;
        if (value < least || value > most || at - start != 2) {
            throw wrong();
        }
        return value;
    }

    /** Takes a year of four digits or more, with its sign. */
    String year() {
        String sign = skip('-') ? "-" : "";
        String digits = digits(4);
        if (digits.length() > 4 && digits.charAt(0) == '0') {
            throw wrong();
        }
        return sign + digits;
    }

    void monthAndDay(String year) {
        int month = twoDigits(1, 12);
        expect('-');
        twoDigits(1, daysIn(month, year));
    }

    private static int daysIn(int month, String year) {
        return switch (month) {
            case 4, 6, 9, 11 -> 30;
            case 2 -> isLeap(year) ? 29 : 28;
            default -> 31;
        };
    }

    /** Only the last four digits matter: the calendar repeats every 400 years. A year before 1 counts from 1 BCE. */
    private static boolean isLeap(String year) {
        if (year == null) {
            return true;
        }
        int digits = Integer.parseInt(year.substring(year.length() - 4));
        int count = year.charAt(0) == '-' && digits > 0 ? digits - 1 : digits;
        return count % 4 == 0 && (count % 100 != 0 || count % 400 == 0);
    }

    void time() {
        int hour = twoDigits(0, 24);
        expect(':');
        int minute = twoDigits(0, 59);
        expect(':');
        int second = twoDigits(0, 59);
        boolean fraction = false;
        if (skip('.')) {
            fraction = digits(1).chars().anyMatch(c -> c != '0');
        }
        if (hour == 24 && (minute != 0 || second != 0 || fraction)) {
            throw wrong();
        }
    }

    /** Takes a time zone if there is one; then nothing may be left. Gives minutes east of UTC. */
    int zoneAtEnd() {
        int zone = NO_ZONE;
        if (skip('Z')) {
            zone = 0;
        } else if (comes('+') || comes('-')) {
            int sign = skip('-') ? -1 : 1;
            skip('+');
            int hours = twoDigits(0, 14);
            expect(':');
            zone = sign * (hours * MINUTES_PER_HOUR + twoDigits(0, 59));
            if (Math.abs(zone) > WIDEST_ZONE) {
                throw wrong();
            }
        }
        if (at != text.length()) {
            throw wrong();
        }
        return zone;
    }

    boolean atEnd() {
        return at == text.length();
    }

    /** Where the time zone starts in a text known to be good, or its length when there is none. */
    static int zoneStart(String text) {
        int length = text.length();
        if (text.endsWith("Z")) {
            return length - 1;
        }
        int sign = length - "+00:00".length();
        boolean zoned = sign > 0 && text.charAt(length - 3) == ':' && "+-".indexOf(text.charAt(sign)) >= 0;
        return zoned ? sign : length;
    }
}
