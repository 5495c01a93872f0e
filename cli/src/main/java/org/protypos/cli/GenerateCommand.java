package org.protypos.cli;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.naming.GivenNames;
import org.protypos.output.WriteReport;
import org.protypos.project.Project;
import org.protypos.target.java.JavaNames;
import org.protypos.target.java.JavaTarget;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Writes the Java code for a contract. */
@Command(
        name = "generate",
        description = "Writes Java types, client and server for a contract, or for all contracts of a project.")
final class GenerateCommand implements Callable<Integer> {
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

    @Spec
    private CommandSpec spec;

    @Mixin
    private ContractArguments arguments;

    @Mixin
    private RuleArguments rules;

    @Mixin
    private SelectionArguments selection;

    @Option(
            names = "--into",
            paramLabel = "DIR",
            defaultValue = "generated",
            description = "The folder for the sources; ${DEFAULT-VALUE} if not given.")
    private Path into;

    @Option(
            names = "--package",
            paramLabel = "P",
            description = "The Java package for everything; one for each namespace if not given.")
    private String packageName;

    @Option(
            names = "--produce",
            paramLabel = "WHAT",
            split = ",",
            defaultValue = "types,client,server",
            description = "What to write: types, client, server, with commas between; all if not given.")
    private List<JavaTarget.Product> products = new ArrayList<>();

    @Option(
            names = "--server",
            paramLabel = "WHERE",
            defaultValue = "jdk",
            description =
                    "Where endpoints run: in the JDK's own server (jdk), or in a servlet container too (servlet).")
    private ServerPlace server;

    @Option(
            names = "--scaffold",
            paramLabel = "DIR",
            description =
                    "Writes a beginning of each implementation into DIR, once; says later which methods it lacks.")
    private Path scaffold;

    @Option(
            names = "--runtime",
            paramLabel = "HOW",
            defaultValue = "embedded",
            description = "Whether the runtime's sources are written too (embedded) or used as a library (library).")
    private RuntimePlace runtime;

    @Option(names = "--preview", description = "Lists what would be written and writes nothing.")
    private boolean preview;

    @Option(names = "--overwrite", description = "Replaces generated files even if they were changed by hand.")
    private boolean overwrite;

    @Option(
            names = "--check",
            description = "Writes nothing, lists what has drifted apart, and ends with status 4 when something has.")
    private boolean check;

    @Option(names = "--json", description = "Writes one JSON document.")
    private boolean json;

