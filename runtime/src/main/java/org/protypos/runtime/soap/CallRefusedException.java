package org.protypos.runtime.soap;

/**
 * What an implementation throws to tell the caller that it is the request that is at fault: the message becomes a fault of the
 * sender. Of anything else that it throws, and the contract does not declare, the caller is told nothing but a reference.
 */
public final class CallRefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /**
     * Refuses a call.
     *
     * @param message why, for the caller
     */
    public CallRefusedException(String message) {
        super(message);
    }
}
