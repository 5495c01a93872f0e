package org.protypos.cli.contract;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Json;
import org.protypos.cli.terminal.Terminal;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.exchange.call.MessageValues;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.output.LooseFiles;
import org.protypos.output.WriteReport;
import org.protypos.target.SourceFile;
import org.protypos.wire.WireBinding;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;
import org.protypos.wsdl.Operation;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Makes up messages that are valid against a contract. */
public final class SampleCommand implements Command {
    private static final int LONGEST_NAME = 100;
    private static final int SHOWN_NAMES = 12;

    private CommandSpec spec;
    private RuleArguments rules = new RuleArguments();
    private ContractArguments arguments = new ContractArguments();
    private List<String> elements = new ArrayList<>();
    private List<String> operations = new ArrayList<>();
    private boolean all;
    private boolean full;
    private Path into;
    private boolean overwrite;
    private boolean json;
    private Terminal terminal;
    private ContractCheck check;

    /** The file names given so far, in small letters: some file systems do not tell capitals apart. */
    private final Set<String> taken = new HashSet<>();

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("sample", "Makes up example messages that are valid against a contract.");
        spec = syntax.spec();
        rules.describe(syntax);
        arguments.describe(syntax);
        syntax.options(
                        String.class,
                        "--element",
                        "NAME",
                        "A message with this global element: its local name, or {namespace}name.")
                .into(value -> elements = value);
        syntax.options(
                        String.class,
                        "--operation",
                        "NAME",
                        "The request of this operation in its envelope, * stands for any text; with --into the answer too.")
                .into(value -> operations = value);
        syntax.flag("--all", "A message for each global element, into the folder of --into.")
                .into(value -> all = value);
        syntax.flag("--full", "With optional parts, each at least once; only what must be if not given.")
                .into(value -> full = value);
        syntax.option(Path.class, "--into", "DIR", "The folder for the messages, each in its own file.")
                .into(value -> into = value);
        syntax.flag("--overwrite", "Replaces files that are there with other content.")
                .into(value -> overwrite = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        if (all && into == null) {
            throw new ParameterException(spec.commandLine(), "--all needs a folder: add --into DIR");
        }
        Contract contract = arguments.read();
        if (!contract.isSound()) {
            terminal.refuse(contract.findings(), "no sample was made", json);
            return ContractArguments.status(contract);
        }
        Findings wrong = new Findings();
        contract = rules.generator(contract, arguments.adopted()).corrected(wrong);
        if (wrong.hasErrors()) {
            terminal.refuse(wrong.sorted(), "no sample was made", json);
            return ExitStatus.CONTRACT;
        }
        check = new ContractCheck(contract);
        Samples samples = new Samples(contract, check.vocabulary(), full);
        List<Made> made = new ArrayList<>();
        Findings told = new Findings();
        if (all) {
            samples.elements().forEach(name -> made.add(element(samples, name)));
        }
        for (String wanted : elements) {
            made.add(element(samples, named(samples, wanted)));
        }
        for (String wanted : operations) {
            operation(samples, wanted, made);
        }
        if (made.isEmpty()) {
            throw new ParameterException(spec.commandLine(), nothingChosen(contract, samples));
        }
        if (samples.isCut()) {
            told.warning(
                    "sample-cut",
                    null,
                    "the contract asks for more than 50,000 elements in one message, for more than 500 in one another, or for"
                            + " a value of more than 100,000 characters; that much was not made up",
                    "look for a minOccurs or minLength that is not meant so, or an element that must hold another of its kind");
        }
        made.forEach(one -> doubt(samples, one, told));
        new FindingPrinter(terminal.err()).print(told.sorted());
        return into == null ? print(made) : write(made);
    }

    /**
     * A message that was made up.
     *
     * @param file the name of a file for it
     * @param kind what it is a message of: {@code element}, {@code request} or {@code answer}
     * @param name the name of the element or the operation
     * @param text the message
     * @param carried what it is in the contract, or null for an element
     * @param values the same as JSON
     */
    private record Made(
            String file, String kind, String name, String text, WireMessage carried, Supplier<JsonValue> values) {
        /** Whether it travels as a document, rather than as names and values. */
        boolean isDocument() {
            return carried == null || carried.isDocument();
        }
    }

