package org.protypos.cli.project;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.Console;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.protypos.change.Party;
import org.protypos.cli.argument.AdoptedArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ComparisonJson;
import org.protypos.cli.view.ComparisonMarkdown;
import org.protypos.cli.view.ComparisonPage;
import org.protypos.cli.view.ComparisonText;
import org.protypos.cli.view.ComparisonView;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Refresh;
import org.protypos.output.LineDiff;
import org.protypos.output.WholeFile;
import org.protypos.project.AdoptedContract;
import org.protypos.project.PinnedContract;
import org.protypos.project.PinnedDocument;
import org.protypos.project.Project;
import org.protypos.source.Document;
import org.protypos.source.FileHash;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Asks where adopted contracts came from whether they have changed, and takes the changes. */
public final class RefreshCommand implements Command {
    /** What may be taken without asking. */
    enum Accept {
        BREAKING
    }

    private CommandSpec spec;
    private AdoptedArguments named = new AdoptedArguments();
    private boolean dryRun;
    private Accept accept;
    private boolean overwrite;
    private List<String> from = new ArrayList<>();
    private boolean json;
    private boolean markdown;
    private Path html;
    private final List<String> unchanged = new ArrayList<>();
    private final List<Outcome> outcomes = new ArrayList<>();
    private Terminal terminal;

