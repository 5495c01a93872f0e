package org.protypos.layout;

/** What stands in the fields of a record that say something about others. */
public final class RecordText {
    /** Says that a value is there. */
    public static final String PRESENT = "Y";
    /** Says that a value is absent. */
    public static final String ABSENT = "N";
    /** Says that an element is there and nil. */
    public static final String NIL = "Z";
    /** A truth value that is true. */
    public static final String TRUE = "Y";
    /** A truth value that is false. */
    public static final String FALSE = "N";

    /** What the parts of a date or a time are called. */
    public static final String YEAR = "year";

    public static final String MONTH = "month";
    public static final String DAY = "day";
    public static final String HOUR = "hour";
    public static final String MINUTE = "minute";
    public static final String SECOND = "second";
    public static final String ZONE = "zone";

    private RecordText() {}
}