    @Override
    public Integer call() throws IOException {
        checkPackage();
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (!preview && !check) {
            new FindingPrinter(terminal.err()).print(Project.mend(Path.of("")));
        }
        List<AdoptedContract> adopted = AdoptedContract.all(arguments.names());
        if (adopted == null) {
            Generation.Result result = one();
            return print(terminal, List.of(result), result.planned() == null && arguments.isUnreachable());
        }
        if (adopted.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(), "name a contract, or adopt one into a project here: protypos adopt CONTRACT");
        }
        return project(terminal, adopted);
    }

    /** Generates a contract as the command line says. */
    private Generation.Result one() throws IOException {
        Set<JavaTarget.Product> wanted = EnumSet.of(JavaTarget.Product.TYPES);
        wanted.addAll(products);
        if (server == ServerPlace.SERVLET) {
            wanted.add(JavaTarget.Product.SERVLET);
        }
        Generation generation = new Generation("", into, scaffold, wanted, runtime == RuntimePlace.EMBEDDED);
        Contract whole = arguments.read();
        if (!whole.isSound()) {
            return generation.refused(whole.findings());
        }
        Contract contract = selection.of(whole);
        PlannedContract planned = rules.plan(contract, null, packageName, contract == whole);
        return generation.of(planned, contract).written(preview || check, overwrite);
    }

    /** Generates adopted contracts as the project file says, all of them or none. */
    private int project(Terminal terminal, List<AdoptedContract> adopted) throws IOException {
        boolean plain = rules.isEmpty()
                && packageName == null
                && !preview
                && adopted.stream()
                        .allMatch(contract -> contract.settings().scaffold() == null
                                && contract.project().pinned(contract.settings().name()) != null);
        List<Generation.Result> same = plain ? same(adopted) : List.of();
        if (same.size() == adopted.size()) {
            return print(terminal, same, false);
        }
        List<Generation.Result> results = new ArrayList<>();
        for (AdoptedContract contract : adopted) {
            results.add(generate(contract));
        }
        // Whether all of them can be written is known before the first is.
        boolean all = preview || check || adopted.size() > 1;
        for (boolean previewing : all ? new boolean[] {true, false} : new boolean[] {false}) {
            if (previewing || !preview && !check && results.stream().noneMatch(Generation.Result::isRefused)) {
                for (int i = 0; i < results.size(); i++) {
                    results.set(i, results.get(i).written(previewing, overwrite));
                }
            }
        }
        Map<String, GivenNames> names = new TreeMap<>();
        List<String> drifted = new ArrayList<>();
        for (int i = 0; i < adopted.size(); i++) {
            AdoptedContract contract = adopted.get(i);
            drifted.addAll(contract.project().drifted(contract.settings()));
            if (results.get(i).planned() != null) {
                GivenNames given = results.get(i).planned().plan().names();
                names.put(contract.settings().name(), given);
                if (contract.project().isRenamed(contract.settings().name(), given)) {
                    drifted.add(contract.settings().folder() + "/protypos.lock.json: names of "
                            + contract.settings().name());
                }
            }
        }
        for (String stray : adopted.get(0).project().strays()) {
            drifted.add(Project.folderOf(stray) + ": pinned, and not in " + Project.FILE
                    + "; put it there again, or type protypos abandon " + stray);
        }
        boolean refused = results.stream().anyMatch(Generation.Result::isRefused);
        if (!refused && !preview && !check) {
            adopted.get(0).project().remember(names);
            if (plain) {
                for (AdoptedContract contract : adopted) {
                    new LastRun(contract).remember();
                }
            }
        }
        if (check && isPlanned(results)) {
            return drift(terminal, results, drifted);
        }
        return print(terminal, results, false);
    }

    /** The contracts of which nothing has changed since their code was made. */
    private static List<Generation.Result> same(List<AdoptedContract> adopted) throws IOException {
        List<Generation.Result> same = new ArrayList<>();
        for (AdoptedContract contract : adopted) {
            WriteReport report = new LastRun(contract).same();
            if (report == null
                    || !contract.project().drifted(contract.settings()).isEmpty()) {
                break;
            }
            same.add(Generation.of(contract).unchanged(report));
        }
        return same;
    }

    private Generation.Result generate(AdoptedContract adopted) throws IOException {
        Generation generation = Generation.of(adopted);
        Contract whole = adopted.read();
        if (!whole.isSound()) {
            return generation.refused(whole.findings());
        }
        Contract contract = Generation.selected(adopted, whole);
        PlannedContract planned = rules.plan(contract, adopted, packageName, contract == whole);
        return generation.of(planned, contract);
    }

    /** Whether it is known of all contracts what would be generated: a file that somebody has edited is drift then. */
    private static boolean isPlanned(List<Generation.Result> results) {
        return results.stream().allMatch(result -> result.report() != null);
    }

    /** Says what has drifted apart, and that it has by the exit status. */
    private int drift(Terminal terminal, List<Generation.Result> results, List<String> drifted) throws IOException {
        List<String> lines = new ArrayList<>();
        for (Generation.Result result : results) {
            String folder = result.generation().into() + "/";
            result.report().added().forEach(path -> lines.add("missing  " + folder + path));
            result.report().changed().forEach(path -> lines.add("changed  " + folder + path));
            result.report().removed().forEach(path -> lines.add("stale    " + folder + path));
            result.report().edits().keySet().forEach(path -> lines.add("edited   " + folder + path));
        }
        drifted.forEach(path -> lines.add("changed  " + path));
        Collections.sort(lines);
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeBooleanField("upToDate", lines.isEmpty());
                Json.strings(
                        document,
                        "drift",
                        lines.stream().map(line -> line.replaceFirst(" +", " ")).toList());
            });
        } else {
            lines.forEach(line -> terminal.out().println("  " + Terminal.plain(line)));
            terminal.out()
                    .println(
                            lines.isEmpty()
                                    ? "everything is as it would be generated"
                                    : lines.size() + (lines.size() == 1 ? " thing has" : " things have")
                                            + " drifted apart; next: protypos generate");
        }
        return lines.isEmpty() ? ExitStatus.DONE : ExitStatus.PROMISE;
    }

    private int print(Terminal terminal, List<Generation.Result> results, boolean unreachable) throws IOException {
        List<Finding> findings = new ArrayList<>();
        results.forEach(result -> findings.addAll(result.findings()));
        boolean refused = results.stream().anyMatch(Generation.Result::isRefused);
        if (check && isPlanned(results)) {
            return drift(terminal, results, List.of());
        }
        if (refused && (!json || results.stream().anyMatch(result -> result.report() == null))) {
            results.forEach(result -> edits(terminal, result));
            terminal.refuse(findings, "nothing was written", json);
        } else if (json) {
            json(terminal, results, findings);
        } else {
            new FindingPrinter(terminal.err()).print(findings);
            for (Generation.Result result : results) {
                text(terminal, result);
                if (result.generation().scaffold() != null && !preview) {
                    Scaffold.into(
                                    result.generation().scaffold(),
                                    result.planned().plan(),
                                    result.generation().embedded())
                            .print(terminal.out());
                }
            }
        }
        return refused ? unreachable ? ExitStatus.OUTSIDE : ExitStatus.CONTRACT : ExitStatus.DONE;
    }

    /** Shows what somebody has changed in generated files by hand. */
    private static void edits(Terminal terminal, Generation.Result result) {
        if (result.report() != null) {
            result.report().edits().forEach((path, lines) -> {
                terminal.err().println(Terminal.bold(result.generation().into() + "/" + path) + ", changed by hand:");
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

    private void checkPackage() {
        if (packageName != null && !new JavaNames().isPackage(packageName)) {
            throw new ParameterException(spec.commandLine(), "--package: \"" + packageName + "\" is no Java package");
        }
    }

    private void json(Terminal terminal, List<Generation.Result> results, List<Finding> findings) throws IOException {
        Json.print(terminal.out(), document -> {
            if (results.size() == 1) {
                json(document, results.get(0));
            } else {
                document.writeArrayFieldStart("contracts");
                for (Generation.Result result : results) {
                    document.writeStartObject();
                    document.writeStringField("name", result.generation().owner());
                    json(document, result);
                    document.writeEndObject();
                }
                document.writeEndArray();
            }
            Json.findings(document, findings);
        });
    }

    private void json(JsonGenerator document, Generation.Result result) throws IOException {
        document.writeStringField("into", result.generation().into().toString());
        document.writeBooleanField("preview", preview);
        Json.strings(document, "added", result.report().added());
        Json.strings(document, "changed", result.report().changed());
        Json.strings(document, "kept", result.report().kept());
        Json.strings(document, "removed", result.report().removed());
    }

    private void text(Terminal terminal, Generation.Result result) {
        var out = terminal.out();
        WriteReport report = result.report();
        Path folder = result.generation().into();
        String name =
                result.generation().owner().isEmpty() ? "" : result.generation().owner() + ": ";
        if (preview) {
            list(out, "add", report.added());
            list(out, "change", report.changed());
            list(out, "remove", report.removed());
        }
        String would = preview ? "would be " : "";
        int written = report.added().size() + report.changed().size();
        out.println(name + written + " files " + would + "written into " + folder
                + count(report.changed().isEmpty() ? 0 : report.added().size(), "new")
                + count(report.changed().size(), "changed")
                + count(report.kept().size(), "unchanged")
                + count(report.removed().size(), "removed"));
        packages(out, report);
        if (preview || result.planned() == null) {
            return;
        }
        result.planned().plan().interfaces().stream()
                .filter(type -> type.binding() && result.generation().products().contains(JavaTarget.Product.CLIENT))
                .findFirst()
                .ifPresent(type -> out.println("next: compile " + folder + " and call " + type.packageName() + "."
                        + type.client() + ".connect()"));
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
        counts.forEach((name, count) -> columns.row(name, count + (count == 1 ? " file" : " files")));
        columns.print(out);
    }
}
