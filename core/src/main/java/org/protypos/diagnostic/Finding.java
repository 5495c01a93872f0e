package org.protypos.diagnostic;

import java.util.Objects;

/**
 * Something about a contract, a rule or a message that its reader should know.
 *
 * @param code a short stable name for the kind of finding, in lower case with hyphens
 * @param severity how grave it is
 * @param place where it is, or null when no document has it
 * @param message what is wrong, as one sentence without a full stop
 * @param cure how to mend it, or an empty text when nothing needs mending
 */
public record Finding(String code, Severity severity, Place place, String message, String cure) {
    public Finding {
        Objects.requireNonNull(code, "code");
        Objects.requireNonNull(severity, "severity");
        Objects.requireNonNull(message, "message");
        Objects.requireNonNull(cure, "cure");
    }

    /** Whether nothing can be made of what it is about. */
    public boolean isError() {
        return severity == Severity.ERROR;
    }
}
