package org.protypos.runtime.xml;

/**
 * A date of which parts are left out: {@code xs:gYear}, {@code xs:gYearMonth}, {@code xs:gMonth}, {@code xs:gMonthDay}
 * or {@code xs:gDay} (XML Schema Part 2, sections 3.2.10 to 3.2.14), with or without a time zone.
 */
public final class XmlPartialDate extends WrittenValue {
    private XmlPartialDate(String text) {
        super(text);
    }

    /**
     * Reads a partial date, such as {@code 2027}, {@code 2027-05}, {@code --05}, {@code --05-09} or {@code ---09}.
     *
     * @throws IllegalArgumentException when the text is none of these
     */
    public static XmlPartialDate of(String text) {
        String value = Lexical.collapse(text);
        CalendarText scan = new CalendarText(value);
        if (value.startsWith("---")) {
            scan.expect('-');
            scan.expect('-');
            scan.expect('-');
            scan.twoDigits(1, 31);
        } else if (value.startsWith("--")) {
            monthAndPerhapsDay(value, scan);
        } else {
            scan.year();
            if (hasMonth(value, scan)) {
                scan.expect('-');
                scan.twoDigits(1, 12);
            }
        }
        scan.zoneAtEnd();
        return new XmlPartialDate(value);
    }

    private static void monthAndPerhapsDay(String value, CalendarText scan) {
        scan.expect('-');
        scan.expect('-');
        if (value.length() > 4 && value.charAt(4) == '-' && CalendarText.zoneStart(value) > 4) {
            scan.monthAndDay(null);
        } else {
            scan.twoDigits(1, 12);
        }
    }

    private static boolean hasMonth(String value, CalendarText scan) {
        return scan.comes('-') && value.indexOf('-', 1) < CalendarText.zoneStart(value);
    }

    /** Whether a time zone is given. */
    public boolean hasZone() {
        return isZoned();
    }
}
