package org.protypos.cli.drafting;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.InferredText;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.draft.ContractAddition;
import org.protypos.draft.ContractDraft;
import org.protypos.draft.ContractSketch;
import org.protypos.draft.ExampleContract;
import org.protypos.draft.Sketch;
import org.protypos.draft.SketchReader;
import org.protypos.draft.SketchText;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.standin.Recording;
import org.protypos.infer.Decisions;
import org.protypos.message.check.ContractCheck;
import org.protypos.output.LooseFiles;
import org.protypos.output.WholeFile;
import org.protypos.output.WriteReport;
import org.protypos.source.Document;
import org.protypos.source.XmlText;
import org.protypos.target.SourceFile;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Drafts contracts. */
public final class DraftCommand implements Command {
    private static final String ANSWERS = "answers.yaml";
    private static final String NOTHING = "nothing was drafted";

    private CommandSpec spec;
    private Path sketch;
    private List<String> operations = new ArrayList<>();
    private String on;
    private Bound bind;
    private Sketch.Style style = Sketch.Style.DOCUMENT;
    private String port;

    /** What a binding that is added can be. */
    enum Bound {
        SOAP11,
        SOAP12
    }

    private Path pairs;
    private String from;
    private Sources sources = new Sources();
    private Path into;
    private boolean unbound;
    private String name;
    private String address;
    private Path begin;
    private boolean overwrite;
    private boolean json;
    private Terminal terminal;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "draft",
                "Drafts a contract: WSDL and schemas from a sketch of a few lines, or from examples of messages.");
        spec = syntax.spec();
        syntax.parameter(
                        Path.class,
                        "SKETCH",
                        "A sketch, in YAML; with --operation or --bind the contract that gets more.")
                .optional()
                .into(value -> sketch = value);
        syntax.options(
                        String.class,
                        "--operation",
                        "SIGNATURE",
                        "Adds an operation to the contract's own text:"
                                + " 'readTide(gauge: string, at: dateTime?) -> height: decimal; faults noGauge; headers keeper'. May be repeated.")
                .into(value -> operations = value);
        syntax.option(String.class, "--on", "NAME", "With --operation: the port type, where there are several.")
                .into(value -> on = value);
        syntax.option(
                        Bound.class,
                        "--bind",
                        "PROTOCOL",
                        "Adds a binding (soap11 or soap12), a service and a port to port types that have none;"
                                + " needs --address.")
                .into(value -> bind = value);
        syntax.option(Sketch.Style.class, "--style", "STYLE", "With --bind: document or rpc; document if not given.")
                .into(value -> style = value);
        syntax.option(String.class, "--port", "NAME", "With --bind: the name of the port.")
                .into(value -> port = value);
        syntax.option(
                        Path.class,
                        "--pairs",
                        "DIR",
                        "Examples in place of a sketch: readTide.request.xml with readTide.response.xml or"
                                + " readTide.fault.xml, bare or in envelopes; of more of them readTide.low.request.xml.")
                .into(value -> pairs = value);
        syntax.option(
                        String.class,
                        "--from",
                        "CONTRACT",
                        "The other way: the sketch of a contract, printed or written into the folder of --into.")
                .into(value -> from = value);
        sources.describe(syntax);
        syntax.option(Path.class, "--into", "DIR", "The folder for the contract.")
                .into(value -> into = value);
        syntax.flag("--abstract", "Leaves bindings and ports out.").into(value -> unbound = value);
        syntax.option(String.class, "--name", "NAME", "With --pairs: what the contract is called.")
                .into(value -> name = value);
        syntax.option(
                        String.class,
                        "--address",
                        "URL",
                        "With --pairs and --bind: where it will be offered; with --pairs http://localhost:8480/NAME if"
                                + " not given.")
                .into(value -> address = value);
        syntax.option(Path.class, "--begin", "FILE", "Writes a sketch to begin with, and explains it.")
                .into(value -> begin = value);
        syntax.flag("--overwrite", "Replaces files that are there with other content.")
                .into(value -> overwrite = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (begin != null) {
            return begin();
        }
        if (from != null) {
            return sketched();
        }
        if (!operations.isEmpty() || bind != null) {
            return more();
        }
        if (sketch == null == (pairs == null)) {
            throw new ParameterException(
                    spec.commandLine(),
                    sketch == null
                            ? "what shall be drafted? name a sketch (--begin FILE writes one), or add --pairs DIR"
                            : "a sketch or --pairs, not both");
        }
        if (into == null) {
            throw new ParameterException(spec.commandLine(), "where shall the contract go? add --into DIR");
        }
        Findings findings = new Findings();
        return pairs == null ? ofSketch(findings) : ofPairs(findings);
    }

    private int more() throws IOException {
        if (sketch == null || bind != null && address == null) {
            throw new ParameterException(
                    spec.commandLine(),
                    sketch == null ? "which contract gets more? name it" : "--bind needs --address URL");
        }
        if (into != null) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--into: a contract gets more in its own text; leave it out, or copy the contract there and name the copy");
        }
        Contract contract = sources.read(List.of(sketch.toString()));
        if (!contract.isSound()) {
            terminal.refuse(contract.findings(), "nothing was added", json);
            return ContractArguments.status(contract);
        }
        Findings findings = new Findings();
        ContractAddition addition = new ContractAddition(contract, findings);
        operations.forEach(operation -> addition.operation(operation, on));
        if (bind != null) {
            addition.bind(Sketch.SketchProtocol.valueOf(bind.name()), style, address, port);
        }
        Map<Document, byte[]> changed = addition.changed();
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was added", json);
            return ExitStatus.CONTRACT;
        }
        replace(changed, false);
        Contract after = sources.read(List.of(sketch.toString()));
        if (!after.isSound()) {
            replace(changed, true);
            terminal.refuse(after.findings(), "nothing was added", json);
            return ExitStatus.CONTRACT;
        }
        List<String> files = changed.keySet().stream().map(Document::name).toList();
        if (json) {
            Json.print(terminal.out(), document -> {
                Json.strings(document, "changed", files);
                Json.findings(document, findings.sorted());
            });
            return ExitStatus.DONE;
        }
        new FindingPrinter(terminal.err()).print(findings.sorted());
        files.forEach(file -> terminal.out().println("added to " + Terminal.plain(file)));
        terminal.out().println("next: protypos show " + sketch);
        return ExitStatus.DONE;
    }

    /** Writes documents where they lie, as they have become or as they were. */
    private void replace(Map<Document, byte[]> changed, boolean back) throws IOException {
        for (Map.Entry<Document, byte[]> document : changed.entrySet()) {
            if (!"file".equals(document.getKey().location().getScheme())) {
                throw new IOException(document.getKey().name() + " is no file that can be changed");
            }
        }
        for (Map.Entry<Document, byte[]> document : changed.entrySet()) {
            WholeFile.write(
                    Path.of(document.getKey().location()),
                    back ? document.getKey().bytes() : document.getValue());
        }
    }

    private int sketched() throws IOException {
        Contract contract = sources.read(List.of(from));
        if (!contract.isSound()) {
            terminal.refuse(contract.findings(), "there is no sketch of it", json);
            return ContractArguments.status(contract);
        }
        Findings findings = new Findings();
        Sketch made = ContractSketch.of(contract, findings);
        String text = SketchText.of(made);
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeStringField("sketch", text);
                Json.findings(document, findings.sorted());
            });
            return ExitStatus.DONE;
        }
        new FindingPrinter(terminal.err()).print(findings.sorted());
        if (into == null) {
            terminal.out().print(text);
            return ExitStatus.DONE;
        }
        String file = made.name() + ".yaml";
        if (!isWritten(LooseFiles.write(into, List.of(new SourceFile(file, text)), overwrite))) {
            return ExitStatus.CONTRACT;
        }
        terminal.out().println("the sketch stands in " + into.resolve(file));
        terminal.out().println("next: protypos draft " + into.resolve(file) + " --into contract");
        return ExitStatus.DONE;
    }

    private boolean isWritten(WriteReport report) throws IOException {
        if (!report.findings().isEmpty()) {
            terminal.refuse(report.findings(), "nothing was written", json);
        }
        return report.findings().isEmpty();
    }

    private int ofSketch(Findings findings) throws IOException {
        Sketch read = SketchReader.read(GivenFile.text(sketch, sketch.toString()), findings);
        Map<String, String> texts = read == null ? Map.of() : ContractDraft.of(read, !unbound, findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), NOTHING, json);
            return ExitStatus.CONTRACT;
        }
        if (texts.isEmpty()) {
            terminal.problem(sketch + " says no type and no operation", "add some: --begin FILE shows how");
            return ExitStatus.CONTRACT;
        }
        try (DraftedContract drafted = DraftedContract.read(texts)) {
            return write(texts, drafted, findings);
        }
    }

    private int ofPairs(Findings findings) throws IOException {
        if (!Files.isDirectory(pairs)) {
            throw new ParameterException(spec.commandLine(), "--pairs: there is no folder " + pairs);
        }
        List<ExampleContract.Example> examples = new ArrayList<>();
        try (Stream<Path> files = Files.list(pairs)) {
            for (Path file : files.filter(
                            one -> one.toString().toLowerCase(Locale.ROOT).endsWith(".xml"))
                    .sorted()
                    .toList()) {
                examples.add(new ExampleContract.Example(file.getFileName().toString(), GivenFile.bytes(file)));
            }
        }
        if (examples.isEmpty()) {
            throw new ParameterException(spec.commandLine(), "--pairs: there is no .xml file in " + pairs);
        }
        Path decided = into.resolve(InferCommand.DECISIONS);
        Decisions decisions = Files.exists(decided)
                ? Decisions.read(GivenFile.text(decided, decided.toString()), findings)
                : Decisions.none(findings);
        String called = name == null ? called(pairs) : name;
        if (!called.matches(XmlText.NAME)) {
            throw new ParameterException(spec.commandLine(), "--name: " + called + " is no name in XML");
        }
        ExampleContract.Drafted drafted = ExampleContract.of(
                called,
                address == null ? "http://localhost:8480/" + called.toLowerCase(Locale.ROOT) : address,
                examples,
                decisions,
                findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), NOTHING, json);
            return ExitStatus.CONTRACT;
        }
        Map<String, String> texts = new LinkedHashMap<>(drafted.texts());
        try (DraftedContract contract = DraftedContract.read(texts)) {
            if (contract.contract().isSound()) {
                texts.put(ANSWERS, answers(drafted, contract));
                if (!Files.exists(decided)) {
                    texts.put(InferCommand.DECISIONS, InferredText.beginning(drafted.inferred()));
                }
            }
            return write(texts, contract, findings);
        }
    }

    private static String called(Path folder) {
        String plain =
                folder.toAbsolutePath().normalize().getFileName().toString().replaceAll("[^\\p{L}\\p{N}]", "");
        return plain.isEmpty() ? "Contract" : plain.substring(0, 1).toUpperCase(Locale.ROOT) + plain.substring(1);
    }

    /** The examples as a stand-in answers them. */
    private static String answers(ExampleContract.Drafted drafted, DraftedContract contract) throws IOException {
        Recording recording = new Recording();
        ContractCheck check = new ContractCheck(contract.contract());
        Map<String, CalledOperation> operations = new LinkedHashMap<>();
        CalledOperation.of(check.wire())
                .forEach(called -> operations.put(called.operation().name(), called));
        for (ExampleContract.Call call : drafted.calls()) {
            if (call.answer() != null) {
                recording.keep(operations.get(call.operation()), check, call.request(), call.answer(), Map.of());
            }
        }
        return recording.text();
    }

    private int write(Map<String, String> texts, DraftedContract drafted, Findings findings) throws IOException {
        Contract contract = drafted.contract();
        findings.addAll(drafted.findings().stream()
                .filter(finding -> !unbound || !finding.code().equals("no-binding"))
                .toList());
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), NOTHING, json);
            return ExitStatus.CONTRACT;
        }
        List<SourceFile> files = new ArrayList<>();
        texts.forEach((file, text) -> files.add(new SourceFile(file, text)));
        WriteReport report = LooseFiles.write(into, files, overwrite);
        if (!isWritten(report)) {
            return ExitStatus.CONTRACT;
        }
        if (json) {
            json(into, texts.keySet(), findings);
            return ExitStatus.DONE;
        }
        new FindingPrinter(terminal.err()).print(findings.sorted());
        tell(texts, contract, report);
        return ExitStatus.DONE;
    }

    /** Writes as one JSON document what was written where. */
    private void json(Path folder, Collection<String> files, Findings findings) throws IOException {
        Json.print(terminal.out(), document -> {
            document.writeStringField("into", folder.toString());
            Json.strings(document, "files", List.copyOf(files));
            Json.findings(document, findings.sorted());
        });
    }

    private void tell(Map<String, String> texts, Contract contract, WriteReport report) {
        int operations = contract.wsdl().portTypes().values().stream()
                .mapToInt(type -> type.operations().size())
                .sum();
        int ports = contract.wsdl().services().values().stream()
                .mapToInt(service -> service.ports().size())
                .sum();
        Columns columns = new Columns(2);
        texts.keySet()
                .forEach(file -> columns.row(
                        file,
                        switch (file.substring(file.lastIndexOf('.'))) {
                            case ".wsdl" ->
                                Terminal.counted(operations, "operation")
                                        + (ports == 0 ? ", no port" : ", " + Terminal.counted(ports, "port"));
                            case ".xsd" -> "schema";
                            default ->
                                file.equals(ANSWERS) ? "the examples, for a stand-in" : "what shall be otherwise";
                        }));
        int written = report.added().size() + report.changed().size();
        terminal.out()
                .println(Terminal.counted(written, "file") + " written into " + into
                        + (report.kept().isEmpty() ? "" : ", " + report.kept().size() + " unchanged"));
        columns.print(terminal.out());
        String first = into.resolve(texts.keySet().iterator().next()).toString();
        String answers = texts.containsKey(ANSWERS) ? " --answers " + into.resolve(ANSWERS) : "";
        terminal.out().println("next: protypos " + (ports == 0 ? "show " : "stand-in ") + first + answers);
    }

    private int begin() throws IOException {
        Path absolute = begin.toAbsolutePath();
        WriteReport report = LooseFiles.write(
                absolute.getParent(),
                List.of(new SourceFile(absolute.getFileName().toString(), SketchBeginning.text())),
                overwrite);
        if (!isWritten(report)) {
            return ExitStatus.CONTRACT;
        }
        if (json) {
            Path folder = begin.getParent();
            json(
                    folder == null ? Path.of(".") : folder,
                    List.of(absolute.getFileName().toString()),
                    new Findings());
            return ExitStatus.DONE;
        }
        terminal.out().println("a sketch to begin with stands in " + begin);
        terminal.out().println("next: change it, then protypos draft " + begin + " --into contract");
        return ExitStatus.DONE;
    }
}
