package org.protypos.exchange.page;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.protypos.binding.Designators;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.call.MessageValues;
import org.protypos.exchange.call.RequestBuilder;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonText;
import org.protypos.message.json.JsonValue;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.reference.page.ReferencePage;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.soap.CallRefusedException;
import org.protypos.runtime.soap.Endpoint;
import org.protypos.runtime.soap.Reply;
import org.protypos.runtime.soap.Request;
import org.protypos.wsdl.Service;

/**
 * The page at the root of a stand-in: shows what the contract offers, has requests filled in and sent to the stand-in's
 * own ports and nowhere else, and lists what came. The door of this package.
 */
public final class StandInPage extends Endpoint {
    private static final JsonFactory JSON = new JsonFactory();
    private static final String BELOW = StandIn.RESERVED + "/";

    private final StandIn standIn;
    private final List<CalledOperation> operations;
    private final Forms forms;
    private final Received received = new Received();
    private final String token = new BigInteger(128, new SecureRandom()).toString(Character.MAX_RADIX);
    private final String turn = Long.toString(System.nanoTime(), Character.MAX_RADIX);
    private final Map<String, Route> routes = new LinkedHashMap<>();
    private final Supplier<ReferencePage> reading;
    private String read;

    /** What answers at a location. */
    @FunctionalInterface
    private interface Route {
        Reply answer(Map<String, String> fields) throws IOException;
    }

    /** Writes the members of a JSON object. */
    @FunctionalInterface
    private interface Members {
        void write(JsonGenerator out) throws IOException;
    }

    private StandInPage(StandIn standIn, Supplier<ReferencePage> reading) {
        this.standIn = standIn;
        this.reading = reading;
        this.operations = CalledOperation.of(standIn.check().wire());
        this.forms = new Forms(standIn.contract(), standIn.check());
        routes.put("/", fields -> resource("page.html", "text/html; charset=utf-8"));
        for (String script : List.of("page.js", "form.js", "exchanges.js")) {
            routes.put(BELOW + script, fields -> resource(script, "text/javascript; charset=utf-8"));
        }
        routes.put(BELOW + "page.css", fields -> resource("page.css", "text/css; charset=utf-8"));
        if (reading != null) {
            routes.put(BELOW + "read", fields -> text(read(), "text/html"));
            routes.put(BELOW + "read.css", fields -> text(ReferencePage.style(), "text/css"));
            routes.put(BELOW + "read.js", fields -> text(ReferencePage.script(), "text/javascript"));
        }
        routes.put(BELOW + "contract", fields -> json(this::contract));
        routes.put(BELOW + "operation", fields -> json(out -> operation(called(fields), out)));
        routes.put(BELOW + "type", fields -> json(out -> type(number(fields, "number"), out)));
        routes.put(BELOW + "request", fields -> json(out -> request(called(fields), fields, out)));
        routes.put(BELOW + "call", fields -> json(out -> call(called(fields), mine(fields), out)));
        routes.put(
                BELOW + "received",
                fields -> json(out -> {
                    received.write(number(fields, "after"), out);
                    out.writeStringField("turn", turn);
                }));
    }

    /**
     * Shows the page.
     *
     * @return its address
     */
    public static String publish(StandIn standIn) {
        return publish(standIn, null);
    }

    /**
     * Shows the page, and one to read beside it.
     *
     * @param reading gives the page to read when somebody asks for it first
     * @return its address
     */
    public static String publish(StandIn standIn, Supplier<ReferencePage> reading) {
        StandInPage page = new StandInPage(standIn, reading);
        standIn.watch(page.received::add);
        standIn.publish("/", page);
        return standIn.root() + "/";
    }

    @Override
    public Reply answer(Request request) throws IOException {
        Route route = routes.get(request.path());
        if (route == null) {
            return Reply.plain(404, "nothing is published here");
        }
        if (!request.method().equals("GET") && !request.method().equals("POST")) {
            return Reply.plain(405, "this is asked for by GET or POST");
        }
        try {
            return route.answer(request.fields());
        } catch (CallRefusedException e) {
            return Reply.plain(400, e.getMessage());
        } catch (RuntimeException e) {
            return Reply.plain(501, "this cannot be shown: " + e.getMessage());
        }
    }

