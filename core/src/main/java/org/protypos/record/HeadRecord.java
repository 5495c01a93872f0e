package org.protypos.record;

import org.protypos.diagnostic.Findings;
import org.protypos.layout.HeadLayout;

/**
 * What stands before a request where several come one after the other.
 *
 * @param operation the operation, as the contract or its record calls it
 * @param length the length of the record that follows, in bytes
 */
public record HeadRecord(String operation, int length) {
    private static final HeadLayout LAYOUT = new HeadLayout();

    /** The length of the head itself, in bytes. */
    public static int size() {
        return LAYOUT.record().length();
    }

    /** Reads one; null when it is none. */
    public static HeadRecord of(byte[] bytes, RecordForm form) {
        Findings findings = new Findings();
        FieldValues values = new FieldValues(bytes, form, findings, HeadLayout.NAME);
        HeadRecord head = new HeadRecord(
                values.flag(LAYOUT.operation(), LAYOUT.operation().offset()),
                values.number(LAYOUT.length(), LAYOUT.length().offset()));
        return findings.hasErrors() || head.operation().isEmpty() ? null : head;
    }

    /** The record. */
    public byte[] bytes(RecordForm form) {
        byte[] record = new byte[size()];
        FieldValues values = new FieldValues(record, form, new Findings(), HeadLayout.NAME);
        values.putFlag(LAYOUT.operation(), LAYOUT.operation().offset(), operation);
        values.putNumber(LAYOUT.length(), LAYOUT.length().offset(), length);
        return record;
    }
}