    /** What came of a contract; the comparison is null when nothing has changed. */
    private record Outcome(String name, String outcome, ComparisonView view) {}

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "refresh", "Fetches adopted contracts again, tells what has changed and for whom, and generates anew.");
        spec = syntax.spec();
        named.describe(syntax);
        syntax.flag("--dry-run", "Tells what has changed and changes nothing.").into(value -> dryRun = value);
        syntax.option(Accept.class, "--accept", "WHAT", "Takes changes that break something (breaking) without asking.")
                .into(value -> accept = value);
        syntax.flag("--overwrite", "Replaces generated files even if they were changed by hand.")
                .into(value -> overwrite = value);
        syntax.options(
                        String.class,
                        "--from",
                        "ADDRESS",
                        "Where the contract is now, when it has moved; for one contract. May be repeated.")
                .into(value -> from = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
        syntax.flag("--markdown", "Tells what has changed in Markdown, for a review.")
                .into(value -> markdown = value);
        syntax.option(Path.class, "--html", "FILE", "Also writes what has changed as a page; for one contract.")
                .into(value -> html = value);
    }

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (!dryRun) {
            new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        }
        List<AdoptedContract> adopted = named.all();
        if (adopted.size() > 1 && (!from.isEmpty() || html != null)) {
            throw new ParameterException(
                    spec.commandLine(), (html == null ? "--from" : "--html") + " is for one contract: name it");
        }
        int worst = ExitStatus.DONE;
        for (AdoptedContract contract : adopted) {
            int before = outcomes.size();
            int status = refresh(contract);
            worst = Math.max(worst, status);
            if (outcomes.size() == before) {
                outcomes.add(
                        new Outcome(contract.settings().name(), status == ExitStatus.DONE ? "restored" : "left", null));
            }
        }
        if (!unchanged.isEmpty()) {
            say(String.join(", ", unchanged) + ": unchanged");
        }
        if (json) {
            Json.print(terminal.out(), this::write);
        }
        return worst;
    }

    private void write(JsonGenerator document) throws IOException {
        document.writeArrayFieldStart("contracts");
        for (Outcome outcome : outcomes) {
            document.writeStartObject();
            document.writeStringField("name", outcome.name());
            document.writeStringField("outcome", outcome.outcome());
            if (outcome.view() != null) {
                new ComparisonJson(outcome.view()).write(document);
            }
            document.writeEndObject();
        }
        document.writeEndArray();
    }

    /** Says something to a person. */
    private void say(String line) {
        if (!json) {
            terminal.out().println(line);
        }
    }

    private int refresh(AdoptedContract old) throws IOException {
        String name = old.settings().name();
        Refresh refresh =
                Progress.during("refreshing " + name, json, () -> Refresh.look(old, from, Sources.asking(terminal)));
        switch (refresh.state()) {
            case NOWHERE -> {
                terminal.problem(
                        "nothing says where the documents of " + name + " came from",
                        "type: protypos refresh " + name + " --from ADDRESS");
                return ExitStatus.CONTRACT;
            }
            case UNREACHABLE -> {
                unreachable(name, refresh.findings());
                return ExitStatus.OUTSIDE;
            }
            case LOST, REFUSED -> {
                terminal.refuse(refresh.findings(), name + " was left as it was", false);
                return ExitStatus.CONTRACT;
            }
            case ALTERED, UNKNOWN -> {
                return putBack(refresh);
            }
            case UNCHANGED -> {
                if (!from.isEmpty() && !dryRun) {
                    refresh.pin();
                    say(name + ": unchanged; from now on from " + String.join(", ", from));
                } else {
                    unchanged.add(name);
                }
                outcomes.add(new Outcome(name, "unchanged", null));
                return ExitStatus.DONE;
            }
            default -> {
                return take(refresh);
            }
        }
    }

    /** Nobody has typed the address here: what may have happened to it is said of the contract. */
    private void unreachable(String name, List<Finding> findings) {
        findings.forEach(finding -> terminal.problem(finding.message(), ""));
        terminal.problem(
                name + " was left as it was",
                from.isEmpty()
                        ? "when it has moved, type: protypos refresh " + name + " --from ADDRESS"
                        : "is the address of --from right?");
    }

    private int take(Refresh refresh) throws IOException {
        String name = refresh.old().settings().name();
        ComparisonView view = new ComparisonView(
                name,
                "as it is now",
                refresh.comparison(),
                Party.of(refresh.old().settings().produce()).readers());
        outcomes.add(new Outcome(name, dryRun ? "changed" : "left", view));
        show(name, view);
        if (!refresh.findings().isEmpty()) {
            terminal.refuse(refresh.findings(), dryRun ? "nothing was changed" : name + " was left as it was", false);
            return ExitStatus.CONTRACT;
        }
        if (dryRun) {
            say("nothing was changed; next: protypos refresh " + name);
            return ExitStatus.DONE;
        }
        if (view.result().isBreaking() && accept != Accept.BREAKING && !isAgreed(name)) {
            terminal.problem(
                    name + " was left as it was, for the changes break something",
                    "add --accept breaking when that is what you want");
            return ExitStatus.PROMISE;
        }
        for (GeneratedCode code : refresh.preview(overwrite)) {
            if (code.isRefused()) {
                terminal.refuse(code.findings(), name + " was left as it was", false);
                return ExitStatus.CONTRACT;
            }
        }
        refresh.pin();
        outcomes.set(outcomes.size() - 1, new Outcome(name, "taken", view));
        return generate(refresh);
    }

    private void show(String name, ComparisonView view) throws IOException {
        if (html != null) {
            WholeFile.write(html, ComparisonPage.of(view));
        }
        if (markdown && !json) {
            new ComparisonMarkdown(view).print(terminal.out());
        } else if (!json) {
            terminal.out().println(Terminal.bold(name));
            new ComparisonText(view, Map.of()).print(terminal.out());
        }
    }

    /**
     * Takes the documents anew where those that were pinned are no longer whole: when they are the same as ever that changes nothing,
     * and otherwise nobody can say what it changes.
     */
    private int putBack(Refresh refresh) throws IOException {
        AdoptedContract old = refresh.old();
        String name = old.settings().name();
        PinnedContract pinned = old.project().pinned(name);
        Path folder =
                AdoptedContract.near(old.project().root().resolve(old.settings().folder()));
        for (PinnedDocument document : pinned.documents()) {
            Path copy = folder.resolve(document.path());
            boolean there = Files.isRegularFile(copy);
            if (!there || !FileHash.of(Files.readAllBytes(copy)).equals(document.hash())) {
                say(name + ": " + copy + (there ? " was changed" : " is missing"));
                if (there) {
                    difference(copy, document, refresh.fetched());
                }
            }
        }
        if (refresh.state() == Refresh.State.UNKNOWN && accept != Accept.BREAKING) {
            terminal.problem(
                    name
                            + " was left as it was: nothing says what the new documents break, for the pinned ones are not whole",
                    "take them from version control again, or add --accept breaking");
            return ExitStatus.PROMISE;
        }
        if (dryRun) {
            say("nothing was changed; next: protypos refresh " + name);
            return ExitStatus.DONE;
        }
        refresh.pin();
        return generate(refresh);
    }

    /** Shows how a pinned document differs from what it was. */
    private void difference(Path copy, PinnedDocument document, Contract fetched) throws IOException {
        for (Document one : fetched.documents().all()) {
            if (one.hash().equals(document.hash())) {
                String was = new String(one.bytes(), StandardCharsets.UTF_8);
                LineDiff.of(was, Files.readString(copy, StandardCharsets.ISO_8859_1))
                        .forEach(line -> say("    " + Terminal.plain(line)));
                return;
            }
        }
    }

    private int generate(Refresh refresh) throws IOException {
        String name = refresh.old().settings().name();
        List<GeneratedCode> codes = refresh.generate(overwrite);
        for (GeneratedCode code : codes) {
            if (code.isRefused()) {
                terminal.refuse(code.findings(), "the documents of " + name + " are new, its code is not", false);
                return ExitStatus.CONTRACT;
            }
        }
        codes.forEach(code -> say(code.order().owner() + ": "
                + Terminal.counted(code.report().added().size(), "file") + " new, "
                + code.report().changed().size() + " changed, "
                + code.report().removed().size() + " removed in "
                + code.order().into()));
        return ExitStatus.DONE;
    }

    /** Asks, where there is somebody to be asked. */
    private boolean isAgreed(String name) {
        Console console = System.console();
        if (console == null) {
            return false;
        }
        terminal.out().flush();
        String answer = console.readLine("take these changes to %s? [y/N] ", name);
        return answer != null && answer.strip().equalsIgnoreCase("y");
    }
}
