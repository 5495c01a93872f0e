package org.protypos.cli;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ScopeType;
import picocli.CommandLine.Spec;

/** The command without a subcommand: shows which there are. */
@Command(
        name = "protypos",
        description = "Turns WSDL and XML Schema contracts into typed Java clients, servers and types.",
        footer = {"", "Start with: protypos demo"},
        synopsisSubcommandLabel = "COMMAND",
        usageHelpAutoWidth = true)
final class Protypos implements Runnable {
    private static final Map<String, Supplier<Object>> SUBCOMMANDS = subcommands();

    @Spec
    private CommandSpec spec;

    @Option(
            names = {"-h", "--help"},
            usageHelp = true,
            scope = ScopeType.INHERIT,
            description = "Shows this.")
    private boolean help;

    private static Map<String, Supplier<Object>> subcommands() {
        Map<String, Supplier<Object>> subcommands = new LinkedHashMap<>();
        subcommands.put("show", ShowCommand::new);
        subcommands.put("check", CheckCommand::new);
        subcommands.put("generate", GenerateCommand::new);
        subcommands.put("sample", SampleCommand::new);
        subcommands.put("proof", ProofCommand::new);
        subcommands.put("compare", CompareCommand::new);
        subcommands.put("call", CallCommand::new);
        subcommands.put("stand-in", StandInCommand::new);
        subcommands.put("adopt", AdoptCommand::new);
        subcommands.put("refresh", RefreshCommand::new);
        subcommands.put("abandon", AbandonCommand::new);
        subcommands.put("repair", RepairCommand::new);
        subcommands.put("completion", CompletionCommand::new);
        subcommands.put("demo", DemoCommand::new);
        return subcommands;
    }

    /**
     * Makes the command line with the one subcommand that is called for, since describing each takes time; with all of
     * them when none of them is.
     */
    static CommandLine line(String... arguments) {
        CommandLine line = new CommandLine(new Protypos());
        Supplier<Object> wanted = arguments.length == 0 ? null : SUBCOMMANDS.get(arguments[0]);
        if (wanted != null) {
            line.addSubcommand(wanted.get());
        } else {
            SUBCOMMANDS.values().forEach(subcommand -> line.addSubcommand(subcommand.get()));
        }
        return line;
    }

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
