package org.protypos.cli.argument;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.contract.Contract;
import org.protypos.project.AdoptedContract;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Names a contract on the command line, and reads it. */
public final class ContractArguments implements Described {
    private static final Pattern DOCUMENT = Pattern.compile("(?i)(https?|file|jar):.*|[^{~].*\\.(wsdl|xsd|xml)");

    private List<String> contract = new ArrayList<>();
    private Sources sources = new Sources();
    private CommandSpec spec;
    private AdoptedContract adopted;
    private boolean unreachable;

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.parameters(
                        String.class,
                        "CONTRACT",
                        "A WSDL or schema document: a file, a directory or an http(s) address; or the name of an adopted"
                                + " contract. Several schema files make one contract.")
                .into(value -> contract = value);
        sources.describe(syntax);
    }

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

    /**
     * Takes away the arguments behind the contract that name no document: they are names of what is in it. What looks like a document
     * is one, so that it is missed when it is not there.
     */
    public List<String> takeNames() {
        int documents = Math.min(1, contract.size());
        while (documents < contract.size() && isDocument(contract.get(documents))) {
            documents++;
        }
        List<String> names = List.copyOf(contract.subList(documents, contract.size()));
        contract = List.copyOf(contract.subList(0, documents));
        return names;
    }

    private static boolean isDocument(String argument) {
        return DOCUMENT.matcher(argument).matches()
                || !argument.startsWith("{") && !argument.startsWith("~") && new File(argument).exists();
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

    /** Where code for the contract goes, as more of a command line; a project file says that for an adopted one. */
    public String into() {
        return adopted == null ? " --into generated" : "";
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
