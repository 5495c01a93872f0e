package org.protypos.cli;

import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ScopeType;
import picocli.CommandLine.Spec;

/** The command without a subcommand: shows which there are. */
@Command(
        name = "protypos",
        description = "Turns WSDL and XML Schema contracts into typed Java clients, servers and types.",
        subcommands = {ShowCommand.class, CheckCommand.class, GenerateCommand.class, DemoCommand.class},
        footer = {"", "Start with: protypos demo"},
        synopsisSubcommandLabel = "COMMAND",
        usageHelpAutoWidth = true)
final class Protypos implements Runnable {
    @Spec
    private CommandSpec spec;

    @Option(
            names = {"-h", "--help"},
            usageHelp = true,
            scope = ScopeType.INHERIT,
            description = "Shows this.")
    private boolean help;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
