package org.protypos.cli;

import java.io.BufferedWriter;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.LastNet;
import org.protypos.cli.terminal.Outlet;
import org.protypos.cli.terminal.TamedWriter;
import org.protypos.cli.terminal.Terminal;
import picocli.CommandLine;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.ITypeInfo;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.UnmatchedArgumentException;

/** The program: arguments in, an exit status out. */
public final class Main {
    private static final long STACK_BYTES = 256L << 20;

    static {
        // No option is of these types, and looking for ways to read them takes a seventh of the time to describe a
        // command.
        System.setProperty("picocli.converters.excludes", "java[.](sql|time)[.].*");
    }

    private Main() {}

    /** Runs a command and exits with its status. */
    public static void main(String[] arguments) throws InterruptedException {
        System.exit(start(arguments));
    }

    /** Runs a command as the program does, with its output going where the program's goes, and gives its exit status. */
    static int start(String... arguments) throws InterruptedException {
        // What the platform says of XML and of code is shown among messages of ours, in their language.
        Locale.setDefault(Locale.ROOT);
        Outlet outlet = new Outlet(new FileOutputStream(FileDescriptor.out));
        PrintWriter out = printer(outlet, Terminal.isRead());
        PrintWriter err = printer(System.err, true);
        LastNet net = new LastNet(new Terminal(out, err), List.of(arguments));
        Thread.setDefaultUncaughtExceptionHandler((thread, failure) -> net.take(failure));
        int[] status = {ExitStatus.OUTSIDE};
        // Contracts nest and derive deeper than the first thread of the platform can follow.
        Thread worker =
                new Thread(null, () -> status[0] = run(out, err, outlet::isLeft, arguments), "protypos", STACK_BYTES);
        worker.start();
        worker.join();
        return status[0];
    }

    private static PrintWriter printer(OutputStream stream, boolean tamed) {
        Writer writer = new OutputStreamWriter(stream, StandardCharsets.UTF_8);
        return new PrintWriter(new BufferedWriter(tamed ? new TamedWriter(writer) : writer), true);
    }

    /**
     * Runs a command.
     *
     * @param out takes what the command gives
     * @param err takes messages
     * @return the exit status: see {@link ExitStatus}
     */
    public static int run(PrintWriter out, PrintWriter err, String... arguments) {
        return run(out, err, () -> false, arguments);
    }

    private static int run(PrintWriter out, PrintWriter err, BooleanSupplier left, String... arguments) {
        LastNet net = new LastNet(new Terminal(out, err), List.of(arguments));
        try {
            return execute(out, err, left, net, arguments);
        } catch (Throwable failure) {
            return net.take(failure);
        }
    }

    /** The command line with all commands, for who describes it: manuals, completion. */
    public static CommandLine commands() {
        return Protypos.line();
    }

    private static int execute(
            PrintWriter out, PrintWriter err, BooleanSupplier left, LastNet net, String... arguments) {
        CommandLine line = Protypos.line(arguments);
        line.setOut(out).setErr(err);
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setExecutionExceptionHandler((failure, command, parsed) -> net.take(failure));
        line.setParameterExceptionHandler((failure, parsed) -> {
            new Terminal(out, err)
                    .problem(
                            said(failure),
                            "protypos " + subcommand(failure.getCommandLine()) + "--help shows what can be said");
            return ExitStatus.USAGE;
        });
        int status = line.execute(arguments);
        err.flush();
        // What nobody could be told is no result, however well it was worked out.
        if (out.checkError()) {
            if (!left.getAsBoolean()) {
                new Terminal(out, err).problem("not all of the output could be written", "");
            }
            return ExitStatus.OUTSIDE;
        }
        return status;
    }

    private static String said(ParameterException failure) {
        if (failure instanceof UnmatchedArgumentException unmatched
                && !unmatched.getUnmatched().isEmpty()) {
            String first = unmatched.getUnmatched().get(0);
            CommandLine line = failure.getCommandLine();
            if (first.length() > 1 && first.startsWith("-")) {
                return Protypos.unknown(first, line.getCommandSpec());
            }
            return line.getParent() == null
                    ? Protypos.unknown(first)
                    : line.getCommandName() + " has no use for " + Terminal.plain(first);
        }
        ArgSpec argument = failure.getArgSpec();
        if (argument != null && failure.getValue() != null && failure.getCause() instanceof Exception) {
            return unfit(argument, failure.getValue());
        }
        return failure.getMessage();
    }

    /** What to say about a value that an option or a parameter does not take. */
    private static String unfit(ArgSpec argument, String value) {
        String name = argument instanceof OptionSpec option ? option.longestName() : argument.paramLabel();
        ITypeInfo type = argument.typeInfo();
        if (type.isMultiValue()) {
            type = type.getAuxiliaryTypeInfos().get(0);
        }
        if (type.isBoolean()) {
            return name + " takes no value";
        }
        if (type.isEnum()) {
            return name + ": there is no \"" + Terminal.plain(value) + "\"; use "
                    + type.getEnumConstantNames().stream()
                            .map(choice -> choice.toLowerCase(Locale.ROOT))
                            .collect(Collectors.joining(" or "));
        }
        return name + ": \"" + Terminal.plain(value) + "\" is no "
                + (type.getType() == Path.class ? "path" : "whole number");
    }

    private static String subcommand(CommandLine line) {
        return line.getParent() == null ? "" : line.getCommandName() + " ";
    }
}
