package org.protypos.runtime.soap;

/**
 * What an implementation throws to tell the caller that it is the request that is at fault: the message becomes a fault of the
 * sender; or that the service does not do that: then it becomes one of the receiver. Of anything else that it throws, and the contract does not declare, the caller is told nothing but a reference.
 */
public final class CallRefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final boolean isSenders;

    /**
     * Refuses a call.
     *
     * @param message why, for the caller
     */
    public CallRefusedException(String message) {
        this(message, true);
    }

    private CallRefusedException(String message, boolean isSenders) {
        super(message);
        this.isSenders = isSenders;
    }

    /**
     * Says that the service has nothing for the operation.
     *
     * @param message what is missing, for the caller
     */
    public static CallRefusedException notImplemented(String message) {
        return new CallRefusedException(message, false);
    }

    /** Whether it is the request that is at fault. */
    public boolean isSenders() {
        return isSenders;
    }
}
