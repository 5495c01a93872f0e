package org.protypos.cli;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.protypos.cli.contract.CheckCommand;
import org.protypos.cli.contract.CompareCommand;
import org.protypos.cli.contract.GenerateCommand;
import org.protypos.cli.contract.ProofCommand;
import org.protypos.cli.contract.SampleCommand;
import org.protypos.cli.contract.ShowCommand;
import org.protypos.cli.drafting.DraftCommand;
import org.protypos.cli.drafting.InferCommand;
import org.protypos.cli.exchange.BridgeCommand;
import org.protypos.cli.exchange.CallCommand;
import org.protypos.cli.exchange.StandInCommand;
import org.protypos.cli.project.AbandonCommand;
import org.protypos.cli.project.AdoptCommand;
import org.protypos.cli.project.RefreshCommand;
import org.protypos.cli.project.RepairCommand;
import org.protypos.cli.terminal.Terminal;
import org.protypos.diagnostic.NearestName;
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
        versionProvider = Installation.class,
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

    @Option(
            names = {"-V", "--version"},
            versionHelp = true,
            description = "Tells the version, the Java that runs it, and where it lies.")
    private boolean version;

    private static Map<String, Supplier<Object>> subcommands() {
        Map<String, Supplier<Object>> subcommands = new LinkedHashMap<>();
        subcommands.put("show", ShowCommand::new);
        subcommands.put("check", CheckCommand::new);
        subcommands.put("generate", GenerateCommand::new);
        subcommands.put("sample", SampleCommand::new);
        subcommands.put("proof", ProofCommand::new);
        subcommands.put("compare", CompareCommand::new);
        subcommands.put("call", CallCommand::new);
        subcommands.put("bridge", BridgeCommand::new);
        subcommands.put("stand-in", StandInCommand::new);
        subcommands.put("draft", DraftCommand::new);
        subcommands.put("infer", InferCommand::new);
        subcommands.put("adopt", AdoptCommand::new);
        subcommands.put("refresh", RefreshCommand::new);
        subcommands.put("abandon", AbandonCommand::new);
        subcommands.put("repair", RepairCommand::new);
        subcommands.put("schema", SchemaCommand::new);
        subcommands.put("completion", CompletionCommand::new);
        subcommands.put("demo", DemoCommand::new);
        subcommands.put("help", HelpCommand::new);
        return subcommands;
    }

    /**
     * Makes the command line with the one subcommand that is called for, since describing each takes time; with all of
     * them when none of them is.
     */
    static CommandLine line(String... arguments) {
        CommandLine line = new CommandLine(new Protypos());
        Supplier<Object> wanted =
                arguments.length == 0 || arguments[0].equals("help") ? null : SUBCOMMANDS.get(arguments[0]);
        if (wanted != null) {
            line.addSubcommand(wanted.get());
        } else {
            SUBCOMMANDS.values().forEach(subcommand -> line.addSubcommand(subcommand.get()));
        }
        return line;
    }

    /** What to say about a command that there is not. */
    static String unknown(String command) {
        return "there is no command " + Terminal.plain(command)
                + NearestName.of(command, SUBCOMMANDS.keySet())
                        .map(near -> "; did you mean " + near + "?")
                        .orElse("");
    }

    /** What to say about an option that a command does not have. */
    static String unknown(String option, CommandSpec command) {
        String plain = option.replaceFirst("=.*", "");
        List<String> options = command.options().stream()
                .flatMap(one -> Stream.of(one.names()))
                .filter(name -> name.startsWith("--"))
                .toList();
        return command.name() + " has no option " + Terminal.plain(plain)
                + NearestName.of(plain, options)
                        .or(() -> options.stream()
                                .filter(name -> name.startsWith(plain))
                                .findFirst())
                        .map(near -> "; did you mean " + near + "?")
                        .orElse("");
    }

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}
