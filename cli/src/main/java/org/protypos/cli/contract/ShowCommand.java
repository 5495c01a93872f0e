package org.protypos.cli.contract;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SelectionArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Limits;
import org.protypos.cli.terminal.Pager;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ContractView;
import org.protypos.cli.view.CorrectionView;
import org.protypos.cli.view.DocumentTree;
import org.protypos.cli.view.MarkdownView;
import org.protypos.cli.view.ReferencePages;
import org.protypos.cli.view.ReferenceView;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.PlannedContract;
import org.protypos.output.WholeFile;
import org.protypos.reference.Component;
import org.protypos.reference.ContractReference;
import org.protypos.target.Target;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Shows what a contract offers. */
public final class ShowCommand implements Command {
    private static final int MOST_LEVELS = 100;
    private static final int SHOWN_HOLDERS = 4;

    private CommandSpec spec;
    private ContractArguments arguments = new ContractArguments();
    private LanguageArguments language = new LanguageArguments();
    private RuleArguments rules = new RuleArguments();
    private SelectionArguments selection = new SelectionArguments();
    private String packageName;
    private boolean corrections;
    private Integer depth;
    private boolean usages;
    private boolean tree;
    private Path html;
    private boolean markdown;
    private boolean json;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "show",
                "Shows what a contract offers: documents, ports, and operations with their signatures; or all of"
                        + " an operation, a message, an element or a type whose name stands behind the contract.");
        spec = syntax.spec();
        arguments.describe(syntax);
        language.describe(syntax);
        rules.describe(syntax);
        selection.describe(syntax);
        syntax.option(String.class, "--package", "P", "The package or namespace of the code for everything.")
                .into(value -> packageName = value);
        syntax.flag("--corrections", "Shows what rules correct of the contract, before and after, and nothing else.")
                .into(value -> corrections = value);
        syntax.option(
                        Integer.class,
                        "--depth",
                        "N",
                        "How many levels of what is named are shown; as many as one can read if not given.")
                .into(value -> depth = value);
        syntax.flag("--usages", "Shows who uses what is named, and nothing else of it.")
                .into(value -> usages = value);
        syntax.flag("--tree", "Shows the documents, and which of them leads to which.")
                .into(value -> tree = value);
        syntax.option(
                        Path.class,
                        "--html",
                        "FILE",
                        "Writes a page that is complete in itself: to read, to search, to print.")
                .into(value -> html = value);
        syntax.flag("--markdown", "Writes Markdown, for a wiki or a review.").into(value -> markdown = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        List<String> names = arguments.takeNames();
        if (depth != null) {
            new Limits(spec).number("--depth", depth, 1, MOST_LEVELS);
            if (names.isEmpty() && !markdown) {
                throw new ParameterException(spec.commandLine(), "--depth is about what is named behind the contract");
            }
        }
        if (usages && names.isEmpty()) {
            throw new ParameterException(spec.commandLine(), "--usages: name what is used, behind the contract");
        }
        if (json && markdown
                || tree && (markdown || !names.isEmpty())
                || html != null && (json || markdown || tree || !names.isEmpty())) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--html, --markdown, --json and --tree do not go together, nor --html and --tree with names");
        }
        Contract whole = arguments.read();
        if (tree) {
            return tree(terminal, whole);
        }
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
        if (!names.isEmpty()) {
            return components(terminal, planned, names);
        }
        if (html != null) {
            return page(terminal, whole, planned);
        }
        ContractView view = new ContractView(planned.published(), planned);
        if (json) {
            view.json(terminal.out());
        } else if (markdown) {
            new MarkdownView(planned, ReferencePages.reference(planned), terminal.out()).contract(depth);
        } else {
            Pager.print(terminal, out -> {
                view.text(out);
                next(out, planned);
            });
        }
        return ExitStatus.DONE;
    }

    private void next(PrintWriter out, PlannedContract planned) {
        int findings = planned.findings().size();
        String names = String.join(" ", arguments.names()) + language.again() + rules.again();
        if (findings > 0) {
            out.println(findings + (findings == 1 ? " finding" : " findings") + ": protypos check " + names);
        }
        out.println("next: protypos generate " + names + arguments.into());
    }

    private int page(Terminal terminal, Contract whole, PlannedContract planned) throws IOException {
        String title = String.join(" ", arguments.names()).replaceFirst("^.*/", "");
        Selection selected = selection.of(whole);
        Function<Target, PlannedContract> others = other -> rules.generator(whole, arguments.adopted())
                .target(other)
                .selection(selected)
                .plan();
        WholeFile.write(html, new ReferencePages(planned, others, title).page().text());
        terminal.out().println("written to " + Terminal.plain(html.toString()) + ": open it in a browser");
        return ExitStatus.DONE;
    }

    private int tree(Terminal terminal, Contract whole) throws IOException {
        DocumentTree documents = new DocumentTree(whole.documents());
        if (json) {
            documents.json(terminal.out());
        } else {
            if (!ContractArguments.isUnreachable(whole)) {
                Pager.print(terminal, documents::text);
                if (!whole.documents().findings().isEmpty()) {
                    terminal.err().println();
                }
            }
            new FindingPrinter(terminal.err()).print(whole.documents().findings());
        }
        if (ContractArguments.isUnreachable(whole)) {
            return ExitStatus.OUTSIDE;
        }
        boolean sound = whole.documents().findings().stream().noneMatch(Finding::isError);
        return sound ? ExitStatus.DONE : ExitStatus.CONTRACT;
    }

    /** What may be meant by a name that no component has: those that hold something called so, or the one with the nearest name. */
    private static String instead(ContractReference reference, String name) {
        List<Component> holders = reference.holders(name);
        if (holders.isEmpty()) {
            return reference
                    .components()
                    .nearest(name)
                    .map(near -> "; did you mean " + near + "?")
                    .orElse("");
        }
        int more = holders.size() - SHOWN_HOLDERS;
        return " by itself; it is in "
                + holders.stream().limit(SHOWN_HOLDERS).map(Component::handle).collect(Collectors.joining(", "))
                + (more > 0 ? " and " + more + " more" : "");
    }

    private int components(Terminal terminal, PlannedContract planned, List<String> names) throws IOException {
        ContractReference reference = ReferencePages.reference(planned);
        List<Component> found = new ArrayList<>();
        List<String> missing = new ArrayList<>();
        Set<String> also = new LinkedHashSet<>();
        for (String name : names) {
            List<Component> called = reference.components().named(name);
            // Of several kinds that share a name the first has the others in it, or is what is meant most often.
            called.stream()
                    .filter(one -> one.kind() == called.get(0).kind() && !found.contains(one))
                    .forEach(found::add);
            called.stream()
                    .filter(one -> one.kind() != called.get(0).kind())
                    .map(Component::handle)
                    .forEach(also::add);
            if (called.isEmpty()) {
                missing.add(name + instead(reference, name));
            }
        }
        if (!missing.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(),
                    "the contract has nothing called " + String.join("\nand nothing called ", missing));
        }
        ReferenceView view = new ReferenceView(
                reference, found, depth, usages, planned.target().title());
        if (json) {
            view.json(terminal.out());
        } else if (markdown) {
            new MarkdownView(planned, reference, terminal.out()).components(found, depth);
        } else {
            Pager.print(terminal, out -> {
                view.text(out, terminal.width());
                if (!also.isEmpty()) {
                    out.println();
                    out.println("called so too: " + String.join(", ", also));
                }
            });
        }
        return ExitStatus.DONE;
    }
}
