package org.protypos.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Names a contract on the command line, and reads it. */
final class ContractArguments {
    @Parameters(
            paramLabel = "CONTRACT",
            arity = "1..*",
            description = "A WSDL or schema document: a file, a directory or an http(s) address. Several schema files"
                    + " make one contract.")
    private List<String> contract = new ArrayList<>();

    @Option(
            names = "--catalog",
            paramLabel = "FILE",
            description = "An OASIS XML catalog that maps addresses and namespaces to local documents.")
    private Path catalog;

    List<String> names() {
        return contract;
    }

    Contract read() {
        return ContractReader.read(DocumentGatherer.gather(contract, catalog));
    }

    /** Whether not even the documents that were named could be had. */
    static boolean isUnreachable(Contract contract) {
        return contract.documents().entries().isEmpty();
    }

    /** The status that a contract's findings lead to. */
    static int status(Contract contract) {
        if (contract.isSound()) {
            return ExitStatus.DONE;
        }
        return isUnreachable(contract) ? ExitStatus.OUTSIDE : ExitStatus.CONTRACT;
    }
}
