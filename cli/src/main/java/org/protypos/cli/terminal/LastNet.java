package org.protypos.cli.terminal;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;

/** Takes whatever a command throws and makes one sentence of it: nobody who uses the program is shown its insides. */
public final class LastNet {
    /** Set to anything, it shows the trace as well, for who reports a mistake. */
    private static final String TRACE = "PROTYPOS_TRACE";

    private static final long MEGABYTE = 1 << 20;

    private final Terminal terminal;
    private final String doing;

    /**
     * Spreads the net.
     *
     * @param arguments the command line
     */
    public LastNet(Terminal terminal, List<String> arguments) {
        this.terminal = terminal;
        this.doing = arguments.isEmpty() ? "protypos" : "protypos " + arguments.get(0);
    }

    /**
     * Tells what went wrong.
     *
     * @return the exit status
     */
    public int take(Throwable failure) {
        if (System.getenv(TRACE) != null) {
            failure.printStackTrace(terminal.err());
        }
        if (failure instanceof IOException || failure instanceof UncheckedIOException) {
            terminal.problem(ExitStatus.describe(failure), "");
        } else if (failure instanceof OutOfMemoryError) {
            terminal.problem(
                    doing + " needs more memory than the "
                            + Runtime.getRuntime().maxMemory() / MEGABYTE + " MB that it may use",
                    "give it more: PROTYPOS_JAVA_FLAGS=-Xmx4g");
        } else {
            terminal.problem(
                    doing + " ended early by a mistake in protypos itself: " + what(failure),
                    "report it with the command and the contract, as CONTRIBUTING.md says; " + TRACE
                            + "=1 shows where it happened");
        }
        return ExitStatus.OUTSIDE;
    }

    private static String what(Throwable failure) {
        StackTraceElement[] trace = failure.getStackTrace();
        String name = failure.getClass().getSimpleName();
        String message = failure.getMessage() == null ? "" : " (" + failure.getMessage() + ")";
        return name + message + (trace.length == 0 ? "" : " in " + place(trace));
    }

    /** The innermost place in code of ours. */
    private static String place(StackTraceElement[] trace) {
        for (StackTraceElement frame : trace) {
            if (frame.getClassName().startsWith("org.protypos.")) {
                return frame.getClassName().substring("org.protypos.".length()) + "." + frame.getMethodName();
            }
        }
        return trace[0].getClassName() + "." + trace[0].getMethodName();
    }
}
