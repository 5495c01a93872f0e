package org.protypos.cli.contract;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.change.Beside;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Party;
import org.protypos.change.Reader;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
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
import picocli.CommandLine.Model.CommandSpec;

/** Tells how two contracts differ, and for whom that breaks something. */
public final class CompareCommand implements Command {
    /** When a difference makes the command fail. */
    enum FailOn {
        BREAKING,
        ANY
    }

    private CommandSpec spec;
    private String old;
    private String now;
    private LanguageArguments language = new LanguageArguments();
    private RuleArguments rules = new RuleArguments();
    private Sources sources = new Sources();
    private FailOn failOn;
    private Party party;
    private Path witness;
    private boolean markdown;
    private Path html;
    private boolean json;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("compare", "Tells how two contracts differ, and for whom that breaks something.");
        spec = syntax.spec();
        syntax.parameter(
                        String.class,
                        "OLD",
                        "A contract: a document, an address, an adopted name, or name@revision for one under git.")
                .into(value -> old = value);
        syntax.parameter(String.class, "NEW", "The contract to compare it with.")
                .into(value -> now = value);
        language.describe(syntax);
        rules.describe(syntax);
        sources.describe(syntax);
        syntax.option(FailOn.class, "--fail-on", "WHAT", "Ends with status 4 on a breaking difference, or on any.")
                .into(value -> failOn = value);
        syntax.option(
                        Party.class,
                        "--for",
                        "PARTY",
                        "Counts what breaks for a client, a server, or both; by what the project produces if not given.")
                .into(value -> party = value);
        syntax.option(Path.class, "--witness", "DIR", "Also writes the messages that show what breaks, one file each.")
                .into(value -> witness = value);
        syntax.flag("--markdown", "Writes Markdown, for a review.").into(value -> markdown = value);
        syntax.option(Path.class, "--html", "FILE", "Also writes a page to look at, complete in itself.")
                .into(value -> html = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

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
            // Both have read what they share, such as the catalog.
            Set<String> told = new HashSet<>();
            findings.removeIf(one -> !told.add(one.place() + " " + one.message()));
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
