package org.protypos.runtime.value;

/**
 * A date of which parts are left out: {@code xs:gYear}, {@code xs:gYearMonth}, {@code xs:gMonth}, {@code xs:gMonthDay}
 * or {@code xs:gDay} (XML Schema Part 2, sections 3.2.10 to 3.2.14), with or without a time zone.
 */
public final class XmlPartialDate extends WrittenValue {
    /** Which parts are there. */
    public enum Form {
        /** {@code xs:gYear}, such as 2027. */
        YEAR,
        /** {@code xs:gYearMonth}, such as 2027-05. */
        YEAR_MONTH,
        /** {@code xs:gMonth}, such as --05. */
        MONTH,
        /** {@code xs:gMonthDay}, such as --05-09. */
        MONTH_DAY,
        /** {@code xs:gDay}, such as ---09. */
        DAY
    }

    private XmlPartialDate(String text) {
        super(text);
    }

    /**
     * Reads a partial date of any form.
     *
     * @throws IllegalArgumentException when the text is none
     */
    public static XmlPartialDate of(String text) {
        String value = Lexical.collapse(text);
        return of(value, form(value));
    }

    /**
     * Reads a partial date of one form.
     *
     * @throws IllegalArgumentException when the text is not of that form
     */
    public static XmlPartialDate of(String text, Form form) {
        String value = Lexical.collapse(text);
        CalendarText scan = new CalendarText(value);
        switch (form) {
            case YEAR -> scan.year();
            case YEAR_MONTH -> {
                scan.year();
                scan.expect('-');
                scan.twoDigits(1, 12);
            }
            case MONTH -> {
                dashes(scan, 2);
                scan.twoDigits(1, 12);
            }
            case MONTH_DAY -> {
                dashes(scan, 2);
                scan.monthAndDay(null);
            }
            case DAY -> {
                dashes(scan, 3);
                scan.twoDigits(1, 31);
            }
        }
        scan.zoneAtEnd();
        return new XmlPartialDate(value);
    }

    private static void dashes(CalendarText scan, int count) {
        for (int i = 0; i < count; i++) {
            scan.expect('-');
        }
    }

    /** Which parts are there. */
    public Form form() {
        return form(text());
    }

    private static Form form(String value) {
        String local = value.substring(0, CalendarText.zoneStart(value));
        if (local.startsWith("---")) {
            return Form.DAY;
        }
        if (local.startsWith("--")) {
            return local.length() > "--05".length() ? Form.MONTH_DAY : Form.MONTH;
        }
        return local.indexOf('-', 1) > 0 ? Form.YEAR_MONTH : Form.YEAR;
    }

    /** Whether a time zone is given. */
    public boolean hasZone() {
        return isZoned();
    }
}
