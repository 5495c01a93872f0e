package org.protypos.layout;

/** The record that stands before the record of a request where several come one after the other. */
public final class HeadLayout {
    /** What the record is called. */
    public static final String NAME = "CALL-HEAD";

    private static final int NAME_LENGTH = 30;
    private static final int LENGTH_DIGITS = 9;

    private final Slot root = new Slot(Slot.Kind.STRUCTURE, NAME, null, null);
    private final Slot operation = new Slot(Slot.Kind.VALUE, NAME + "-OPERATION", null, Picture.text(NAME_LENGTH));
    private final Slot length =
            new Slot(Slot.Kind.VALUE, NAME + "-LENGTH", null, new Picture(Usage.ZONED, LENGTH_DIGITS, 0, false));

    /** Lays it out. */
    public HeadLayout() {
        root.setName(NAME);
        for (Slot slot : new Slot[] {operation, length}) {
            slot.setName(slot.wanted());
            root.add(slot);
        }
        operation.setRemark("the operation, as the contract or its record calls it");
        length.setRemark("the length of the record that follows, in bytes");
        root.place(0);
    }

    /** The record as a group. */
    public RecordLayout record() {
        return new RecordLayout(NAME, RecordLayout.Part.STATUS, root, null, null, null);
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
