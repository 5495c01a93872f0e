package org.protypos.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import org.protypos.contract.Contract;
import org.protypos.contract.Publication;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Severity;
import org.protypos.output.OutputFolder;
import org.protypos.output.WriteReport;
import org.protypos.plan.Plan;
import org.protypos.target.SourceFile;
import org.protypos.target.java.JavaTarget;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Writes the Java code for a contract. */
@Command(name = "generate", description = "Writes Java types, client and server for a contract.")
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
            names = "--runtime",
            paramLabel = "HOW",
            defaultValue = "embedded",
            description = "Whether the runtime's sources are written too (embedded) or used as a library (library).")
    private RuntimePlace runtime;

    @Option(names = "--preview", description = "Lists what would be written and writes nothing.")
    private boolean preview;

    @Option(names = "--overwrite", description = "Replaces generated files even if they were changed by hand.")
    private boolean overwrite;

    @Option(names = "--json", description = "Writes one JSON document.")
    private boolean json;

    @Override
    public Integer call() throws IOException {
        checkPackage();
        Contract whole = arguments.read();
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (!whole.isSound()) {
            terminal.refuse(whole.findings(), "nothing was written", json);
            return ContractArguments.status(whole);
        }
        Contract contract = selection.of(whole);
        PlannedContract planned = rules.plan(contract, packageName, contract == whole);
        if (!planned.isSound()) {
            terminal.refuse(planned.findings(), "nothing was written", json);
            return ExitStatus.CONTRACT;
        }
        Plan plan = planned.plan();
        Set<JavaTarget.Product> wanted = EnumSet.of(JavaTarget.Product.TYPES);
        wanted.addAll(products);
        if (server == ServerPlace.SERVLET) {
            wanted.add(JavaTarget.Product.SERVLET);
        }
        List<SourceFile> files =
                JavaTarget.emit(plan, wanted, runtime == RuntimePlace.EMBEDDED, () -> Publication.of(contract));
        WriteReport report = OutputFolder.write(into, files, preview, overwrite);
        List<Finding> findings = new ArrayList<>(planned.findings());
        findings.addAll(report.findings());
        boolean refused = report.findings().stream().anyMatch(finding -> finding.severity() == Severity.ERROR);
        if (json) {
            json(terminal, report, findings);
        } else if (refused) {
            terminal.refuse(findings, "nothing was written", json);
        } else {
            new FindingPrinter(terminal.err()).print(findings);
            text(terminal, plan, report);
        }
        return refused ? ExitStatus.CONTRACT : ExitStatus.DONE;
    }

    private void checkPackage() {
        if (packageName != null
                && !packageName.matches("[\\p{javaJavaIdentifierStart}&&[^$]][\\p{javaJavaIdentifierPart}]*"
                        + "(\\.[\\p{javaJavaIdentifierStart}][\\p{javaJavaIdentifierPart}]*)*")) {
            throw new ParameterException(spec.commandLine(), "--package: \"" + packageName + "\" is no Java package");
        }
    }

    private void json(Terminal terminal, WriteReport report, List<Finding> findings) throws IOException {
        Json.print(terminal.out(), document -> {
            document.writeStringField("into", into.toString());
            document.writeBooleanField("preview", preview);
            Json.strings(document, "added", report.added());
            Json.strings(document, "changed", report.changed());
            Json.strings(document, "kept", report.kept());
            Json.strings(document, "removed", report.removed());
            Json.findings(document, findings);
        });
    }

    private void text(Terminal terminal, Plan plan, WriteReport report) {
        var out = terminal.out();
        if (preview) {
            list(out, "add", report.added());
            list(out, "change", report.changed());
            list(out, "remove", report.removed());
        }
        String would = preview ? "would be " : "";
        int written = report.added().size() + report.changed().size();
        out.println(written + " files " + would + "written into " + into
                + count(report.changed().isEmpty() ? 0 : report.added().size(), "new")
                + count(report.changed().size(), "changed")
                + count(report.kept().size(), "unchanged")
                + count(report.removed().size(), "removed"));
        packages(out, report);
        if (preview) {
            return;
        }
        plan.interfaces().stream()
                .filter(type -> type.binding() && products.contains(JavaTarget.Product.CLIENT))
                .findFirst()
                .ifPresent(type -> out.println("next: compile " + into + " and call " + type.packageName() + "."
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
