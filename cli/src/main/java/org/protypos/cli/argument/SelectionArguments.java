package org.protypos.cli.argument;

import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Names the part of a contract that a command is to look at. */
public final class SelectionArguments implements Described {
    private CommandSpec spec;
    private List<String> services = new ArrayList<>();
    private List<String> ports = new ArrayList<>();
    private List<String> operations = new ArrayList<>();

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.options(String.class, "--service", "NAME", "Only this service; * stands for any text. May be repeated.")
                .into(value -> services = value);
        syntax.options(String.class, "--port", "NAME", "Only this port; * stands for any text. May be repeated.")
                .into(value -> ports = value);
        syntax.options(
                        String.class,
                        "--operation",
                        "NAME",
                        "Only this operation, and the types it needs; * stands for any text. May be repeated.")
                .into(value -> operations = value);
    }

    /** What is selected of a contract. */
    public Selection of(Contract contract) {
        Selection selection = new Selection(services, ports, operations);
        for (Selection.Unmatched unmatched : selection.unmatched(contract)) {
            throw new ParameterException(
                    spec.commandLine(), "--" + unmatched.kind() + ": " + unmatched.message() + "; " + unmatched.cure());
        }
        return selection;
    }
}
