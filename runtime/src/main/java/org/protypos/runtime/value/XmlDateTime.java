package org.protypos.runtime.value;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;

/**
 * A value of {@code xs:dateTime} (XML Schema Part 2, section 3.2.7). It keeps what {@code java.time} has no place for:
 * an absent time zone, 24:00:00, years beyond 999,999,999 and any number of digits behind the second. Two values are
 * equal when they are written the same; compare instants to compare points in time.
 */
public final class XmlDateTime extends WrittenValue {
    private static final int NANO_DIGITS = 9;

    private XmlDateTime(String text) {
        super(text);
    }

    /**
     * Reads a date and time.
     *
     * @throws IllegalArgumentException when the text is not of the type
     */
    public static XmlDateTime of(String text) {
        String value = Lexical.collapse(text);
        CalendarText scan = new CalendarText(value);
        String year = scan.year();
        scan.expect('-');
        scan.monthAndDay(year);
        scan.expect('T');
        scan.time();
        scan.zoneAtEnd();
        return new XmlDateTime(value);
    }

    /** A date and time with its time zone. */
    public static XmlDateTime of(OffsetDateTime value) {
        return of(unsigned(DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(value)));
    }

    /** A date and time with no time zone. */
    public static XmlDateTime of(LocalDateTime value) {
        return of(unsigned(DateTimeFormatter.ISO_LOCAL_DATE_TIME.format(value)));
    }

    /** A point in time, in UTC. */
    public static XmlDateTime of(Instant value) {
        return of(value.atOffset(ZoneOffset.UTC));
    }

    /**
     * The date and time without its time zone. 24:00:00 becomes midnight of the next day; digits beyond nanoseconds are
     * cut.
     *
     * @throws java.time.DateTimeException for a year that {@code java.time} does not hold
     */
    public LocalDateTime toLocalDateTime() {
        String local = local();
        int fraction = local.indexOf('.');
        if (fraction >= 0 && local.length() - fraction - 1 > NANO_DIGITS) {
            local = local.substring(0, fraction + 1 + NANO_DIGITS);
        }
        int time = local.indexOf('T') + 1;
        if (local.startsWith("24", time)) {
            return LocalDateTime.parse(signed(local.substring(0, time) + "00:00:00"))
                    .plusDays(1);
        }
        return LocalDateTime.parse(signed(local));
    }

    private static String unsigned(String iso) {
        return iso.startsWith("+") ? iso.substring(1) : iso;
    }

    /** Years of more than four digits carry a sign in {@code java.time}. */
    private static String signed(String local) {
        return local.charAt(0) != '-' && local.indexOf('-') > 4 ? "+" + local : local;
    }

    /**
     * The date and time with its time zone.
     *
     * @param otherwise the time zone to take when none is given
     * @throws java.time.DateTimeException for a year that {@code java.time} does not hold
     */
    public OffsetDateTime toOffsetDateTime(ZoneOffset otherwise) {
        String zone = text().substring(local().length());
        return toLocalDateTime().atOffset(zone.isEmpty() ? otherwise : ZoneOffset.of(zone));
    }

    /**
     * The point in time.
     *
     * @param otherwise the time zone to take when none is given
     * @throws java.time.DateTimeException for a year that {@code java.time} does not hold
     */
    public Instant toInstant(ZoneOffset otherwise) {
        return toOffsetDateTime(otherwise).toInstant();
    }

    /** Whether a time zone is given. */
    public boolean hasZone() {
        return isZoned();
    }
}
