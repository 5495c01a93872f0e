package org.protypos.cli.contract;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.protypos.cli.argument.ArchiveArguments;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SelectionArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.Drift;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.generator.ProjectGenerator;
import org.protypos.generator.Scaffold;
import org.protypos.output.WriteReport;
import org.protypos.project.AdoptedContract;
import org.protypos.project.EditorSchema;
import org.protypos.project.Project;
import org.protypos.target.Product;
import org.protypos.target.Target;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Writes the code for a contract. */
public final class GenerateCommand implements Command {
    /** Where the runtime comes from. */
    enum RuntimePlace {
        EMBEDDED,
        LIBRARY
    }

    /** Where endpoints run. */
    enum ServerPlace {
        JDK,
        SERVLET
    }

    /** Whether source has columns. */
    enum SourceForm {
        FIXED,
        FREE
    }

    /** What code can be for; a part of the products, of which others are asked for by options of their own. */
    private enum Purpose {
        TYPES(Product.TYPES),
        CLIENT(Product.CLIENT),
        SERVER(Product.SERVER);

        private final Product product;

        Purpose(Product product) {
            this.product = product;
        }
    }

    private static final Path FOLDER = Path.of("generated");

    private CommandSpec spec;
    private ContractArguments arguments = new ContractArguments();
    private LanguageArguments language = new LanguageArguments();
    private RuleArguments rules = new RuleArguments();
    private SelectionArguments selection = new SelectionArguments();
    private Path into;
    private ArchiveArguments archives = new ArchiveArguments();
    private String packageName;
    private List<Purpose> purposes = List.of(Purpose.values());
    private ServerPlace server = ServerPlace.JDK;
    private Path scaffold;
    private RuntimePlace runtime = RuntimePlace.EMBEDDED;
    private SourceForm form = SourceForm.FIXED;
    private boolean preview;
    private boolean overwrite;
    private boolean check;
    private boolean json;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "generate", "Writes types, client and server for a contract, or for all contracts of a project.");
        spec = syntax.spec();
        arguments.describe(syntax);
        language.describe(syntax);
        rules.describe(syntax);
        selection.describe(syntax);
        syntax.option(
                        Path.class,
                        "--into",
                        "DIR",
                        "The folder for the sources; generated if neither it nor an archive is given.")
                .into(value -> into = value);
        archives.describe(syntax);
        syntax.option(
                        String.class,
                        "--package",
                        "P",
                        "The package or namespace of the code for everything; one for each namespace if not given.")
                .into(value -> packageName = value);
        syntax.options(
                        Purpose.class,
                        "--produce",
                        "WHAT",
                        "What to write: types, client, server, with commas between; all if not given.")
                .split(",")
                .into(value -> purposes = value);
        syntax.option(
                        ServerPlace.class,
                        "--server",
                        "WHERE",
                        "Where endpoints run: in the JDK's own server (jdk), or in a servlet container too (servlet).")
                .into(value -> server = value);
        syntax.option(
                        Path.class,
                        "--scaffold",
                        "DIR",
                        "Writes a beginning of each implementation into DIR, once; says later which methods it lacks.")
                .into(value -> scaffold = value);
        syntax.option(
                        RuntimePlace.class,
                        "--runtime",
                        "HOW",
                        "Whether the runtime's sources are written too (embedded) or used as a library (library).")
                .into(value -> runtime = value);
        syntax.option(
                        SourceForm.class,
                        "--form",
                        "FORM",
                        "The form of COBOL's source: columns 8 to 72 (fixed), or free.")
                .into(value -> form = value);
        syntax.flag("--preview", "Lists what would be written and writes nothing.")
                .into(value -> preview = value);
        syntax.flag("--overwrite", "Replaces generated files even if they were changed by hand.")
                .into(value -> overwrite = value);
        syntax.flag(
                        "--check",
                        "Writes nothing, lists what has drifted apart, and ends with status 4 when something has.")
                .into(value -> check = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        checkPackage();
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (!preview && !check) {
            new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        }
        List<AdoptedContract> adopted = AdoptedContract.all(Path.of(""), arguments.names());
        adopted = inLanguage(adopted);
        if (archives.isWanted() && (adopted == null || !adopted.isEmpty())) {
            return archive(terminal, adopted);
        }
        if (adopted == null) {
            GeneratedCode code = oneWritten();
            boolean compared = check && code.report() != null;
            ProjectGenerator.Result result =
                    new ProjectGenerator.Result(List.of(code), compared ? Drift.of(code) : List.of());
            return print(terminal, result, code.planned() == null && arguments.isUnreachable());
        }
        if (adopted.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(), "name a contract, or adopt one into a project here: protypos adopt CONTRACT");
        }
        return project(terminal, adopted);
    }

    private GeneratedCode oneWritten() throws IOException {
        return Progress.during("generating " + String.join(" ", arguments.names()), json, () -> one().written(
                        preview || check, overwrite));
    }

    /** Generates a contract as the command line says. */
    private GeneratedCode one() throws IOException {
        Set<Product> wanted = EnumSet.of(Product.TYPES);
        purposes.forEach(purpose -> wanted.add(purpose.product));
        if (server == ServerPlace.SERVLET) {
            wanted.add(Product.SERVLET);
        }
        if (form == SourceForm.FREE) {
            wanted.add(Product.FREE_FORM);
        }
        archives.add(wanted);
        Order order = new Order("", into == null ? FOLDER : into, scaffold, wanted, runtime == RuntimePlace.EMBEDDED);
        Contract contract = arguments.read();
        Generator generator =
                rules.generator(contract, null).target(language.target()).packageName(packageName);
        if (contract.isSound()) {
            generator.selection(selection.of(contract));
        }
        return generator.generate(order);
    }

    /** Writes archives of one contract, whether it is one of a project or not. */
    private int archive(Terminal terminal, List<AdoptedContract> adopted) throws IOException {
        if (preview || check) {
            throw new ParameterException(spec.commandLine(), "--jar and --war write, --preview and --check do not");
        }
        if (scaffold != null) {
            throw new ParameterException(spec.commandLine(), "--scaffold is for sources, --jar and --war are not");
        }
        if (adopted != null && adopted.size() != 1) {
            throw new ParameterException(spec.commandLine(), "--jar and --war are for one contract: name it");
        }
        GeneratedCode code;
        if (adopted == null) {
            code = one();
        } else {
            AdoptedContract contract = adopted.get(0);
            Order order = Order.of(contract);
            Set<Product> wanted = EnumSet.copyOf(order.products());
            archives.add(wanted);
            code = rules.generator(contract.read(), contract)
                    .packageName(packageName)
                    .selection(contract.selection())
                    .generate(new Order("", into == null ? FOLDER : into, null, wanted, order.embedded()));
        }
        boolean unreachable = adopted == null && code.planned() == null && arguments.isUnreachable();
        if (into != null && !code.isRefused()) {
            code = code.written(false, overwrite);
        }
        if (code.isRefused()) {
            edits(terminal, code);
            terminal.refuse(code.findings(), "nothing was written", json);
            return unreachable ? ExitStatus.OUTSIDE : ExitStatus.CONTRACT;
        }
        int status = archives.write(terminal, code, json);
        if (status == ExitStatus.DONE && adopted != null) {
            AdoptedContract contract = adopted.get(0);
            contract.project()
                    .remember(Map.of(
                            contract.settings().name(),
                            List.of(code.planned().code().names())));
        }
        return status;
    }

    /** Generates adopted contracts as the project file says, all of them or none. */
    private int project(Terminal terminal, List<AdoptedContract> adopted) throws IOException {
        String names =
                adopted.stream().map(contract -> contract.settings().name()).collect(Collectors.joining(", "));
        ProjectGenerator.Result result = Progress.during("generating " + names, json, () -> generated(adopted));
        if (scaffolds(adopted) && !preview && !check && !result.isRefused()) {
            EditorSchema.lead(adopted.get(0).project())
                    .forEach(file -> terminal.err().println(file + ": its first line leads editors to its schema now"));
        }
        return print(terminal, result, false);
    }

    private ProjectGenerator.Result generated(List<AdoptedContract> adopted) throws IOException {
        return ProjectGenerator.of(adopted)
                .rules(rules.paths())
                .packageName(packageName)
                .run(
                        preview
                                ? ProjectGenerator.Mode.PREVIEW
                                : check ? ProjectGenerator.Mode.CHECK : ProjectGenerator.Mode.WRITE,
                        overwrite);
    }

    private static boolean scaffolds(List<AdoptedContract> adopted) {
        return adopted.stream()
                .flatMap(contract -> contract.editions().stream())
                .anyMatch(contract -> contract.settings().scaffold() != null);
    }

    /** Says what has drifted apart, and that it has by the exit status. */
    private int drift(Terminal terminal, List<Drift> drift) throws IOException {
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeBooleanField("upToDate", drift.isEmpty());
                Json.strings(
                        document,
                        "drift",
                        drift.stream().map(one -> one.kind() + " " + one.path()).toList());
            });
        } else {
            Columns columns = new Columns(2);
            drift.forEach(one -> columns.row(one.kind().toString(), Terminal.plain(one.path())));
            columns.print(terminal.out());
            terminal.out()
                    .println(
                            drift.isEmpty()
                                    ? "everything is as it would be generated"
                                    : drift.size() + (drift.size() == 1 ? " thing has" : " things have")
                                            + " drifted apart; next: protypos generate");
        }
        return drift.isEmpty() ? ExitStatus.DONE : ExitStatus.PROMISE;
    }

    private int print(Terminal terminal, ProjectGenerator.Result result, boolean unreachable) throws IOException {
        List<GeneratedCode> codes = result.codes();
        // What is wrong with the project file is told by each of its contracts.
        List<Finding> findings = codes.stream()
                .flatMap(code -> code.findings().stream())
                .distinct()
                .toList();
        boolean refused = result.isRefused();
        if (check && result.isPlanned()) {
            return drift(terminal, result.drift());
        }
        if (refused && (!json || !result.isPlanned())) {
            codes.forEach(code -> edits(terminal, code));
            terminal.refuse(findings, "nothing was written", json);
        } else if (json) {
            json(terminal, codes, findings);
        } else {
            new FindingPrinter(terminal.err())
                    .printFolded(
                            findings,
                            ("protypos check " + String.join(" ", arguments.names())).strip()
                                    + language.again()
                                    + rules.again());
            for (GeneratedCode code : codes) {
                text(terminal, code);
                if (code.order().scaffold() != null && !preview) {
                    print(Scaffold.into(code.order(), code.planned().code()), terminal.out());
                }
            }
        }
        return refused ? unreachable ? ExitStatus.OUTSIDE : ExitStatus.CONTRACT : ExitStatus.DONE;
    }

    private static void print(Scaffold scaffold, PrintWriter out) {
        scaffold.written()
                .forEach(file -> out.println("begun for you, and yours from now on: " + Terminal.plain(file)));
        scaffold.lacking().forEach((file, methods) -> {
            out.println(Terminal.bold(Terminal.plain(file.toString())) + " lacks " + String.join(", ", methods.keySet())
                    + "; to be pasted:");
            methods.values().forEach(method -> {
                out.println();
                method.lines().forEach(line -> out.println("    " + Terminal.plain(line)));
            });
            out.println();
        });
    }

    /** Shows what somebody has changed in generated files by hand. */
    private static void edits(Terminal terminal, GeneratedCode result) {
        if (result.report() != null) {
            result.report().edits().forEach((path, lines) -> {
                terminal.err().println(Terminal.bold(result.order().into() + "/" + path) + ", changed by hand:");
                lines.forEach(line -> terminal.err()
                        .println("  "
                                + (line.startsWith("+")
                                        ? Terminal.cyan(Terminal.plain(line))
                                        : line.startsWith("-")
                                                ? Terminal.red(Terminal.plain(line))
                                                : Terminal.plain(line))));
                terminal.err().println();
            });
        }
    }

    /** What is generated in a project stands in its file alone, so that the next run makes the same; of several languages one may be meant. */
    private List<AdoptedContract> inLanguage(List<AdoptedContract> adopted) {
        Target target = language.target();
        if (adopted == null || target == null) {
            return adopted;
        }
        List<AdoptedContract> all = new ArrayList<>();
        for (AdoptedContract contract : adopted) {
            AdoptedContract edition = contract.in(target.name());
            if (!edition.settings().language().equals(target.name())) {
                throw new ParameterException(
                        spec.commandLine(),
                        "the language of " + contract.settings().name() + " stands in " + Project.FILE
                                + ": write \"language: " + target.name() + "\" there, or \"" + target.name()
                                + ":\" below \"also:\"");
            }
            // Where it stands first, the others are not meant.
            all.add(new AdoptedContract(edition.project(), edition.settings().alone()));
        }
        return all;
    }

    private void checkPackage() {
        if (packageName != null && !language.targetOrStandard().rules().isPackage(packageName)) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--package: \"" + packageName + "\" is no package name in "
                            + language.targetOrStandard().title());
        }
    }

    private void json(Terminal terminal, List<GeneratedCode> results, List<Finding> findings) throws IOException {
        Json.print(terminal.out(), document -> {
            if (results.size() == 1) {
                json(document, results.get(0));
            } else {
                document.writeArrayFieldStart("contracts");
                for (GeneratedCode result : results) {
                    document.writeStartObject();
                    document.writeStringField("name", result.order().owner());
                    json(document, result);
                    document.writeEndObject();
                }
                document.writeEndArray();
            }
            Json.findings(document, findings);
        });
    }

    private void json(JsonGenerator document, GeneratedCode result) throws IOException {
        document.writeStringField("into", result.order().into().toString());
        document.writeBooleanField("preview", preview);
        Json.strings(document, "added", result.report().added());
        Json.strings(document, "changed", result.report().changed());
        Json.strings(document, "kept", result.report().kept());
        Json.strings(document, "removed", result.report().removed());
    }

    private void text(Terminal terminal, GeneratedCode result) {
        var out = terminal.out();
        WriteReport report = result.report();
        Path folder = result.order().into();
        String name = result.order().owner().isEmpty() ? "" : result.order().owner() + ": ";
        if (preview) {
            list(out, "add", report.added());
            list(out, "change", report.changed());
            list(out, "remove", report.removed());
        }
        if (report.added().isEmpty()
                && report.changed().isEmpty()
                && report.removed().isEmpty()) {
            out.println(name + "nothing has changed: "
                    + Terminal.counted(report.kept().size(), "file") + " in " + folder);
            return;
        }
        String would = preview ? "would be " : "";
        int written = report.added().size() + report.changed().size();
        out.println(name + Terminal.counted(written, "file") + " " + would + "written into " + folder
                + count(report.changed().isEmpty() ? 0 : report.added().size(), "new")
                + count(report.changed().size(), "changed")
                + count(report.kept().size(), "unchanged")
                + count(report.removed().size(), "removed"));
        packages(out, report);
        if (name.isEmpty()
                && written == report.added().size()
                && report.kept().isEmpty()
                && !report.removed().isEmpty()) {
            out.println(
                    (preview ? "would be removed" : "removed")
                            + ": all that was generated here before; a folder has the code of one contract, or of those of a project");
        }
        if (preview || result.planned() == null) {
            return;
        }
        String next = result.planned().code().next();
        if (!next.isEmpty() && result.order().products().contains(Product.CLIENT)) {
            out.println("next: compile " + folder + " and " + next);
        }
    }

    private static String count(int number, String what) {
        return number == 0 ? "" : ", " + number + " " + what;
    }

    private static void list(PrintWriter out, String what, List<String> paths) {
        for (String path : paths) {
            out.println("  " + what + "  " + path);
        }
    }

    private static void packages(PrintWriter out, WriteReport report) {
        Map<String, Integer> counts = new TreeMap<>();
        for (List<String> paths : List.of(report.added(), report.changed(), report.kept())) {
            for (String path : paths) {
                counts.merge(
                        path.substring(0, Math.max(0, path.lastIndexOf('/'))).replace('/', '.'), 1, Integer::sum);
            }
        }
        Columns columns = new Columns(2);
        counts.forEach((name, count) -> columns.row(name, Terminal.counted(count, "file")));
        columns.print(out);
    }
}
