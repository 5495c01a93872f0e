package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.exchange.SavedCall;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.contract.Contract;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.project.Project;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Prints scripts that complete command lines, and the words that they ask for. */
final class CompletionCommand implements Command {
    private static final String SCRIPT = """
            _protypos() {
                local word=${COMP_WORDS[COMP_CWORD]} before=${COMP_WORDS[COMP_CWORD-1]} words=
                COMPREPLY=()
                if [ "$COMP_CWORD" -eq 1 ]; then
                    words='%1$s'
                elif [ "$before" = --saved ]; then
                    words=$("${COMP_WORDS[0]}" completion calls 2>/dev/null)
                else
                    case ${COMP_WORDS[1]}:$word in
            %2$s
                        call:*)
                            if [ "$COMP_CWORD" -eq 2 ]; then
                                words=$("${COMP_WORDS[0]}" completion contracts 2>/dev/null)
                            elif [ "$COMP_CWORD" -eq 3 ]; then
                                words=$("${COMP_WORDS[0]}" completion operations "${COMP_WORDS[2]}" 2>/dev/null)
                            fi ;;
                        completion:*) words='bash zsh' ;;
                        schema:*) words='%3$s' ;;
                        help:*) words='%1$s' ;;
                        *) words=$("${COMP_WORDS[0]}" completion contracts 2>/dev/null) ;;
                    esac
                fi
                COMPREPLY=($(compgen -W "$words" -- "$word"))
            }
            complete -o default -F _protypos protypos ./protypos
            """;

    private CommandSpec spec;
    private String what;
    private String contract;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "completion",
                "Prints a script that completes commands, options, adopted contracts, their operations and kept calls.",
                "For bash: source <(protypos completion bash); for zsh: source <(protypos completion zsh)");
        spec = syntax.spec();
        syntax.parameter(
                        String.class,
                        "SHELL",
                        "bash or zsh; or contracts, operations or calls for the words themselves.")
                .into(value -> what = value);
        syntax.parameter(String.class, "CONTRACT", "The contract of the operations.")
                .optional()
                .into(value -> contract = value);
    }

    @Override
    public Integer call() throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        switch (what) {
            case "bash" -> out.print(script());
            case "zsh" ->
                out.print("autoload -U +X compinit && compinit -C\n" + "autoload -U +X bashcompinit && bashcompinit\n"
                        + script());
            case "contracts" -> words(out, contracts());
            case "operations" -> words(out, operations());
            case "calls" -> words(out, SavedCall.names());
            default -> throw new ParameterException(spec.commandLine(), "there is a script for bash and one for zsh");
        }
        return ExitStatus.DONE;
    }

    /** Shells expand the words of a list, so nothing but plain names goes there. */
    private static void words(PrintWriter out, List<String> words) {
        words.stream().filter(word -> word.matches("[\\p{L}\\p{N}._-]+")).forEach(out::println);
    }

    private static String script() {
        Map<String, CommandLine> commands = Protypos.line().getSubcommands();
        List<String> options = new ArrayList<>();
        commands.forEach((name, command) -> options.add("            " + name + ":-*) words='"
                + command.getCommandSpec().options().stream()
                        .map(option -> option.longestName())
                        .collect(Collectors.joining(" "))
                + "' ;;"));
        return String.format(
                Locale.ROOT,
                SCRIPT,
                String.join(" ", commands.keySet()),
                String.join("\n", options),
                String.join(" ", SchemaCommand.names()));
    }

    private static List<String> contracts() throws IOException {
        Project project = Project.around(Path.of(""));
        return project == null ? List.of() : List.copyOf(project.contracts().keySet());
    }

    private List<String> operations() throws IOException {
        if (contract == null) {
            throw new ParameterException(spec.commandLine(), "name the contract");
        }
        Contract read =
                ContractArguments.of(contract, Sources.withoutNetwork(), spec).read();
        return CalledOperation.of(read).stream()
                .map(called -> called.operation().name())
                .distinct()
                .toList();
    }
}
