package org.protypos.record;

import org.protypos.diagnostic.Findings;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.StatusLayout;

/** Writes the record that says how a call went. */
public final class StatusRecord {
    private static final StatusLayout LAYOUT = new StatusLayout();

    private StatusRecord() {}

    /**
     * The record.
     *
     * @param result one of the results of {@link StatusLayout}
     * @param operation the operation, as its record is called
     * @param answer the layout of the record that follows, or null for none
     * @param reason what went wrong; what has no room, or no place in the code page, is left out
     */
    public static byte[] of(String result, String operation, RecordLayout answer, String reason, CodePage page) {
        byte[] record = new byte[LAYOUT.record().length()];
        FieldValues values = new FieldValues(record, page, new Findings(), "status");
        LAYOUT.record().root().children().forEach(slot -> values.clear(slot, slot.offset()));
        values.putFlag(LAYOUT.result(), LAYOUT.result().offset(), result);
        values.putFlag(LAYOUT.operation(), LAYOUT.operation().offset(), operation);
        values.putFlag(LAYOUT.answer(), LAYOUT.answer().offset(), answer == null ? "" : answer.name());
        values.putNumber(LAYOUT.length(), LAYOUT.length().offset(), answer == null ? 0 : answer.length());
        String plain = reason.replaceAll("[^ -~]", "?");
        values.putFlag(
                LAYOUT.reason(),
                LAYOUT.reason().offset(),
                plain.substring(0, Math.min(plain.length(), StatusLayout.reasonLength())));
        return record;
    }
}
