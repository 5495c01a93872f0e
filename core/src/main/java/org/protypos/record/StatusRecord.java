package org.protypos.record;

import org.protypos.diagnostic.Findings;
import org.protypos.layout.StatusLayout;

/**
 * How a call went, as it stands before the record of the answer.
 *
 * @param result one of the results of {@link StatusLayout}
 * @param operation the operation, as the record of its request is called
 * @param answer the record that follows, empty for none
 * @param length the length of that record, in bytes
 * @param reason what went wrong
 */
public record StatusRecord(String result, String operation, String answer, int length, String reason) {
    private static final StatusLayout LAYOUT = new StatusLayout();

    /** The length of the status itself, in bytes. */
    public static int size() {
        return LAYOUT.record().length();
    }

    /** Reads one; null when it is none. */
    public static StatusRecord of(byte[] bytes, RecordForm form) {
        Findings findings = new Findings();
        FieldValues values = new FieldValues(bytes, form, findings, StatusLayout.NAME);
        StatusRecord status = new StatusRecord(
                values.flag(LAYOUT.result(), LAYOUT.result().offset()),
                values.flag(LAYOUT.operation(), LAYOUT.operation().offset()),
                values.flag(LAYOUT.answer(), LAYOUT.answer().offset()),
                values.number(LAYOUT.length(), LAYOUT.length().offset()),
                values.flag(LAYOUT.reason(), LAYOUT.reason().offset()));
        return findings.hasErrors() || !status.result().matches("[0-9]{2}") ? null : status;
    }

    /** The record; of a reason what has no room, or no place in the code page, is left out. */
    public byte[] bytes(RecordForm form) {
        byte[] record = new byte[size()];
        FieldValues values = new FieldValues(record, form, new Findings(), StatusLayout.NAME);
        values.putFlag(LAYOUT.result(), LAYOUT.result().offset(), result);
        values.putFlag(LAYOUT.operation(), LAYOUT.operation().offset(), operation);
        values.putFlag(LAYOUT.answer(), LAYOUT.answer().offset(), answer);
        values.putNumber(LAYOUT.length(), LAYOUT.length().offset(), length);
        String plain = reason.replaceAll("[^ -~]", "?");
        values.putFlag(
                LAYOUT.reason(),
                LAYOUT.reason().offset(),
                plain.substring(0, Math.min(plain.length(), StatusLayout.reasonLength())));
        return record;
    }
}
