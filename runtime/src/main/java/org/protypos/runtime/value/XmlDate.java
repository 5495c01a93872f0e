package org.protypos.runtime.value;

import java.time.LocalDate;

/** A value of {@code xs:date} (XML Schema Part 2, section 3.2.9): a day, with or without a time zone. */
public final class XmlDate extends WrittenValue {
    private XmlDate(String text) {
        super(text);
    }

    /**
     * Reads a date.
     *
     * @throws IllegalArgumentException when the text is not of the type
     */
    public static XmlDate of(String text) {
        String value = Lexical.collapse(text);
        CalendarText scan = new CalendarText(value);
        String year = scan.year();
        scan.expect('-');
        scan.monthAndDay(year);
        scan.zoneAtEnd();
        return new XmlDate(value);
    }

    /** A day with no time zone. */
    public static XmlDate of(LocalDate value) {
        String iso = value.toString();
        return of(iso.startsWith("+") ? iso.substring(1) : iso);
    }

    /**
     * The day without its time zone.
     *
     * @throws java.time.DateTimeException for a year that {@code java.time} does not hold
     */
    public LocalDate toLocalDate() {
        String local = local();
        return LocalDate.parse(local.charAt(0) != '-' && local.indexOf('-') > 4 ? "+" + local : local);
    }

    /** Whether a time zone is given. */
    public boolean hasZone() {
        return isZoned();
    }
}
