package org.protypos.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Renaming;
import org.protypos.plan.Plan;
import org.protypos.plan.Planner;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.java.JavaNames;
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

    @Option(
            names = "--rules",
            paramLabel = "FILE",
            description = "Rules for names and packages, in YAML or JSON; may be given several times.")
    private List<Path> rules = new ArrayList<>();

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

    /** Plans the API, as the rules want it. */
    PlannedContract plan(Contract sound, String packageName) {
        JavaNames names = new JavaNames();
        Rules laid = RuleReader.read(rules, names);
        Plan plan = Planner.plan(sound, names, rules.isEmpty() ? Renaming.NONE : laid, packageName);
        Findings findings = new Findings();
        findings.addAll(sound.findings());
        findings.addAll(plan.findings());
        findings.addAll(laid.findings());
        return new PlannedContract(plan, laid, findings.sorted());
    }
}
