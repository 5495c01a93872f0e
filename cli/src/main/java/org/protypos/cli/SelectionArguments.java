package org.protypos.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.NearestName;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Names the part of a contract that a command is to look at. */
final class SelectionArguments {
    private static final int SHOWN_NAMES = 12;

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

    /** The selected part of a contract. */
    Contract of(Contract contract) {
        Selection selection = new Selection(services, ports, operations);
        for (Selection.Unmatched unmatched : selection.unmatched(contract)) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--" + unmatched.kind() + ": the contract has no " + unmatched.kind() + " " + unmatched.pattern()
                            + NearestName.of(unmatched.pattern(), unmatched.known())
                                    .map(name -> "; did you mean " + name + "?")
                                    .orElse("; it has "
                                            + unmatched.known().stream()
                                                    .limit(SHOWN_NAMES)
                                                    .collect(Collectors.joining(", "))));
        }
        return selection.of(contract);
    }
}
