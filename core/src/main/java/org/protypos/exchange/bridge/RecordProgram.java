package org.protypos.exchange.bridge;

import java.io.IOException;
import java.io.InputStream;
import org.protypos.layout.RecordLayout;
import org.protypos.record.HeadRecord;
import org.protypos.record.RecordForm;
import org.protypos.record.StatusRecord;

/** Who answers requests that are records. It is asked by several threads. */
public interface RecordProgram extends AutoCloseable {
    /**
     * What a program answers.
     *
     * @param record the record of the answer or the fault; empty for none
     */
    record Reply(StatusRecord status, byte[] record) {
        /**
         * Reads an answer.
         *
         * @return the answer, or null when nothing comes
         * @throws IOException when what comes is none, or ends too early
         */
        static Reply read(InputStream in, RecordForm form) throws IOException {
            byte[] bytes = in.readNBytes(StatusRecord.size());
            if (bytes.length == 0) {
                return null;
            }
            StatusRecord status = bytes.length < StatusRecord.size() ? null : StatusRecord.of(bytes, form);
            if (status == null || status.length() < 0 || status.length() > RecordLayout.LARGEST) {
                throw new IOException("what should be CALL-STATUS is none");
            }
            byte[] record = in.readNBytes(status.length());
            if (record.length < status.length()) {
                throw new IOException(
                        "CALL-ANSWER-LENGTH says " + status.length() + " bytes, and " + record.length + " came");
            }
            return new Reply(status, record);
        }
    }

    /**
     * Asks.
     *
     * @param head says what the record is
     * @return the answer
     * @throws IOException when there is none; its message says why
     */
    Reply ask(HeadRecord head, byte[] record) throws IOException;

    @Override
    void close();
}
