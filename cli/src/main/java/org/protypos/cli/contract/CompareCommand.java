package org.protypos.cli.contract;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import org.protypos.change.Beside;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Party;
import org.protypos.change.Reader;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ComparisonJson;
import org.protypos.cli.view.ComparisonMarkdown;
import org.protypos.cli.view.ComparisonPage;
import org.protypos.cli.view.ComparisonText;
import org.protypos.cli.view.ComparisonView;
import org.protypos.cli.view.WitnessFiles;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.PlannedContract;
import org.protypos.output.WholeFile;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Revision;
import org.protypos.target.Surface;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Tells how two contracts differ, and for whom that breaks something. */
@Command(name = "compare", description = "Tells how two contracts differ, and for whom that breaks something.")
public final class CompareCommand implements Callable<Integer> {
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
            description = "A contract: a document, an address, an adopted name, or name@revision for one under git.")
    private String old;

    @Parameters(index = "1", paramLabel = "NEW", description = "The contract to compare it with.")
    private String now;

    @Mixin
    private LanguageArguments language;

    @Mixin
    private RuleArguments rules;

    @Mixin
    private Sources sources;

    @Option(
            names = "--fail-on",
            paramLabel = "WHAT",
            description = "Ends with status 4 on a breaking difference, or on any.")
    private FailOn failOn;

    @Option(
            names = "--for",
            paramLabel = "PARTY",
            description =
                    "Counts what breaks for a client, a server, or both; by what the project produces if not given.")
    private Party party;

    @Option(
            names = "--witness",
            paramLabel = "DIR",
            description = "Also writes the messages that show what breaks, one file each.")
    private Path witness;

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
        Side given = read(old);
        Side after = read(now).orAs(given);
        Side before = given.orAs(after);
        List<Finding> findings = new ArrayList<>();
        for (Side side : List.of(before, after)) {
            if (!side.contract().isSound()) {
                findings.addAll(side.contract().findings());
            }
        }
        if (!findings.isEmpty()) {
            terminal.refuse(findings, "nothing was compared", json);
            return ContractArguments.isUnreachable(before.contract())
                            || ContractArguments.isUnreachable(after.contract())
                    ? ExitStatus.OUTSIDE
                    : ExitStatus.CONTRACT;
        }
        Comparison.Result result =
                Progress.during("comparing " + old + " and " + now, json, () -> compared(before, after));
        ComparisonView view = new ComparisonView(old, now, result, readers(before, after));
        Map<Difference, Map<Reader, String>> files = witness == null ? Map.of() : WitnessFiles.write(witness, view);
        if (html != null) {
            WholeFile.write(html, ComparisonPage.of(view));
        }
        PrintWriter out = terminal.out();
        if (json) {
            Json.print(out, new ComparisonJson(view)::write);
        } else if (markdown) {
            new ComparisonMarkdown(view).print(out);
        } else {
            new ComparisonText(view, files).print(out);
        }
        boolean failed = failOn == FailOn.ANY && !result.differences().isEmpty()
                || failOn == FailOn.BREAKING && view.result().isBreaking();
        return failed ? ExitStatus.PROMISE : ExitStatus.DONE;
    }

    private Comparison.Result compared(Side before, Side after) {
        Beside<Seen> planned = Beside.begin(() -> seen(after));
        Seen left = seen(before);
        Seen right = planned.result();
        return Comparison.of(left.contract(), right.contract(), left.code(), right.code());
    }

    private Set<Reader> readers(Side before, Side after) {
        AdoptedContract adopted = after.adopted() == null ? before.adopted() : after.adopted();
        Party stands = party != null
                ? party
                : adopted == null ? Party.BOTH : Party.of(adopted.settings().produce());
        return stands.readers();
    }

    /** A contract with the project that it is of, or null. */
    private record Side(Contract contract, AdoptedContract adopted) {
        /** What is of no project is seen as if it were the other one: a new version with the language, the package and the rules of the old. */
        Side orAs(Side other) {
            return adopted == null ? new Side(contract, other.adopted) : this;
        }
    }

    /** A contract as rules correct it, and what code sees of it. */
    private record Seen(Contract contract, Surface code) {}

    /** With the rules and names that the project of the contract gives it. */
    private Seen seen(Side side) {
        PlannedContract planned = rules.generator(side.contract(), side.adopted())
                .target(language.target())
                .plan();
        return new Seen(planned.contract(), planned.surface());
    }

    private Side read(String name) throws IOException {
        int at = name.lastIndexOf('@');
        AdoptedContract adopted = AdoptedContract.named(Path.of(""), List.of(at > 0 ? name.substring(0, at) : name));
        if (adopted == null) {
            return new Side(sources.read(List.of(name)), null);
        }
        AdoptedContract then =
                at > 0 ? Revision.of(adopted.project(), adopted.settings().name(), name.substring(at + 1)) : adopted;
        return new Side(then.read(), then);
    }
}
