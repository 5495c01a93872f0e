package org.protypos.cli;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.protypos.contract.Contract;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.Arguments;
import org.protypos.exchange.CalledOperation;
import org.protypos.exchange.Caller;
import org.protypos.exchange.OperationCheck;
import org.protypos.exchange.RequestBuilder;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.soap.SoapSettings;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Calls an operation of a contract, without generating anything. */
@Command(
        name = "call",
        description = "Calls an operation with plain values, JSON or XML, and checks the answer against the contract.")
final class CallCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "CONTRACT", description = "A document, an address, or an adopted name.")
    private String contract;

    @Parameters(index = "1", paramLabel = "OPERATION", description = "The operation.")
    private String operation;

    @Parameters(
            index = "2..*",
            paramLabel = "NAME=VALUE",
            description =
                    "Values: amount=5, vessel.name=Aurora, need[0]=water, @ for attributes, #header.pass.holder=Ada.")
    private List<String> values = new ArrayList<>();

    @Option(names = "--input", paramLabel = "FILE", description = "The request as JSON or XML; - for standard input.")
    private String input;

    @Option(names = "--port", paramLabel = "NAME", description = "The port; the first that speaks SOAP if not given.")
    private String port;

    @Option(names = "--address", paramLabel = "URL", description = "Where to call instead of the port's address.")
    private String address;

    @Option(names = "--header", paramLabel = "NAME: VALUE", description = "An HTTP header. May be repeated.")
    private List<String> headers = new ArrayList<>();

    @Option(
            names = "--timeout",
            paramLabel = "SECONDS",
            defaultValue = "30",
            description = "How long to wait; 30 if not given.")
    private int timeout;

    @Option(
            names = "--catalog",
            paramLabel = "FILE",
            description = "An OASIS XML catalog that maps addresses and namespaces to local documents.")
    private Path catalog;

    @Option(names = "--wire", description = "Shows both messages on standard error.")
    private boolean wire;

    @Option(names = "--xml", description = "Prints the answer as it came.")
    private boolean xml;

    @Option(names = "--json", description = "Writes one JSON document.")
    private boolean json;

    private Terminal terminal;
    private ContractCheck check;
    private CalledOperation called;

    @Override
    public Integer call() throws IOException {
        terminal = new Terminal(spec.commandLine().getOut(), spec.commandLine().getErr());
        ContractArguments arguments = ContractArguments.of(contract, catalog, spec);
        Contract read = arguments.read();
        if (!read.isSound()) {
            terminal.refuse(read.findings(), "nothing was sent", json);
            return ContractArguments.status(read);
        }
        called = find(read);
        check = new ContractCheck(read);
        Findings findings = new Findings();
        MessageElement request = request(findings);
        if (findings.hasErrors()) {
            terminal.refuse(findings.sorted(), "nothing was sent", json);
            return ExitStatus.CONTRACT;
        }
        String text = MessageText.of(request);
        List<Deviation> wrong = new OperationCheck(called, check)
                .request(parsed("request", text))
                .deviations();
        if (!wrong.isEmpty()) {
            FindingPrinter printer = new FindingPrinter(terminal.err());
            wrong.forEach(deviation -> printer.print(false, deviation));
            terminal.problem("the request is not as the contract says: nothing was sent", "");
            return ExitStatus.CONTRACT;
        }
        return answered(text, new Caller(called, this::settings).call(text));
    }

    private CalledOperation find(Contract read) {
        List<CalledOperation> all = CalledOperation.of(read);
        List<CalledOperation> atPort = all.stream()
                .filter(one ->
                        port == null || Selection.matches(port, one.port().name()))
                .toList();
        List<CalledOperation> found = atPort.stream()
                .filter(one -> one.operation().name().equals(operation))
                .toList();
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
                    ? "no port like that speaks SOAP"
                    : NearestName.of(operation, names)
                            .map(near -> "did you mean " + near + "?")
                            .orElse("there is " + String.join(", ", names));
            throw new ParameterException(
                    spec.commandLine(), "there is no operation " + operation + " to call: " + cure);
        }
        return found.get(0);
    }

    private SoapSettings settings(SoapSettings plain) {
        SoapSettings settings = plain.timeout(Duration.ofSeconds(timeout)).followRedirects();
        settings = address == null ? settings : settings.address(address);
        String token = System.getenv("PROTYPOS_TOKEN");
        String user = System.getenv("PROTYPOS_USER");
        String password = System.getenv("PROTYPOS_PASSWORD");
        if (token != null) {
            settings = settings.bearerToken(token);
        } else if (user != null && password != null) {
            settings = settings.basicAuthorization(user, password);
        }
        for (String header : headers) {
            int colon = header.indexOf(':');
            if (colon <= 0) {
                throw new ParameterException(spec.commandLine(), "--header: write it like Name: value");
            }
            settings = settings.httpHeader(
                    header.substring(0, colon).strip(),
                    header.substring(colon + 1).strip());
        }
        return settings;
    }

    /** The whole request: of values, of JSON, of an element, or of an envelope. */
    private MessageElement request(Findings findings) throws IOException {
        RequestBuilder builder = new RequestBuilder(called, check.vocabulary(), findings);
        if (input == null) {
            JsonValue json = Arguments.of(values, findings);
            return findings.hasErrors() ? null : builder.request(json);
        }
        if (!values.isEmpty()) {
            throw new ParameterException(spec.commandLine(), "give values, or --input, not both");
        }
        byte[] bytes = input.equals("-") ? System.in.readAllBytes() : Files.readAllBytes(Path.of(input));
        String text = new String(bytes, StandardCharsets.UTF_8);
        String name = input.equals("-") ? "standard input" : input;
        if (text.stripLeading().startsWith("{")) {
            JsonValue json = JsonText.parse(new SourceText(name, text), findings);
            return json == null ? null : builder.request(json);
        }
        MessageElement element = MessageReader.read(name, bytes, findings);
        if (element == null || element.name().getLocalPart().equals("Envelope")) {
            return element;
        }
        return builder.envelope(List.of(element), List.of());
    }

    private static MessageElement parsed(String name, String text) {
        return MessageReader.read(name, text.getBytes(StandardCharsets.UTF_8), new Findings());
    }

    private int answered(String request, Caller.Answer answer) throws IOException {
        if (wire) {
            terminal.err().println(Terminal.dim("> request"));
            request.lines().forEach(line -> terminal.err().println("> " + Terminal.plain(line)));
            terminal.err().println(Terminal.dim("< answer"));
            (answer.text() == null ? "" : answer.text()).lines().forEach(line -> terminal.err()
                    .println("< " + Terminal.plain(line)));
        }
        if (answer.failure() != null) {
            terminal.problem(
                    String.valueOf(answer.failure().getMessage()), "is the address right? --address says another");
            return ExitStatus.OUTSIDE;
        }
        MessageElement root = answer.text() == null || answer.text().isBlank() ? null : parsed("answer", answer.text());
        if (root == null) {
            terminal.out().println(json ? "{}" : "sent; there is no answer");
            return ExitStatus.DONE;
        }
        CheckedMessage checked = new OperationCheck(called, check).answer(root);
        if (xml) {
            terminal.out().println(answer.text());
        } else if (json) {
            Json.print(terminal.out(), document -> json(document, root, checked, answer));
        } else {
            text(terminal.out(), root, answer);
        }
        FindingPrinter printer = new FindingPrinter(terminal.err());
        checked.deviations().forEach(deviation -> printer.print(false, deviation));
        if (!checked.deviations().isEmpty()) {
            terminal.problem("the answer is not as the contract says", "");
        }
        return answer.fault() != null || !checked.deviations().isEmpty() ? ExitStatus.CONTRACT : ExitStatus.DONE;
    }

    private static List<MessageElement> inside(MessageElement envelope, String section) {
        return envelope.children().stream()
                .filter(child -> child.name().getLocalPart().equals(section))
                .flatMap(child -> child.children().stream())
                .toList();
    }

    private static void text(PrintWriter out, MessageElement root, Caller.Answer answer) {
        if (answer.fault() != null) {
            out.println(Terminal.red("fault: ")
                    + Terminal.plain(answer.fault().fault().reason()));
        }
        inside(root, "Header").forEach(block -> MessageView.print(block, out));
        inside(root, "Body").forEach(element -> MessageView.print(element, out));
    }

    private void json(JsonGenerator document, MessageElement root, CheckedMessage checked, Caller.Answer answer)
            throws IOException {
        JsonMessageWriter writer = new JsonMessageWriter(check.vocabulary(), checked.types());
        document.writeStringField("operation", called.operation().name());
        document.writeBooleanField("fault", answer.fault() != null);
        Map<String, List<MessageElement>> sections = new LinkedHashMap<>();
        sections.put("header", inside(root, "Header"));
        sections.put("body", inside(root, "Body"));
        for (Map.Entry<String, List<MessageElement>> section : sections.entrySet()) {
            document.writeObjectFieldStart(section.getKey());
            for (MessageElement element : section.getValue()) {
                document.writeFieldName(element.name().getLocalPart());
                writer.write(element, document);
            }
            document.writeEndObject();
        }
        document.writeNumberField("deviations", checked.deviations().size());
    }
}
