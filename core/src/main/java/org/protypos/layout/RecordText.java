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

    private RecordText() {}
}
