package org.protypos.proof;

import java.util.List;
import org.protypos.message.check.Deviation;

/**
 * What became of one message.
 *
 * @param message what the message is called
 * @param details why it did not survive; empty when it did
 */
public record ProofResult(String message, Status status, List<Deviation> details) {
    /** What can become of a message. */
    public enum Status {
        /** It came out as it went in. */
        SURVIVED,
        /** It is not what the contract says. */
        INVALID,
        /** It is what the contract says, yet did not come out as it went in. */
        FAILED
    }
}
