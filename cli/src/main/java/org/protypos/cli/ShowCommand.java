package org.protypos.cli;

import java.io.IOException;
import java.util.concurrent.Callable;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SelectionArguments;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ContractView;
import org.protypos.cli.view.CorrectionView;
import org.protypos.contract.Contract;
import org.protypos.generator.PlannedContract;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Shows what a contract offers. */
@Command(
        name = "show",
        description = "Shows what a contract offers: documents, ports, and operations with their Java signatures.")
final class ShowCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Mixin
    private ContractArguments arguments;

    @Mixin
    private LanguageArguments language;

    @Mixin
    private RuleArguments rules;

    @Mixin
    private SelectionArguments selection;

    @Option(names = "--package", paramLabel = "P", description = "The Java package for everything.")
    private String packageName;

    @Option(
            names = "--corrections",
            description = "Shows what rules correct of the contract, before and after, and nothing else.")
    private boolean corrections;

    @Option(names = "--json", description = "Writes one JSON document.")
    private boolean json;

    @Override
    public Integer call() throws IOException {
        Contract whole = arguments.read();
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (!whole.isSound()) {
            if (json) {
                Json.print(terminal.out(), document -> Json.findings(document, whole.findings()));
            } else {
                new FindingPrinter(terminal.err()).print(whole.findings());
                terminal.problem("the contract has errors (" + FindingPrinter.summary(whole.findings()) + ")", "");
            }
            return ContractArguments.status(whole);
        }
        PlannedContract planned = rules.generator(whole, arguments.adopted())
                .target(language.target())
                .packageName(packageName)
                .selection(selection.of(whole))
                .plan();
        if (!planned.isSound()) {
            terminal.refuse(planned.findings(), "nothing is shown", json);
            return ExitStatus.CONTRACT;
        }
        if (corrections) {
            new CorrectionView(planned.rules()).print(terminal.out(), json);
            return ExitStatus.DONE;
        }
        ContractView view = new ContractView(planned.published(), planned);
        if (json) {
            view.json(terminal.out());
        } else {
            view.text(terminal.out());
            int findings = planned.findings().size();
            String names = String.join(" ", arguments.names()) + language.again() + rules.again();
            if (findings > 0) {
                terminal.out()
                        .println(findings + (findings == 1 ? " finding" : " findings") + ": protypos check " + names);
            }
            terminal.out().println("next: protypos generate " + names + " --into generated");
        }
        return ExitStatus.DONE;
    }
}
