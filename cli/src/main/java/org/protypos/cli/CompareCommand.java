package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.protypos.binding.RuleReader;
import org.protypos.change.Comparison;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.plan.Planner;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.java.JavaNames;
import org.protypos.target.java.JavaSurface;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells how two contracts differ, and for whom that breaks something. */
@Command(name = "compare", description = "Tells how two contracts differ, and for whom that breaks something.")
final class CompareCommand implements Callable<Integer> {
    /** When a difference makes the command fail. */
    enum FailOn {
        BREAKING,
        ANY
    }

    @Spec
    private CommandSpec spec;

    @Parameters(
            index = "0",
            paramLabel = "OLD",
            description = "A contract: a document, an address, or an adopted name.")
    private String old;

    @Parameters(index = "1", paramLabel = "NEW", description = "The contract to compare it with.")
    private String now;

    @Option(
            names = "--catalog",
            paramLabel = "FILE",
            description = "An OASIS XML catalog that maps addresses and namespaces to local documents.")
    private Path catalog;

    @Option(
            names = "--fail-on",
            paramLabel = "WHAT",
            description = "Ends with status 4 on a breaking difference, or on any.")
    private FailOn failOn;

    @Option(names = "--markdown", description = "Writes Markdown, for a review.")
    private boolean markdown;

    @Option(names = "--html", paramLabel = "FILE", description = "Also writes a page to look at, complete in itself.")
    private Path html;

    @Option(names = "--json", description = "Writes one JSON document.")
    private boolean json;

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        List<Contract> contracts = new ArrayList<>();
        List<Finding> findings = new ArrayList<>();
        for (String name : List.of(old, now)) {
            Contract contract = read(name);
            contracts.add(contract);
            if (!contract.isSound()) {
                findings.addAll(contract.findings());
            }
        }
        if (!findings.isEmpty()) {
            terminal.refuse(findings, "nothing was compared", json);
            return contracts.stream().anyMatch(ContractArguments::isUnreachable)
                    ? ExitStatus.OUTSIDE
                    : ExitStatus.CONTRACT;
        }
        Comparison.Result result = compare(contracts.get(0), contracts.get(1));
        ComparisonView view = new ComparisonView(old, now, result);
        if (html != null) {
            Files.writeString(html, ComparisonPage.of(view), StandardCharsets.UTF_8);
        }
        PrintWriter out = terminal.out();
        if (json) {
            Json.print(out, view::json);
        } else if (markdown) {
            view.markdown(out);
        } else {
            view.text(out);
        }
        boolean failed = failOn == FailOn.ANY && !result.differences().isEmpty()
                || failOn == FailOn.BREAKING && result.isBreaking();
        return failed ? ExitStatus.PROMISE : ExitStatus.DONE;
    }

    private Contract read(String name) throws IOException {
        AdoptedContract adopted = AdoptedContract.named(List.of(name));
        return adopted == null ? ContractReader.read(DocumentGatherer.gather(List.of(name), catalog)) : adopted.read();
    }

    /** Compares two sound contracts with the code that would be generated from them. */
    static Comparison.Result compare(Contract before, Contract after) {
        return Comparison.of(before, after, surface(before), surface(after));
    }

    private static Map<String, String> surface(Contract contract) {
        JavaNames names = new JavaNames();
        return JavaSurface.of(
                Planner.plan(contract, names, RuleReader.read(List.of(), names), null),
                contract.wsdl().portTypes().values());
    }
}
