package org.protypos.diagnostic;

/** How grave a finding is. */
public enum Severity {
    /** Nothing can be generated while it stands. */
    ERROR,
    /** Code is generated, but somebody should look. */
    WARNING,
    /** Worth knowing. */
    NOTE
}
