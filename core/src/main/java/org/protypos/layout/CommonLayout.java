package org.protypos.layout;

/** A record that is alike for all contracts. */
abstract class CommonLayout {
    private final Slot root;

    CommonLayout(String name) {
        root = new Slot(Slot.Kind.STRUCTURE, name, null, null);
        root.setName(name);
    }

    /** Adds a field. */
    final Slot field(String name, Picture picture, String remark) {
        Slot slot = new Slot(Slot.Kind.VALUE, name, null, picture);
        slot.setName(name);
        slot.setRemark(remark);
        root.add(slot);
        root.place(0);
        return slot;
    }

    /** The record as a group. */
    public final RecordLayout record() {
        return new RecordLayout(root.name(), RecordLayout.Part.STATUS, root, null, null, null);
    }
}
