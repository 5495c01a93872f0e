package org.protypos.layout;

/** The record that stands before the record of a request where several come one after the other. */
public final class HeadLayout extends CommonLayout {
    /** What the record is called. */
    public static final String NAME = "CALL-HEAD";

    private static final int NAME_LENGTH = 30;
    private static final int LENGTH_DIGITS = 9;

    private final Slot operation = field(
            NAME + "-OPERATION",
            Picture.text(NAME_LENGTH),
            "the operation, as the contract or the record of its request is called");
    private final Slot length = field(
            NAME + "-LENGTH",
            new Picture(Usage.ZONED, LENGTH_DIGITS, 0, false),
            "the length of the record that follows, in bytes");

    /** Lays it out. */
    public HeadLayout() {
        super(NAME);
    }

    /** The slot for the name of the operation. */
    public Slot operation() {
        return operation;
    }

    /** The slot for the length of the record. */
    public Slot length() {
        return length;
    }
}
