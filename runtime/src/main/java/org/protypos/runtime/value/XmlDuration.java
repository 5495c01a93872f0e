package org.protypos.runtime.value;

import java.time.Duration;
import java.time.Period;

/**
 * A value of {@code xs:duration} (XML Schema Part 2, section 3.2.6): years, months and days as well as hours, minutes
 * and seconds, which {@code java.time} keeps in two types.
 */
public final class XmlDuration extends WrittenValue {
    private XmlDuration(String text) {
        super(text);
    }

    /**
     * Reads a duration such as {@code P2D} or {@code -P1Y2M3DT4H5M6.7S}.
     *
     * @throws IllegalArgumentException when the text is not of the type
     */
    public static XmlDuration of(String text) {
        String value = Lexical.collapse(text);
        CalendarText scan = new CalendarText(value);
        scan.skip('-');
        scan.expect('P');
        boolean any = parts(scan, "YMD", false);
        if (scan.skip('T')) {
            if (!parts(scan, "HMS", true)) {
                throw scan.wrong();
            }
            any = true;
        }
        if (!any || !scan.atEnd()) {
            throw scan.wrong();
        }
        return new XmlDuration(value);
    }

    private static boolean parts(CalendarText scan, String designators, boolean fraction) {
        int next = 0;
        while (!scan.atEnd() && !scan.comes('T')) {
            scan.digits(fraction && scan.comes('.') ? 0 : 1);
            boolean cut = fraction && scan.skip('.');
            if (cut) {
                scan.digits(1);
            }
            while (next < designators.length() && !scan.skip(designators.charAt(next))) {
                next++;
            }
            if (next == designators.length() || cut && designators.charAt(next) != 'S') {
                throw scan.wrong();
            }
            next++;
        }
        return next > 0;
    }

    /** A duration in days, hours, minutes and seconds. */
    public static XmlDuration of(Duration value) {
        Duration size = value.abs();
        long days = size.toDays();
        Duration rest = size.minusDays(days);
        String time = rest.isZero() ? "" : rest.toString().substring(1);
        String body = (days > 0 ? days + "D" : "") + time;
        return of((value.isNegative() ? "-P" : "P") + (body.isEmpty() ? "T0S" : body));
    }

    /**
     * A duration in years, months and days.
     *
     * @throws IllegalArgumentException when its parts differ in sign, which XML cannot say
     */
    public static XmlDuration of(Period value) {
        boolean negative = value.isNegative();
        Period size = negative ? value.negated() : value;
        if (size.isNegative()) {
            throw new IllegalArgumentException("a duration has one sign: " + value);
        }
        return of((negative ? "-" : "") + (size.isZero() ? "P0D" : size.toString()));
    }

    /**
     * The length of the duration; a day has 24 hours.
     *
     * @throws java.time.DateTimeException when years or months are given, of which the length differs
     */
    public Duration toDuration() {
        return Duration.parse(text());
    }

    /**
     * The years, months and days.
     *
     * @throws java.time.DateTimeException when hours, minutes or seconds are given
     */
    public Period toPeriod() {
        return Period.parse(text());
    }
}
