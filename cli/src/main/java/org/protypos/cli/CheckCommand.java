package org.protypos.cli;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.Callable;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Tells everything that is wrong with a contract at once. */
@Command(name = "check", description = "Tells everything that is wrong with a contract, with place and cure.")
final class CheckCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Mixin
    private ContractArguments arguments;

    @Option(names = "--json", description = "Writes one JSON document.")
    private boolean json;

    @Override
    public Integer call() throws IOException {
        Contract contract = arguments.read();
        List<Finding> findings = contract.isSound()
                ? ContractArguments.findings(contract, ContractArguments.plan(contract, null))
                : contract.findings();
        var out = spec.commandLine().getOut();
        if (json) {
            Json.print(out, document -> {
                document.writeBooleanField("sound", contract.isSound());
                document.writeNumberField(
                        "documents", contract.documents().all().size());
                Json.findings(document, findings);
            });
            return ContractArguments.status(contract);
        }
        new FindingPrinter(out).print(findings);
        int documents = contract.documents().all().size();
        out.println(
                FindingPrinter.summary(findings) + " in " + documents + (documents == 1 ? " document" : " documents"));
        if (contract.isSound()) {
            out.println("next: protypos generate " + String.join(" ", arguments.names()) + " --into generated");
        }
        return ContractArguments.status(contract);
    }
}
