package org.protypos.cli.exchange;

import java.io.IOException;
import java.net.URLConnection;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.cli.argument.ContractArguments;
import org.protypos.cli.argument.RecordArguments;
import org.protypos.cli.argument.RuleArguments;
import org.protypos.cli.argument.SecurityArguments;
import org.protypos.cli.argument.Sources;
import org.protypos.cli.argument.TransportArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.FindingPrinter;
import org.protypos.cli.terminal.Limits;
import org.protypos.cli.terminal.Terminal;
import org.protypos.cli.view.CallView;
import org.protypos.cli.view.OperationList;
import org.protypos.cli.view.Overloads;
import org.protypos.cli.view.Repetition;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.GivenFile;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.bridge.RecordMessages;
import org.protypos.exchange.call.Arguments;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.call.NamedDeviations;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.soap.SoapSettings;
import org.protypos.target.Targets;
import org.protypos.wire.WirePart;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Calls an operation of a contract, without generating anything. */
public final class CallCommand implements Command {
    private CommandSpec spec;
    private String contract;
    private String operation;
    private List<String> values = new ArrayList<>();
    private String input;
    private String port;
    private TransportArguments transport = new TransportArguments();

    private static final int MOST_REPEATS = 1_000_000;

    private List<String> attach = new ArrayList<>();
    private RecordArguments records = new RecordArguments();
    private RuleArguments rules = new RuleArguments();
    private SecurityArguments security = new SecurityArguments();
    private Sources sources = new Sources();
    private String save;
    private String saved;
    private int repeat = 1;
    private boolean wire;
    private boolean xml;
    private boolean json;
    private Terminal terminal;
    private ContractCheck check;
    private CalledOperation called;
    private List<CalledOperation> overloads = List.of();
    private String keptInput;
    private String keptSecurity;
    private String inputText;
    private final Map<String, Attachment> attached = new LinkedHashMap<>();

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "call",
                "Calls an operation with plain values, JSON or XML, and checks the answer against the contract.");
        spec = syntax.spec();
        syntax.parameter(String.class, "CONTRACT", "A document, an address, or an adopted name.")
                .optional()
                .into(value -> contract = value);
        syntax.parameter(String.class, "OPERATION", "The operation; lists them, with what they take, if not given.")
                .optional()
                .into(value -> operation = value);
        syntax.parameters(
                        String.class,
                        "NAME=VALUE",
                        "Values: amount=5, vessel.name=Aurora, need[0]=water, @ for attributes, #header.pass.holder=Ada;"
                                + " =5 for a request that is one value.")
                .into(value -> values = value);
        syntax.option(String.class, "--input", "FILE", "The request as JSON or XML; - for standard input.")
                .into(value -> input = value);
        syntax.option(String.class, "--port", "NAME", "The port; the first that speaks SOAP if not given.")
                .into(value -> port = value);
        transport.describe(syntax);
        syntax.options(
                        String.class,
                        "--attach",
                        "PART=FILE",
                        "A file that travels beside the message as one of its parts. May be repeated.")
                .into(value -> attach = value);
        records.describe(syntax);
        rules.describe(syntax);
        security.describe(syntax);
        sources.describe(syntax);
        syntax.option(String.class, "--save", "NAME", "Keeps the call as calls/NAME.yaml, without who calls.")
                .into(value -> save = value);
        syntax.option(String.class, "--saved", "NAME", "Makes a kept call again; values given replace its own.")
                .into(value -> saved = value);
        syntax.option(
                        Integer.class,
                        "--repeat",
                        "N",
                        "Calls N times, one after the other, and tells times and answers.")
                .into(value -> repeat = value);
        syntax.flag("--wire", "Shows both messages and their HTTP headers on standard error, secrets blanked.")
                .into(value -> wire = value);
        syntax.flag("--xml", "Prints the answer as it came.").into(value -> xml = value);
        syntax.flag("--json", "Writes one JSON document.").into(value -> json = value);
    }

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        Findings findings = new Findings();
        if (saved != null && !SavedCall.isName(saved)) {
            throw new ParameterException(spec.commandLine(), "--saved: a name is of letters, digits, -, _ and .");
        }
        if (saved != null) {
            again(findings);
        } else if (contract == null) {
            throw new ParameterException(
                    spec.commandLine(), "name a contract and an operation, or with --saved a call that was kept");
        }
        if (save != null && !SavedCall.isName(save)) {
            throw new ParameterException(spec.commandLine(), "--save: a name is of letters, digits, -, _ and .");
        }
        Limits limits = new Limits(spec);
        limits.number("--repeat", repeat, 1, MOST_REPEATS);
        transport.check();
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was sent", json);
            return ExitStatus.CONTRACT;
        }
        ContractArguments arguments = ContractArguments.of(contract, sources, spec);
        Contract read = arguments.read();
        if (!read.isSound()) {
            terminal.refuse(read.findings(), "nothing was sent", json);
            return ContractArguments.status(read);
        }
        if (records.isGiven(false) && operation != null) {
            return recorded(rules.generator(read, arguments.adopted())
                    .target(Targets.withRecords())
                    .plan());
        }
        read = rules.generator(read, arguments.adopted()).corrected(findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was sent", json);
            return ExitStatus.CONTRACT;
        }
        check = new ContractCheck(read);
        if (operation == null) {
            OperationList list = new OperationList(CalledOperation.of(check.wire()), check.vocabulary(), contract);
            if (json) {
                list.json(terminal.out());
            } else {
                list.print(terminal.out());
            }
            return ExitStatus.DONE;
        }
        called = find(read);
        security.prepare(spec, keptSecurity);
        MessageElement request = overloads.size() > 1 ? chosen(findings) : request(findings);
        attach(findings);
        String text = request == null ? null : MessageText.of(request);
        boolean wrong = text != null && isWrong(text, findings.hasErrors());
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was sent", json);
            return ExitStatus.CONTRACT;
        }
        if (wrong) {
            terminal.problem(
                    "the request is not as the contract says: nothing was sent",
                    "protypos call " + contract + " lists what operations take");
            return ExitStatus.CONTRACT;
        }
        if (save != null) {
            keep();
        }
        return answered(text);
    }

    /** Calls with a record as the request, and writes the answer as one. */
    private int recorded(PlannedContract planned) throws IOException {
        if (input != null || !values.isEmpty() || saved != null || save != null || repeat > 1 || xml || json) {
            throw new ParameterException(
                    spec.commandLine(),
                    "a record is the whole request, and its answer: leave out values, --input,"
                            + " --save, --saved, --repeat, --xml and --json");
        }
        if (!planned.isSound()) {
            terminal.refuse(planned.findings(), "nothing was sent", false);
            return ExitStatus.CONTRACT;
        }
        check = new ContractCheck(planned.contract());
        // Programs know an operation by the record of its request, whose name has a length that they have room for.
        called = atPort(CalledOperation.of(check.wire())).stream()
                .filter(one -> new RecordMessages(planned.code().records(), one, records.form()).isCalled(operation))
                .findFirst()
                .orElse(null);
        called = called == null ? find(planned.contract()) : called;
        security.prepare(spec, keptSecurity);
        Findings findings = new Findings();
        RecordCall carried = new RecordCall(records, terminal, planned, called);
        MessageElement request = carried.request(check, findings);
        attach(findings);
        String text = request == null ? null : MessageText.of(request);
        if (findings.hasErrors()) {
            carried.refused(findings);
            terminal.refuse(findings.sorted(), "nothing was sent", false);
            return ExitStatus.CONTRACT;
        }
        Caller caller = new Caller(called, check, this::settings);
        Caller.Answer answer = caller.call(text, attached);
        if (wire) {
            new CallView(terminal, called, check).wire(answer);
        }
        return carried.answered(answer);
    }

    /** Whether a request is not what the contract says; tells where, in the words in which it was given. */
    private boolean isWrong(String text, boolean told) {
        CheckedMessage checked = new OperationCheck(called.carried(), check)
                .request(MessageReader.read("request", text.getBytes(StandardCharsets.UTF_8), new Findings()));
        if (checked.deviations().isEmpty()) {
            return false;
        }
        if (input != null || keptInput != null) {
            FindingPrinter printer = new FindingPrinter(terminal.err());
            checked.deviations().forEach(deviation -> printer.print(false, deviation));
        } else if (!told) {
            Columns columns = new Columns(2);
            NamedDeviations.of(called.request(), check.vocabulary(), checked)
                    .forEach((name, what) -> columns.row(name.isEmpty() ? "=" : name, what));
            columns.print(terminal.err());
        }
        return true;
    }

    private void again(Findings findings) throws IOException {
        List<String> more = new ArrayList<>(values);
        if (operation != null) {
            more.add(0, operation);
        }
        if (contract != null) {
            more.add(0, contract);
        }
        SavedCall kept;
        try {
            kept = SavedCall.read(saved, findings);
        } catch (NoSuchFileException e) {
            List<String> names = SavedCall.names();
            throw new ParameterException(
                    spec.commandLine(),
                    "no call is kept as " + saved + ": "
                            + (names.isEmpty()
                                    ? "--save NAME keeps one"
                                    : NearestName.cure(saved, names, "there is " + String.join(", ", names))));
        }
        if (kept == null) {
            return;
        }
        contract = kept.contract();
        operation = kept.operation();
        port = port == null ? kept.port() : port;
        transport.again(kept.address(), kept.headers());
        List<String> files = new ArrayList<>(kept.attach());
        files.addAll(attach);
        attach = files;
        rules.add(kept.rules());
        keptSecurity = kept.security();
        keptInput = input == null ? kept.input() : null;
        values = input == null ? kept.with(more) : more;
    }

    private void keep() throws IOException {
        String text = input == null ? keptInput : inputText();
        try {
            Path file = new SavedCall(
                            contract,
                            operation,
                            port,
                            transport.address(),
                            security.how(),
                            transport.headers(),
                            attach,
                            rules.files(),
                            values,
                            text)
                    .save(save);
            terminal.err().println("kept as " + file + "; again: protypos call --saved " + save);
        } catch (FileAlreadyExistsException e) {
            throw new ParameterException(
                    spec.commandLine(), "--save: " + e.getFile() + " is there already; take another name or delete it");
        }
        SavedCall.leftOut(transport.headers()).forEach(name -> terminal.err()
                .println("not kept: the header " + name + ", which says who calls; give it again with --header"));
    }

    /** Those of some operations that are at the port that was named, or all. */
    private List<CalledOperation> atPort(List<CalledOperation> all) {
        return all.stream()
                .filter(one ->
                        port == null || Selection.matches(port, one.port().name()))
                .toList();
    }

    private CalledOperation find(Contract read) {
        List<CalledOperation> atPort = atPort(CalledOperation.of(read));
        List<CalledOperation> found = atPort.stream()
                .filter(one -> one.operation().name().equals(operation))
                .toList();
        if (found.isEmpty()) {
            found = atPort.stream()
                    .filter(one -> Overloads.isNamed(one, operation))
                    .toList();
        }
        if (found.isEmpty()) {
            found = atPort.stream()
                    .filter(one -> Selection.matches(operation, one.operation().name()))
                    .toList();
        }
        if (found.isEmpty()) {
            List<String> names = atPort.stream()
                    .map(one -> one.operation().name())
                    .distinct()
                    .toList();
            String cure = names.isEmpty()
                    ? "no port like that speaks SOAP or HTTP"
                    : NearestName.cure(operation, names, "there is " + String.join(", ", names));
            throw new ParameterException(
                    spec.commandLine(), "there is no operation " + operation + " to call: " + cure);
        }
        CalledOperation first = found.get(0);
        overloads = found.stream()
                .filter(one -> one.at() == first.at()
                        && one.operation().name().equals(first.operation().name()))
                .toList();
        return first;
    }

    private SoapSettings settings(SoapSettings plain) {
        return transport.applied(plain, security);
    }

    /** Of several operations of one name the one whose message the request is; what is given must be that of no other. */
    private MessageElement chosen(Findings findings) throws IOException {
        MessageElement request = null;
        List<CalledOperation> fitting = new ArrayList<>();
        for (CalledOperation one : overloads) {
            called = one;
            attached.clear();
            Findings wrong = new Findings();
            MessageElement made = request(wrong);
            if (made != null && !wrong.hasErrors() && Overloads.takes(one, check, made)) {
                fitting.add(one);
                request = request == null ? made : request;
            }
        }
        if (fitting.size() != 1) {
            findings.error(
                    "several-operations",
                    null,
                    (fitting.isEmpty() ? "none" : "more than one") + " of the operations called "
                            + overloads.get(0).operation().name() + " takes what was given",
                    "name one: " + Overloads.inWords(fitting.isEmpty() ? overloads : fitting));
            return null;
        }
        called = fitting.get(0);
        return request;
    }

    /** The whole request: of values, of JSON, of an element, or of an envelope. */
    private MessageElement request(Findings findings) throws IOException {
        RequestBuilder builder = new RequestBuilder(called.carried(), check.vocabulary(), findings);
        if ((input != null || keptInput != null) && !values.isEmpty()) {
            throw new ParameterException(spec.commandLine(), "give values, or a whole request, not both");
        }
        if (input == null && keptInput == null) {
            JsonValue json = Arguments.of(values, findings);
            return findings.hasErrors() ? null : built(builder, json);
        }
        String text = input == null ? keptInput : inputText();
        String name = input == null ? saved : input.equals("-") ? "standard input" : input;
        if (text.stripLeading().startsWith("{")) {
            JsonValue json = JsonText.parse(new SourceText(name, text), findings);
            return json == null ? null : built(builder, json);
        }
        MessageElement element = MessageReader.read(name, text.getBytes(StandardCharsets.UTF_8), findings);
        if (element == null || element.name().getLocalPart().equals("Envelope")) {
            return element;
        }
        return builder.envelope(List.of(element), List.of());
    }

    private MessageElement built(RequestBuilder builder, JsonValue json) {
        attached.putAll(builder.attached(json, called.request()));
        return builder.request(json);
    }

    /** Takes the files that travel beside the message; all parts that the contract has beside it must be there. */
    private void attach(Findings findings) {
        List<String> parts =
                called.request().attachments().stream().map(WirePart::name).toList();
        for (String one : attach) {
            int equals = one.indexOf('=');
            String part = equals < 0 ? "" : one.substring(0, equals);
            Path file = Path.of(one.substring(equals + 1));
            if (!parts.contains(part) || !Files.isRegularFile(file)) {
                throw new ParameterException(
                        spec.commandLine(),
                        "--attach: "
                                + (parts.isEmpty()
                                        ? "nothing travels beside a message of " + operation
                                        : parts.contains(part)
                                                ? "there is no file " + file
                                                : "write it like " + parts.get(0) + "=FILE"));
            }
            String type = URLConnection.guessContentTypeFromName(file.toString());
            attached.put(part, Attachment.of(file, type == null ? Attachment.ANY_TYPE : type));
        }
        parts.stream()
                .filter(part -> !attached.containsKey(part))
                .forEach(part -> findings.error(
                        "attachment",
                        null,
                        "the part " + part + " is missing",
                        "give it with --attach \"" + part + "=FILE\""));
    }

    private String inputText() throws IOException {
        if (inputText == null) {
            inputText = input.equals("-")
                    ? GivenFile.decoded(GivenFile.bytes(System.in, "standard input"), "standard input")
                    : GivenFile.text(Path.of(input), input).text();
        }
        return inputText;
    }

    /** Calls as often as wanted; the first answer is shown. */
    private int answered(String request) throws IOException {
        Caller caller = new Caller(called, check, this::settings);
        CallView view = new CallView(terminal, called, check);
        Repetition repetition = new Repetition();
        for (int i = 0; i < repeat; i++) {
            long begin = System.nanoTime();
            Caller.Answer answer = caller.call(request, attached);
            long took = System.nanoTime() - begin;
            repetition.add(view.read(answer), took);
            if (i == 0 && wire) {
                view.wire(answer);
            }
        }
        return view.show(repetition, xml, json);
    }
}
