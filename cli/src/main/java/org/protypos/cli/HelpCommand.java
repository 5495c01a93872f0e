package org.protypos.cli;

import java.util.concurrent.Callable;
import org.protypos.cli.terminal.ExitStatus;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Shows what can be said to a command. */
@Command(name = "help", description = "Shows what can be said to a command.")
final class HelpCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "COMMAND", description = "The command; all of them if not given.")
    private String command;

    @Override
    public Integer call() {
        CommandLine all = spec.commandLine().getParent();
        CommandLine shown = command == null ? all : all.getSubcommands().get(command);
        if (shown == null) {
            throw new ParameterException(spec.commandLine(), Protypos.unknown(command));
        }
        shown.usage(spec.commandLine().getOut());
        return ExitStatus.DONE;
    }
}
