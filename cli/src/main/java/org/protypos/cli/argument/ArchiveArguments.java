package org.protypos.cli.argument;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javax.tools.JavaCompiler;
import javax.tools.ToolProvider;
import org.protypos.archive.CodeArchive;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.syntax.Described;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.GeneratedCode;
import org.protypos.target.Product;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Says on the command line what archives are to be made of generated code. */
public final class ArchiveArguments implements Described {
    private CommandSpec spec;
    private Path jar;
    private Path war;
    private List<Path> with = new ArrayList<>();

    @Override
    public void describe(CommandSyntax syntax) {
        spec = syntax.spec();
        syntax.option(
                        Path.class,
                        "--jar",
                        "FILE",
                        "Compiles the code into a jar, with one of its sources beside it, instead of writing sources.")
                .into(value -> jar = value);
        syntax.option(
                        Path.class,
                        "--war",
                        "FILE",
                        "Compiles the server with an implementation (--with) into an archive for a servlet container.")
                .into(value -> war = value);
        syntax.options(
                        Path.class,
                        "--with",
                        "PATH",
                        "For --jar and --war: a folder of Java sources, or a jar, that belongs to the code: the"
                                + " implementation, classes that rules name. May be repeated.")
                .into(value -> with = value);
    }

    /** Whether there is to be any. */
    public boolean isWanted() {
        if (jar == null && war == null && !with.isEmpty()) {
            throw new ParameterException(spec.commandLine(), "--with is for --jar and --war");
        }
        return jar != null || war != null;
    }

    /** What an archive has to hold. */
    public void add(Set<Product> products) {
        if (isWanted()) {
            products.add(Product.ARCHIVE);
        }
        if (war != null) {
            products.add(Product.SERVER);
            products.add(Product.SERVLET);
        }
    }

    /** Writes the archives. */
    public int write(Terminal terminal, GeneratedCode code, boolean json) throws IOException {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        if (compiler == null) {
            terminal.problem("an archive holds compiled Java, and this Java has no compiler", "run it with a JDK");
            return ExitStatus.OUTSIDE;
        }
        for (Path path : with) {
            if (!Files.exists(path)) {
                throw new ParameterException(spec.commandLine(), "--with: there is no " + path);
            }
        }
        List<Finding> findings = new ArrayList<>(code.findings());
        List<String> written = new ArrayList<>();
        CodeArchive archive = CodeArchive.of(code, compiler, with);
        if (jar != null) {
            List<Finding> refused = archive.jar(jar);
            findings.addAll(refused);
            if (refused.isEmpty()) {
                written.add(jar.toString());
                written.add(CodeArchive.sources(jar).toString());
            }
        }
        if (war != null) {
            List<Finding> refused = archive.war(war);
            findings.addAll(refused);
            if (refused.isEmpty()) {
                written.add(war.toString());
            }
        }
        boolean complete = written.size() == (jar == null ? 0 : 2) + (war == null ? 0 : 1);
        if (!complete) {
            terminal.refuse(
                    findings, written.isEmpty() ? "nothing was written" : "only " + String.join(", ", written), json);
            return ExitStatus.CONTRACT;
        }
        if (json) {
            Json.print(terminal.out(), document -> {
                Json.strings(document, "archives", written);
                Json.findings(document, findings);
            });
            return ExitStatus.DONE;
        }
        new FindingPrinter(terminal.err()).print(findings);
        Columns columns = new Columns(0);
        for (String file : written) {
            columns.row(file, (Files.size(Path.of(file)) + 1023) / 1024 + " kB");
        }
        columns.print(terminal.out());
        terminal.out()
                .println(
                        war != null
                                ? "next: lay " + war + " into the folder of applications of a servlet container"
                                : "next: put " + jar + " on the class path");
        return ExitStatus.DONE;
    }
}
