package org.protypos.cli;

/** What the program tells its caller at the end. */
final class ExitStatus {
    static final int DONE = 0;
    /** The contract is at fault. */
    static final int CONTRACT = 1;
    /** The command line is at fault. */
    static final int USAGE = 2;
    /** Something outside failed: network or disk. */
    static final int OUTSIDE = 3;

    /** A promise is broken: drift, or a change that breaks something. */
    static final int PROMISE = 4;

    private ExitStatus() {}

    static String describe(Throwable failure) {
        return failure.getMessage() == null ? failure.getClass().getSimpleName() : failure.getMessage();
    }
}
