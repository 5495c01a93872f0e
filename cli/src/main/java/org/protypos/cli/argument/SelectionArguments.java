package org.protypos.cli.argument;

import java.util.ArrayList;
import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Names the part of a contract that a command is to look at. */
public final class SelectionArguments {
    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    @Option(
            names = "--service",
            paramLabel = "NAME",
            description = "Only this service; * stands for any text. May be repeated.")
    private List<String> services = new ArrayList<>();

    @Option(
            names = "--port",
            paramLabel = "NAME",
            description = "Only this port; * stands for any text. May be repeated.")
    private List<String> ports = new ArrayList<>();

    @Option(
            names = "--operation",
            paramLabel = "NAME",
            description = "Only this operation, and the types it needs; * stands for any text. May be repeated.")
    private List<String> operations = new ArrayList<>();

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
