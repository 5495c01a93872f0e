package org.protypos.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.binding.DeclaredRule;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.binding.declared.DeclarationReader;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.GivenNames;
import org.protypos.plan.Plan;
import org.protypos.plan.Planner;
import org.protypos.target.java.JavaNames;
import picocli.CommandLine.Option;

/** Says on the command line what a contract's components are to be called. */
final class RuleArguments {
    @Option(
            names = "--rules",
            paramLabel = "FILE",
            description = "Rules and corrections in YAML or JSON, or binding declarations of Jakarta XML Binding"
                    + " and XML Web Services; may be given several times.")
    private List<Path> rules = new ArrayList<>();

    /** Whether no rules are given. */
    boolean isEmpty() {
        return rules.isEmpty();
    }

    /** The files that are given. */
    List<String> files() {
        return rules.stream().map(Path::toString).toList();
    }

    /** Gives more files, before those that are given. */
    void add(List<String> files) {
        List<Path> all = new ArrayList<>(files.stream().map(Path::of).toList());
        all.addAll(rules);
        rules = all;
    }

    /** How to say the same on another command line. */
    String again() {
        return rules.stream().map(file -> " --rules " + file).collect(Collectors.joining());
    }

    /**
     * Plans the API of a sound contract, as the rules want it.
     *
     * @param adopted the contract as the project has it, or null when it is none of a project
     * @param whole whether it is the whole contract that the rules are about
     */
    PlannedContract plan(Contract contract, AdoptedContract adopted, String packageName, boolean whole) {
        JavaNames names = new JavaNames();
        GivenNames past = adopted == null ? GivenNames.NONE : adopted.names();
        String single = packageName != null || adopted == null
                ? packageName
                : adopted.settings().packageName();
        Laid read = laid(contract, adopted);
        DeclarationReader.Declarations declarations = read.declarations();
        Rules laid = read.rules();
        Contract corrected = laid.correct(contract);
        Plan plan = Planner.plan(corrected, names, laid, past, single);
        Findings findings = new Findings();
        findings.addAll(contract.findings());
        findings.addAll(plan.findings());
        findings.addAll(declarations.findings());
        findings.addAll(laid.findings(whole));
        return new PlannedContract(corrected, plan, laid, DeclaredRule.joined(declarations.rules()), findings.sorted());
    }

    /** Rules that have been read, and the declarations that some of them stand for. */
    private record Laid(Rules rules, DeclarationReader.Declarations declarations) {}

    private Laid laid(Contract contract, AdoptedContract adopted) {
        List<Path> files = new ArrayList<>(adopted == null ? List.of() : adopted.rules());
        files.addAll(rules);
        Map<Boolean, List<Path>> byKind = files.stream().collect(Collectors.partitioningBy(DeclarationReader::isXml));
        DeclarationReader.Declarations declarations = DeclarationReader.read(byKind.get(true), contract);
        return new Laid(RuleReader.read(byKind.get(false), declarations.rules(), new JavaNames()), declarations);
    }

    /**
     * A sound contract as the rules correct it, for a command that has no use for what else they say.
     *
     * @param adopted the contract as the project has it, or null when it is none of a project
     * @param wrong takes what is wrong with the rules
     */
    Contract corrected(Contract contract, AdoptedContract adopted, Findings wrong) {
        if (rules.isEmpty() && (adopted == null || adopted.rules().isEmpty())) {
            return contract;
        }
        Laid laid = laid(contract, adopted);
        Contract corrected = laid.rules().correct(contract);
        wrong.addAll(laid.declarations().findings());
        wrong.addAll(laid.rules().findings(false));
        return corrected;
    }

    /** The plan of a contract with nothing in it of classes that only its user has. */
    static Plan withoutForeignClasses(PlannedContract planned) {
        return planned.rules().namesForeignClasses()
                ? Planner.plan(
                        planned.contract(), new JavaNames(), planned.rules().withoutForeignClasses(), null)
                : planned.plan();
    }
}
