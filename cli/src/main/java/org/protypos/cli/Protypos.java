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
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Terminal;
import org.protypos.diagnostic.NearestName;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;

/** The command without a subcommand: shows which there are. */
final class Protypos implements Command {
    private static final Map<String, Supplier<Command>> SUBCOMMANDS = subcommands();
    private static final List<String> VERSION = List.of("-V", "--version");

    private CommandSpec spec;

    private static Map<String, Supplier<Command>> subcommands() {
        Map<String, Supplier<Command>> subcommands = new LinkedHashMap<>();
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

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "protypos",
                "Turns WSDL and XML Schema contracts into typed clients, servers and types in Java or C#, and into records"
                        + " for COBOL.");
        spec = syntax.spec();
        spec.versionProvider(new Installation());
        spec.usageMessage().autoWidth(true).synopsisSubcommandLabel("COMMAND").footer("", "Start with: protypos demo");
        syntax.help("-h", "--help", "Shows this.");
        syntax.version(VERSION.get(0), VERSION.get(1), "Tells the version, the Java that runs it, and where it lies.");
    }

    /**
     * Makes the command line with the one subcommand that is called for, since describing each takes time; with all of
     * them when none of them is, but for the version.
     */
    static CommandLine line(String... arguments) {
        CommandLine line = new CommandLine(CommandSyntax.of(new Protypos()));
        Supplier<Command> wanted =
                arguments.length == 0 || arguments[0].equals("help") ? null : SUBCOMMANDS.get(arguments[0]);
        if (wanted != null) {
            line.addSubcommand(CommandSyntax.of(wanted.get()));
        } else if (arguments.length == 0 || !VERSION.contains(arguments[0])) {
            SUBCOMMANDS.values().forEach(subcommand -> line.addSubcommand(CommandSyntax.of(subcommand.get())));
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
    public Integer call() {
        spec.commandLine().usage(spec.commandLine().getOut());
        return ExitStatus.DONE;
    }
}