    private Made element(Samples samples, QName name) {
        String text = samples.element(name);
        return new Made(fileName(name.getLocalPart()), "element", name.toString(), text, null, () -> {
            MessageElement root = MessageReader.read("sample", text);
            return JsonMessageWriter.value(check.vocabulary(), check.check(root).types(), root);
        });
    }

    /** Says why a sample is none, be it that nothing can be, be it that it would have to fit what nobody can make up. */
    private void doubt(Samples samples, Made made, Findings findings) {
        String name = made.name().substring(made.name().lastIndexOf('}') + 1);
        String what = (made.carried() == null ? "sample" : made.kind()) + " of " + name;
        List<WirePart> impossible = made.carried() == null ? List.of() : samples.impossible(made.carried());
        for (WirePart part : impossible) {
            findings.warning(
                    "sample-impossible",
                    part.part().place(),
                    "no " + what + " is valid: " + part.element().getLocalPart()
                            + " is abstract and nothing may stand in its place, or has to hold another of its kind without end",
                    "ask for the document that declares what may stand there, or correct the contract");
        }
        if (impossible.isEmpty() && made.isDocument() && !samples.isCut()) {
            MessageElement root = MessageReader.read("sample", made.text());
            check.recognize(root).checked().deviations().stream().findFirst().ifPresent(deviation -> {
                String expected = deviation.expected();
                findings.warning(
                        "sample-invalid",
                        deviation.contract(),
                        "the " + what + " is not valid: " + deviation.came() + " (at " + deviation.path() + ")",
                        "correct it by hand" + (expected.isEmpty() ? "" : "; expected is " + expected));
            });
        }
    }

    private static String nothingChosen(Contract contract, Samples samples) {
        List<String> known = contract.wsdl().portTypes().values().stream()
                .flatMap(type -> type.operations().stream())
                .map(Operation::name)
                .distinct()
                .toList();
        String what = known.isEmpty() ? "--element" : "--operation";
        if (known.isEmpty()) {
            known = samples.elements().stream()
                    .map(QName::getLocalPart)
                    .distinct()
                    .toList();
        }
        if (known.isEmpty()) {
            return "the contract has no element that a message could begin with, and no operation";
        }
        return "name what to make a sample of with " + what + ": "
                + known.stream().limit(SHOWN_NAMES).collect(Collectors.joining(", "))
                + (known.size() > SHOWN_NAMES ? " and " + (known.size() - SHOWN_NAMES) + " more" : "");
    }

