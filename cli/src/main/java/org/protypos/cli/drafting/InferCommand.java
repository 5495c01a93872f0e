package org.protypos.cli.drafting;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.protypos.authoring.DraftSchema;
import org.protypos.authoring.SchemaText;
import org.protypos.cli.argument.DocumentFiles;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.InferredText;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.infer.Decisions;
import org.protypos.infer.Inference;
import org.protypos.infer.Inferred;
import org.protypos.infer.Remark;
import org.protypos.output.LooseFiles;
import org.protypos.output.WriteReport;
import org.protypos.target.SourceFile;
import picocli.CommandLine.Model.CommandSpec;

/** Infers schemas from documents. */
public final class InferCommand implements Command {
    static final String DECISIONS = "decisions.yaml";
    private static final int SHOWN = 15;
    private static final int SELDOM = 6;

    private CommandSpec spec;
    private List<Path> documents;
    private Path into;
    private Path decided;
    private List<Path> onto = new ArrayList<>();
    private Sources sources = new Sources();
    private boolean overwrite;
    private boolean json;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("infer", "Infers schemas from sample documents: schemas that accept every one of them.");
        spec = syntax.spec();
        syntax.parameters(
                        Path.class,
                        "DOCUMENT",
                        "An XML document, bare or in a SOAP envelope; of a folder all .xml files in it.")
                .required()
                .into(value -> documents = value);
        syntax.option(Path.class, "--into", "DIR", "The folder for the schemas.")
                .required()
                .into(value -> into = value);
        syntax.option(
                        Path.class,
                        "--decisions",
                        "FILE",
                        "What is decided and not inferred; " + DECISIONS + " in the folder of --into if not given.")
                .into(value -> decided = value);
        syntax.options(
                        Path.class,
                        "--onto",
                        "SCHEMA",
                        "A schema that is loosened where the documents ask for it, in its own text, and told how."
                                + " May be repeated.")
                .into(value -> onto = value);
        sources.describe(syntax);
        syntax.flag("--overwrite", "Replaces schemas that are there with other content.")
                .into(value -> overwrite = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        Terminal terminal =
                new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        List<Path> files = DocumentFiles.of(documents, "DOCUMENT", spec, ".xml");
        if (!onto.isEmpty()) {
            return new OntoSchemas(terminal, sources, into, overwrite, json).loosen(onto, files);
        }
        Findings findings = new Findings();
        Path file = decided == null ? into.resolve(DECISIONS) : decided;
        boolean isDecided = decided != null || Files.exists(file);
        Decisions decisions =
                isDecided ? Decisions.read(GivenFile.text(file, file.toString()), findings) : Decisions.none(findings);
        Inference inference = new Inference(decisions, findings);
        Inferred inferred =
                Progress.during("reading " + files.size() + " documents", json, () -> read(files, inference));
        if (findings.hasErrors()) {
            terminal.refuse(inferred.findings(), "no schema was inferred", json);
            return ExitStatus.CONTRACT;
        }
        Map<String, String> texts = SchemaText.of(inferred.schemas());
        List<SourceFile> written = new ArrayList<>();
        texts.forEach((name, text) -> written.add(new SourceFile(name, text)));
        if (!isDecided) {
            written.add(new SourceFile(DECISIONS, InferredText.beginning(inferred)));
        }
        WriteReport report = LooseFiles.write(into, written, overwrite);
        if (!report.findings().isEmpty()) {
            terminal.refuse(report.findings(), "nothing was written", json);
            return ExitStatus.CONTRACT;
        }
        if (json) {
            Json.print(terminal.out(), document -> json(document, inferred));
        } else {
            new FindingPrinter(terminal.err()).print(inferred.findings());
            text(terminal.out(), inferred, file);
        }
        return ExitStatus.DONE;
    }

    private static Inferred read(List<Path> files, Inference inference) throws IOException {
        for (Path file : files) {
            try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
                inference.read(file.toString(), in);
            }
        }
        return inference.inferred();
    }

    private void text(PrintWriter out, Inferred inferred, Path file) {
        List<DraftSchema> schemas = inferred.schemas();
        out.println(Terminal.counted(schemas.size(), "schema") + " from "
                + Terminal.counted(inferred.documents(), "document") + " written into " + into);
        Columns columns = new Columns(2);
        schemas.forEach(schema -> columns.row(
                schema.file(),
                Terminal.counted(schema.elements().size(), "element"),
                Terminal.counted(schema.types().size(), "type"),
                schema.namespace().isEmpty() ? "no namespace" : schema.namespace()));
        columns.print(out);
        List<Remark> sure = inferred.remarks().stream()
                .filter(remark -> !remark.isThin() && remark.kind() != Remark.Kind.VALUE)
                .toList();
        List<Remark> thin = inferred.remarks().stream()
                .filter(remark -> remark.isThin() && remark.kind() != Remark.Kind.REQUIRED)
                .toList();
        List<String> seldom = inferred.remarks().stream()
                .filter(remark -> remark.kind() == Remark.Kind.REQUIRED)
                .map(Remark::at)
                .toList();
        remarks(out, "decided", sure);
        remarks(out, "decided on little", thin);
        if (!seldom.isEmpty()) {
            out.println("seen fewer than three times; what was always there may be optional:");
            out.println("  " + Terminal.plain(String.join(", ", seldom.subList(0, Math.min(SELDOM, seldom.size()))))
                    + (seldom.size() > SELDOM ? " and " + (seldom.size() - SELDOM) + " more" : ""));
        }
        String name =
                schemas.isEmpty() ? "" : into.resolve(schemas.get(0).file()).toString();
        out.println(
                "next: protypos show " + name + (thin.isEmpty() ? "" : "; what shall be otherwise goes into " + file));
    }

    private static void remarks(PrintWriter out, String title, List<Remark> remarks) {
        if (remarks.isEmpty()) {
            return;
        }
        out.println(title + ":");
        Columns columns = new Columns(2);
        remarks.stream().limit(SHOWN).forEach(remark -> columns.row(remark.at(), remark.decided(), remark.evidence()));
        columns.print(out);
        if (remarks.size() > SHOWN) {
            out.println("  and " + (remarks.size() - SHOWN) + " more: --json tells all");
        }
    }

    private void json(JsonGenerator document, Inferred inferred) throws IOException {
        document.writeStringField("into", into.toString());
        document.writeNumberField("documents", inferred.documents());
        document.writeArrayFieldStart("schemas");
        for (DraftSchema schema : inferred.schemas()) {
            document.writeStartObject();
            document.writeStringField("file", schema.file());
            document.writeStringField("namespace", schema.namespace());
            document.writeNumberField("elements", schema.elements().size());
            document.writeNumberField("types", schema.types().size());
            document.writeEndObject();
        }
        document.writeEndArray();
        document.writeArrayFieldStart("decided");
        for (Remark remark : inferred.remarks()) {
            document.writeStartObject();
            document.writeStringField("at", remark.at());
            document.writeStringField("kind", remark.kind().name().toLowerCase(Locale.ROOT));
            document.writeStringField("decided", remark.decided());
            document.writeStringField("evidence", remark.evidence());
            document.writeBooleanField("thin", remark.isThin());
            document.writeEndObject();
        }
        document.writeEndArray();
        Json.findings(document, inferred.findings());
    }
}
