package org.protypos.cli;

import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Shows what can be said to a command. */
final class HelpCommand implements Command {
    private CommandSpec spec;
    private String command;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("help", "Shows what can be said to a command.");
        spec = syntax.spec();
        syntax.parameter(String.class, "COMMAND", "The command; all of them if not given.")
                .optional()
                .into(value -> command = value);
    }

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
