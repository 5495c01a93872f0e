package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;

/** The program: arguments in, an exit status out. */
public final class Main {
    private Main() {}

    /** Runs a command and exits with its status. */
    public static void main(String[] arguments) {
        System.exit(run(
                new PrintWriter(System.out, true, StandardCharsets.UTF_8),
                new PrintWriter(System.err, true, StandardCharsets.UTF_8),
                arguments));
    }

    /**
     * Runs a command.
     *
     * @param out takes what the command gives
     * @param err takes messages
     * @return the exit status: see {@link ExitStatus}
     */
    public static int run(PrintWriter out, PrintWriter err, String... arguments) {
        CommandLine line = Protypos.line(arguments);
        line.setOut(out).setErr(err);
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setExecutionExceptionHandler((failure, command, parsed) -> {
            Terminal terminal = new Terminal(out, err);
            terminal.problem(
                    failure instanceof IOException || failure instanceof UncheckedIOException
                            ? ExitStatus.describe(failure)
                            : "this is a mistake in protypos itself: " + ExitStatus.describe(failure),
                    "");
            return ExitStatus.OUTSIDE;
        });
        line.setParameterExceptionHandler((failure, parsed) -> {
            new Terminal(out, err)
                    .problem(
                            failure.getMessage(),
                            "protypos " + subcommand(failure.getCommandLine()) + "--help shows what can be said");
            return ExitStatus.USAGE;
        });
        int status = line.execute(arguments);
        out.flush();
        err.flush();
        return status;
    }

    private static String subcommand(CommandLine line) {
        return line.getParent() == null ? "" : line.getCommandName() + " ";
    }
}
