package org.protypos.runtime.soap;

/**
 * A call ended without the answer that the contract promises: nothing came in time, or what came was no SOAP message or
 * not the one declared. The message says what came back.
 */
public class CallFailedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final int status;

    CallFailedException(String message, int status, Throwable cause) {
        super(message, cause);
        this.status = status;
    }

    /** The HTTP status of the answer, or 0 when none came. */
    public final int status() {
        return status;
    }
}
