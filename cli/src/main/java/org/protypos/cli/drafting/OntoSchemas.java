package org.protypos.cli.drafting;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.change.Comparison;
import org.protypos.change.Difference;
import org.protypos.change.Party;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Progress;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.ComparisonText;
import org.protypos.cli.view.ComparisonView;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.infer.loosen.Loosening;
import org.protypos.output.LooseFiles;
import org.protypos.output.WriteReport;
import org.protypos.source.Document;
import org.protypos.target.Surface;
import org.protypos.target.ToolchainFolder;

/** Loosens schemas where documents ask for it; the schemas themselves stay, what has become of them is written elsewhere. */
final class OntoSchemas {
    private final Terminal terminal;
    private final Sources sources;
    private final Path into;
    private final boolean overwrite;
    private final boolean json;

    OntoSchemas(Terminal terminal, Sources sources, Path into, boolean overwrite, boolean json) {
        this.terminal = terminal;
        this.sources = sources;
        this.into = into;
        this.overwrite = overwrite;
        this.json = json;
    }

    private record SourceFile(Path path) implements Loosening.Source {
        @Override
        public String name() {
            return path.toString();
        }

        @Override
        public byte[] bytes() throws IOException {
            return GivenFile.bytes(path);
        }
    }

    int loosen(List<Path> schemas, List<Path> documents) throws IOException {
        Contract before = sources.read(schemas.stream().map(Path::toString).toList());
        if (!before.isSound()) {
            terminal.refuse(before.findings(), "nothing was loosened", json);
            return ContractArguments.status(before);
        }
        Path work = Files.createTempDirectory("onto");
        try {
            return loosen(before, schemas, documents, work);
        } finally {
            ToolchainFolder.delete(work);
        }
    }

    private int loosen(Contract before, List<Path> schemas, List<Path> documents, Path work) throws IOException {
        Path top = top(before);
        for (Document document : before.documents().all()) {
            Path file = Path.of(document.location());
            Path copy = work.resolve(top.relativize(file).toString());
            Files.createDirectories(copy.getParent());
            Files.write(copy, document.bytes());
        }
        Findings findings = new Findings();
        List<Path> entries = schemas.stream()
                .map(schema -> work.resolve(
                        top.relativize(schema.toAbsolutePath().normalize()).toString()))
                .toList();
        Contract loosened =
                Progress.during("reading " + documents.size() + " documents", json, () -> new Loosening(findings)
                        .loosen(entries, documents.stream().map(SourceFile::new).toList()));
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was loosened", json);
            return ExitStatus.CONTRACT;
        }
        Map<String, byte[]> written = new LinkedHashMap<>();
        for (Document document : loosened.documents().all()) {
            String path = work.relativize(Path.of(document.location())).toString();
            written.put(path.replace('\\', '/'), document.bytes());
        }
        WriteReport report = LooseFiles.write(into, written, overwrite);
        if (!report.findings().isEmpty()) {
            terminal.refuse(report.findings(), "nothing was written", json);
            return ExitStatus.CONTRACT;
        }
        // What is told speaks of the files that the reader has.
        Contract after = sources.read(schemas.stream()
                .map(schema -> into.resolve(
                                top.relativize(schema.toAbsolutePath().normalize())
                                        .toString())
                        .toString())
                .toList());
        Comparison.Result result = Comparison.of(before, after, surface(before), surface(after));
        ComparisonView view = new ComparisonView(
                String.join(" ", schemas.stream().map(Path::toString).toList()),
                into.toString(),
                result,
                Party.BOTH.readers());
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeStringField("into", into.toString());
                document.writeNumberField("documents", documents.size());
                Json.strings(document, "files", List.copyOf(written.keySet()));
                document.writeArrayFieldStart("loosened");
                for (Difference difference : result.differences()) {
                    document.writeStartObject();
                    document.writeStringField("component", difference.designator());
                    document.writeStringField("fact", difference.fact());
                    document.writeStringField("before", difference.before() == null ? "" : difference.before());
                    document.writeStringField("after", difference.after() == null ? "" : difference.after());
                    document.writeEndObject();
                }
                document.writeEndArray();
                Json.findings(document, findings.sorted());
            });
            return ExitStatus.DONE;
        }
        new ComparisonText(view, Map.of()).print(terminal.out());
        terminal.out().println();
        terminal.out().println(Terminal.counted(written.size(), "schema") + " written into " + into);
        terminal.out()
                .println("next: protypos proof "
                        + into.resolve(
                                top.relativize(schemas.get(0).toAbsolutePath().normalize())
                                        .toString())
                        + " --message " + documents.get(0));
        return ExitStatus.DONE;
    }

    private static Surface surface(Contract contract) {
        PlannedContract planned = Generator.of(contract).plan();
        return planned.surface();
    }

    /** The folder that all documents are in. */
    private static Path top(Contract contract) throws IOException {
        Path top = null;
        for (Document document : contract.documents().all()) {
            if (!"file".equals(document.location().getScheme())) {
                throw new IOException(document.name() + " is no file: adopt the contract first");
            }
            Path folder =
                    Path.of(document.location()).toAbsolutePath().normalize().getParent();
            top = top == null ? folder : top;
            while (!folder.startsWith(top)) {
                top = top.getParent();
            }
        }
        return top;
    }
}
