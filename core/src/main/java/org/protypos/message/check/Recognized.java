package org.protypos.message.check;

import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;

/**
 * What a message turned out to be.
 *
 * @param operation the operation that it is a message of, or null when its elements alone say what they are
 * @param carried which message of the operation, or null likewise
 * @param checked where it is not what the contract says
 */
public record Recognized(WireOperation operation, WireMessage carried, CheckedMessage checked) {
    /** Whether its elements alone say what they are. */
    public boolean byElements() {
        return carried == null;
    }
}
