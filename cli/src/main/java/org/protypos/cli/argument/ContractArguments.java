package org.protypos.cli.argument;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.contract.Contract;
import org.protypos.project.AdoptedContract;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Names a contract on the command line, and reads it. */
public final class ContractArguments {
    @Parameters(
            paramLabel = "CONTRACT",
            arity = "0..*",
            description =
                    "A WSDL or schema document: a file, a directory or an http(s) address; or the name of an adopted"
                            + " contract. Several schema files make one contract.")
    private List<String> contract = new ArrayList<>();

    @Mixin
    private Sources sources;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    private AdoptedContract adopted;
    private boolean unreachable;

    /** Arguments of a command that takes one contract among other things. */
    public static ContractArguments of(String contract, Sources sources, CommandSpec spec) {
        ContractArguments arguments = new ContractArguments();
        arguments.contract = List.of(contract);
        arguments.sources = sources;
        arguments.spec = spec;
        return arguments;
    }

    /** What was given as the contract, in the order of the command line. */
    public List<String> names() {
        return contract;
    }

    /** The catalog that was given, or null. */
    public Path catalog() {
        return sources.catalog();
    }

    /** Reads what was given as one contract. */
    public Contract read() throws IOException {
        if (contract.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(), "name a contract: a file, a directory, an address, or one of a project");
        }
        adopted = AdoptedContract.named(Path.of(""), contract);
        Contract read = adopted == null ? gather() : adopted.read();
        unreachable = isUnreachable(read);
        return read;
    }

    /** Reads the documents that are named, whatever a project calls so. */
    public Contract gather() {
        return sources.read(contract);
    }

    /** Whether not even the documents that were named could be had when they were read. */
    public boolean isUnreachable() {
        return unreachable;
    }

    /** The adopted contract that was read, or null when it was none. */
    public AdoptedContract adopted() {
        return adopted;
    }

    /** Whether not even the documents that were named could be had. */
    public static boolean isUnreachable(Contract contract) {
        return contract.documents().entries().isEmpty();
    }

    /** The status that a contract's findings lead to. */
    public static int status(Contract contract) {
        if (contract.isSound()) {
            return ExitStatus.DONE;
        }
        return isUnreachable(contract) ? ExitStatus.OUTSIDE : ExitStatus.CONTRACT;
    }
}