    private QName named(Samples samples, String wanted) {
        Predicate<QName> meant =
                name -> name.getLocalPart().equals(wanted) || name.toString().equals(wanted);
        List<QName> found = samples.elements().stream().filter(meant).toList();
        if (found.size() == 1) {
            return found.get(0);
        }
        if (found.isEmpty()
                && check.vocabulary().schema().elements().keySet().stream().anyMatch(meant)) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--element: no message begins with " + wanted
                            + ": it is abstract, or has to hold another of its kind without end");
        }
        if (found.isEmpty()) {
            throw unknown(
                    "--element",
                    wanted,
                    samples.elements().stream().map(QName::getLocalPart).toList());
        }
        throw new ParameterException(
                spec.commandLine(),
                "--element: several elements are called " + wanted + "; name one of "
                        + found.stream().map(QName::toString).collect(Collectors.joining(", ")));
    }

    private ParameterException unknown(String option, String wanted, List<String> known) {
        return new ParameterException(
                spec.commandLine(),
                option + ": the contract has no " + option.substring(2) + " " + wanted
                        + NearestName.of(wanted, known)
                                .map(name -> "; did you mean " + name + "?")
                                .orElse(""));
    }

    private void operation(Samples samples, String wanted, List<Made> made) {
        List<String> known = new ArrayList<>();
        Set<Operation> done = Collections.newSetFromMap(new IdentityHashMap<>());
        // What can be called tells more than a binding that no port has.
        Set<WireBinding> bindings = new LinkedHashSet<>();
        check.wire().ports().forEach(port -> bindings.add(port.carried()));
        bindings.addAll(check.wire().bindings());
        for (WireBinding binding : bindings) {
            for (WireOperation operation : binding.operations()) {
                known.add(operation.name());
                boolean meant = Selection.matches(wanted, operation.name())
                        || wanted.equals(operation.operation().input().name());
                if (meant && done.add(operation.operation())) {
                    messages(samples, operation, made);
                }
            }
        }
        if (done.isEmpty()) {
            throw unknown("--operation", wanted, known);
        }
    }

    private void messages(Samples samples, WireOperation called, List<Made> made) {
        String name = called.name();
        MessageValues values = new MessageValues(called, check);
        String text = samples.message(called.request());
        made.add(new Made(
                fileName(name + "-request"),
                "request",
                name,
                text,
                called.request(),
                () -> values.request(MessageReader.read("sample", text), Map.of())));
        if (called.answer() != null && into != null) {
            String answer = samples.message(called.answer());
            made.add(new Made(
                    fileName(name + "-answer"),
                    "answer",
                    name,
                    answer,
                    called.answer(),
                    () -> values.answer(MessageReader.read("sample", answer), Map.of())));
        }
    }

    /** A file name for a message: safe on every system, and unlike those there are, whatever their case. */
    private String fileName(String local) {
        String safe = local.replaceAll("[^A-Za-z0-9._-]", "_");
        safe = safe.length() > LONGEST_NAME ? safe.substring(0, LONGEST_NAME) : safe;
        String name = safe + ".xml";
        for (int number = 2; !taken.add(name.toLowerCase(Locale.ROOT)); number++) {
            name = safe + "-" + number + ".xml";
        }
        return name;
    }

    private int print(List<Made> made) throws IOException {
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeArrayFieldStart("samples");
                for (Made one : made) {
                    document.writeStartObject();
                    document.writeStringField(one.kind().equals("element") ? "element" : "operation", one.name());
                    document.writeStringField("kind", one.kind());
                    document.writeFieldName("values");
                    JsonText.write(one.values().get(), document);
                    document.writeStringField("xml", one.text());
                    document.writeEndObject();
                }
                document.writeEndArray();
            });
        } else {
            made.forEach(one -> terminal.out().print(one.text()));
        }
        return ExitStatus.DONE;
    }

    private int write(List<Made> made) throws IOException {
        List<SourceFile> files =
                made.stream().map(one -> new SourceFile(one.file(), one.text())).toList();
        WriteReport report = LooseFiles.write(into, files, overwrite);
        boolean refused = !report.findings().isEmpty();
        if (json) {
            Json.print(terminal.out(), document -> {
                document.writeStringField("into", into.toString());
                Json.strings(document, "files", made.stream().map(Made::file).toList());
                Json.findings(document, report.findings());
            });
        } else if (refused) {
            new FindingPrinter(terminal.err()).print(report.findings());
            terminal.problem(FindingPrinter.summary(report.findings()) + ": nothing was written", "");
        } else {
            int written = report.added().size() + report.changed().size();
            terminal.out()
                    .println(written + (written == 1 ? " message" : " messages") + " written into " + into
                            + (report.kept().isEmpty()
                                    ? ""
                                    : ", " + report.kept().size() + " unchanged"));
            terminal.out().println("next: protypos " + next(made));
        }
        return refused ? ExitStatus.CONTRACT : ExitStatus.DONE;
    }

    private String next(List<Made> made) {
        String contract = String.join(" ", arguments.names());
        return made.stream()
                .filter(one -> !one.isDocument() && one.kind().equals("request"))
                .findFirst()
                .map(one -> "call " + contract + " " + one.name() + " --input " + into.resolve(one.file()))
                .orElse("proof " + contract + " --message " + into);
    }
}
