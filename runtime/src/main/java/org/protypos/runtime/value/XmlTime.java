package org.protypos.runtime.value;

import java.time.LocalTime;

/** A value of {@code xs:time} (XML Schema Part 2, section 3.2.8): a time of day, with or without a time zone. */
public final class XmlTime extends WrittenValue {
    private static final int LONGEST = "00:00:00.000000000".length();

    private XmlTime(String text) {
        super(text);
    }

    /**
     * Reads a time of day.
     *
     * @throws IllegalArgumentException when the text is not of the type
     */
    public static XmlTime of(String text) {
        String value = Lexical.collapse(text);
        CalendarText scan = new CalendarText(value);
        scan.time();
        scan.zoneAtEnd();
        return new XmlTime(value);
    }

    /** A time of day with no time zone. */
    public static XmlTime of(LocalTime value) {
        String iso = value.toString();
        return of(iso.length() == "00:00".length() ? iso + ":00" : iso);
    }

    /** The time without its time zone; 24:00:00 becomes midnight, digits beyond nanoseconds are cut. */
    public LocalTime toLocalTime() {
        String local = local();
        return local.startsWith("24")
                ? LocalTime.MIDNIGHT
                : LocalTime.parse(local.substring(0, Math.min(LONGEST, local.length())));
    }

    /** Whether a time zone is given. */
    public boolean hasZone() {
        return isZoned();
    }
}