    private static Reply resource(String name, String type) throws IOException {
        try (InputStream in = StandInPage.class.getResourceAsStream(name)) {
            return Reply.of(200, type, in.readAllBytes());
        }
    }

    private static Reply text(String text, String type) {
        return Reply.of(200, type + "; charset=utf-8", text.getBytes(StandardCharsets.UTF_8));
    }

    private synchronized String read() {
        if (read == null) {
            read = reading.get().served(BELOW + "read", "/");
        }
        return read;
    }

    private static Reply json(Members members) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (JsonGenerator out = JSON.createGenerator(bytes)) {
            out.writeStartObject();
            members.write(out);
            out.writeEndObject();
        }
        return Reply.of(200, "application/json", bytes.toByteArray());
    }

    /** Only who has read the page knows its token; what changes something asks for it. */
    private Map<String, String> mine(Map<String, String> fields) {
        if (!token.equals(fields.get("token"))) {
            throw new CallRefusedException("this was not sent by the page of this stand-in: load it anew");
        }
        return fields;
    }

    private static int number(Map<String, String> fields, String name) {
        String text = fields.getOrDefault(name, "");
        if (!text.matches("[0-9]{1,9}")) {
            throw new CallRefusedException(name + " is no number");
        }
        return Integer.parseInt(text);
    }

    private CalledOperation called(Map<String, String> fields) {
        int number = number(fields, "operation");
        if (number >= operations.size()) {
            throw new CallRefusedException("there is no operation " + number);
        }
        return operations.get(number);
    }

    private void contract(JsonGenerator out) throws IOException {
        out.writeStringField("token", token);
        out.writeStringField("turn", turn);
        out.writeBooleanField("reading", reading != null);
        out.writeNumberField("documents", standIn.contract().documents().all().size());
        out.writeArrayFieldStart("services");
        for (Service service : standIn.contract().wsdl().services().values()) {
            out.writeStartObject();
            out.writeStringField("name", service.name().getLocalPart());
            out.writeStringField("documentation", service.documentation());
            out.writeArrayFieldStart("ports");
            for (Service.Port port : service.ports()) {
                if (standIn.addresses().containsKey(port)) {
                    port(port, out);
                }
            }
            out.writeEndArray();
            out.writeEndObject();
        }
        out.writeEndArray();
    }

    private void port(Service.Port port, JsonGenerator out) throws IOException {
        out.writeStartObject();
        out.writeStringField("name", port.name());
        out.writeStringField("documentation", port.documentation());
        out.writeStringField("address", standIn.addresses().get(port));
        out.writeArrayFieldStart("operations");
        for (int number = 0; number < operations.size(); number++) {
            CalledOperation called = operations.get(number);
            if (called.port() == port) {
                out.writeStartObject();
                out.writeNumberField("number", number);
                out.writeStringField("name", called.operation().name());
                out.writeStringField(
                        "id",
                        Designators.operation(called.at().carried().portType(), called.operation())
                                .designator());
                out.writeStringField("protocol", called.binding().protocol().title());
                out.writeStringField("documentation", called.operation().documentation());
                out.writeBooleanField("oneWay", called.answer() == null);
                out.writeEndObject();
            }
        }
        out.writeEndArray();
        out.writeEndObject();
    }

    /** What a request is made of, with one to begin with. */
    private void operation(CalledOperation called, JsonGenerator out) throws IOException {
        synchronized (standIn.check()) {
            out.writeStringField(
                    "soapAction", called.isSoap() ? called.carried().target() : null);
            forms.message(called.request(), out);
            String xml = new Samples(standIn.contract(), standIn.check().vocabulary(), false).message(called.request());
            Map<String, Attachment> attached = new LinkedHashMap<>();
            called.request()
                    .attachments()
                    .forEach(part ->
                            attached.put(part.name(), Attachment.of("a sample".getBytes(StandardCharsets.UTF_8))));
            JsonValue value =
                    new MessageValues(called.carried(), standIn.check()).request(parsed(xml, new Findings()), attached);
            out.writeStringField("xml", xml);
            out.writeFieldName("value");
            JsonText.write(value, out);
        }
    }

    private void type(int number, JsonGenerator out) throws IOException {
        synchronized (standIn.check()) {
            if (!forms.type(number, out)) {
                throw new CallRefusedException("there is no type " + number);
            }
        }
    }

    private static MessageElement parsed(String xml, Findings findings) {
        return MessageReader.read("request", xml.getBytes(StandardCharsets.UTF_8), findings);
    }

    /** Values as XML, with what is wrong with them. */
    private void request(CalledOperation called, Map<String, String> fields, JsonGenerator out) throws IOException {
        Findings findings = new Findings();
        JsonValue value = JsonText.parse(new SourceText("values", fields.getOrDefault("value", "")), findings);
        synchronized (standIn.check()) {
            String xml = value == null
                    ? ""
                    : MessageText.of(
                            new RequestBuilder(called.carried(), standIn.check().vocabulary(), findings)
                                    .request(value));
            out.writeStringField("xml", xml);
            Received.deviations(
                    "deviations",
                    xml.isEmpty()
                            ? List.of()
                            : new OperationCheck(called.carried(), standIn.check())
                                    .request(parsed(xml, new Findings()))
                                    .deviations(),
                    out);
        }
        problems(findings, out);
    }

    private static void problems(Findings findings, JsonGenerator out) throws IOException {
        out.writeArrayFieldStart("problems");
        for (Finding finding : findings.sorted()) {
            out.writeString((finding.place() == null
                            ? ""
                            : finding.place().line() + ":" + finding.place().column() + " ")
                    + finding.message());
        }
        out.writeEndArray();
    }

    /** Sends a request to the stand-in's own port, and tells what came back. */
    private void call(CalledOperation called, Map<String, String> fields, JsonGenerator out) throws IOException {
        Findings findings = new Findings();
        String xml = fields.getOrDefault("xml", "");
        JsonValue value = JsonText.parse(new SourceText("values", fields.getOrDefault("value", "{}")), findings);
        if (value == null || parsed(xml, findings) == null) {
            problems(findings, out);
            return;
        }
        Map<String, Attachment> attached = new RequestBuilder(
                        called.carried(), standIn.check().vocabulary(), findings)
                .attached(value, called.request());
        String address = standIn.addresses().get(called.port());
        long begin = System.nanoTime();
        Caller.Answer answer = new Caller(called, standIn.check(), with -> with.address(address)).call(xml, attached);
        out.writeNumberField("micros", (System.nanoTime() - begin) / 1_000);
        if (answer.call() != null) {
            out.writeStringField("status", answer.call().answerHeaders().get(":status"));
        }
        out.writeStringField("text", answer.text());
        out.writeStringField(
                "failure", answer.failure() == null ? null : answer.failure().getMessage());
        out.writeStringField(
                "fault", answer.fault() == null ? null : answer.fault().fault().reason());
        answer(called, answer, out);
        problems(findings, out);
    }

    private void answer(CalledOperation called, Caller.Answer answer, JsonGenerator out) throws IOException {
        MessageElement root = answer.root();
        synchronized (standIn.check()) {
            CheckedMessage checked =
                    root == null ? null : new OperationCheck(called.carried(), standIn.check()).answer(root);
            Received.deviations("deviations", checked == null ? List.of() : checked.deviations(), out);
            out.writeArrayFieldStart("body");
            if (root != null) {
                List<MessageElement> body =
                        EnvelopeParts.body(root, called.answer() == null ? called.request() : called.answer());
                JsonMessageWriter writer = new JsonMessageWriter(standIn.check().vocabulary(), checked.types());
                for (MessageElement element : body) {
                    out.writeStartObject();
                    out.writeFieldName(element.name().getLocalPart());
                    writer.write(element, out);
                    out.writeEndObject();
                }
            }
            out.writeEndArray();
        }
        out.writeObjectFieldStart("attached");
        for (Map.Entry<String, Attachment> part : answer.attached().entrySet()) {
            out.writeStringField(part.getKey(), part.getValue().toString());
        }
        out.writeEndObject();
    }
}
