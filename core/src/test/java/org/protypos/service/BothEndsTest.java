package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.Infoset;

/**
 * Every operation of a contract: the generated client calls the generated server with sample data. Both ends must see the
 * same values, and both messages on the wire must say what the sample says, which is valid against the contract. So it is
 * when one of the ends is interpreted: the contract called without code, or a stand-in for the server.
 */
class BothEndsTest {
    @TempDir
    private Path folder;

    private Generated generated;
    private GeneratedEnds ends;
    private StandIn standIn;
    private ContractCheck check;

    static Stream<Path> contracts() {
        return Stream.of(
                Path.of("../examples/harbour/contract/desk.wsdl"),
                Path.of("../examples/tide/tide.wsdl"),
                Path.of("src/test/resources/gauge/gauge.wsdl"),
                Path.of("src/test/resources/bodies/bodies.wsdl"),
                Path.of("src/test/resources/blocks/blocks.wsdl"),
                Path.of("src/test/resources/encoded/dues.wsdl"),
                Path.of("src/test/resources/overloads/overloads.wsdl"),
                Path.of("src/test/resources/wire/ways.wsdl"));
    }

    @ParameterizedTest
    @MethodSource("contracts")
    void bothEndsSeeTheSame(Path contract) throws Exception {
        generated = Generated.from(contract, folder, null);
        ends = new GeneratedEnds(generated);
        List<String> wrong = new ArrayList<>();
        List<String> refused = new ArrayList<>();
        InetSocketAddress here = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        standIn = StandIn.serve(generated.contract(), here, Answers.NONE, request -> request.deviations()
                .forEach(deviation -> refused.add(request.operation() + " " + deviation)));
        check = new ContractCheck(generated.contract());
        int calls = 0;
        for (boolean full : new boolean[] {false, true}) {
            Samples samples = new Samples(
                    generated.contract(), new Vocabulary(generated.contract().schema()), full);
            for (PlannedService service : generated.plan().services()) {
                for (PlannedService.Port port : service.ports()) {
                    if (port.isDefault() && !port.type().isHttp()) {
                        calls += port(samples, service, port, wrong);
                    }
                }
            }
        }
        standIn.close();
        assertThat(wrong).isEmpty();
        assertThat(refused).isEmpty();
        assertThat(calls).isPositive();
    }

    /** An array that stands in a header block, or in a message that is not encoded, says once of what and how many it is. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "<soap:header message='b:depths' part='depths' use='literal'/><soap:body use='literal'/>",
                "<soap:header message='b:depths' part='depths' use='encoded' namespace='urn:depths'"
                        + " encodingStyle='http://schemas.xmlsoap.org/soap/encoding/'/><soap:body use='literal'/>"
            })
    void arraysTravelOutsideOfEncodedBodies(String header) throws Exception {
        String overloads = Files.readString(Path.of("src/test/resources/overloads/overloads.wsdl"));
        bothEndsSeeTheSame(Files.writeString(
                folder.resolve("headers.wsdl"), overloads.replace("<soap:body use=\"literal\"/>", header)));
    }

    private int port(Samples samples, PlannedService service, PlannedService.Port port, List<String> wrong)
            throws Exception {
        PlannedInterface type = port.type();
        List<CalledOperation> operations = CalledOperation.of(generated.contract()).stream()
                .filter(one -> one.service().name().equals(service.xmlName())
                        && one.port().name().equals(port.xmlName()))
                .toList();
        int calls = 0;
        try (AutoCloseable server = ends.serve(type)) {
            String address = GeneratedEnds.address(server);
            for (CalledOperation called : operations) {
                PlannedOperation api = GeneratedEnds.operation(type, called);
                String what = type.name() + "." + api.method();
                if (needsMore(called)) {
                    continue;
                }
                try {
                    call(samples, called, type, api, port, service, address, what, wrong);
                } catch (InvocationTargetException e) {
                    wrong.add(what + ": " + e.getCause());
                }
                calls++;
            }
        }
        return calls;
    }

    /** Whether a message is more than its envelope: InterpretedTest calls those. */
    private static boolean needsMore(CalledOperation called) {
        return called.at().addressed().isSent()
                || !called.request().attachments().isEmpty()
                || called.answer() != null && !called.answer().attachments().isEmpty();
    }

    private void call(
            Samples samples,
            CalledOperation called,
            PlannedInterface type,
            PlannedOperation api,
            PlannedService.Port port,
            PlannedService service,
            String address,
            String what,
            List<String> wrong)
            throws Exception {
        ends.results().clear();
        String request = samples.message(called.request());
        boolean soap12 = port.protocol().title().endsWith("1.2");
        String contentType = soap12 ? "application/soap+xml; action=\"" + api.soapAction() + "\"" : "text/xml";
        ends.forget();
        HttpResponse<String> raw = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address))
                                .header("Content-Type", contentType)
                                .header("SOAPAction", "\"" + api.soapAction() + "\"")
                                .POST(HttpRequest.BodyPublishers.ofString(request))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        if (ends.seen() == null) {
            wrong.add(what + " was not reached: " + raw.body());
            return;
        }
        Object[] wanted = ends.seen();
        String answer = api.output() == null ? null : samples.message(called.answer());
        Wire sample = new Wire(null, answer, soap12 ? "application/soap+xml" : "text/xml");
        Object result = ends.call(type, api, ends.client(type, service, port, sample.address(), false), wanted);
        sample.close();
        ends.results().put(api.method(), result);
        Wire relay = new Wire(address, null, null);
        Object again = ends.call(type, api, ends.client(type, service, port, relay.address(), false), wanted);
        relay.close();
        if (!Arrays.deepEquals(wanted, ends.seen()) || !Objects.deepEquals(result, again)) {
            wrong.add(what + ": " + Arrays.deepToString(wanted) + " became " + Arrays.deepToString(ends.seen()) + "; "
                    + result + " became " + again);
        }
        boolean literal = !api.input().encoded();
        Caller.Answer interpreted = new Caller(called, check, with -> with.address(address)).call(request);
        MessageElement root = answer == null ? null : interpreted.root();
        boolean unlike = interpreted.fault() != null
                || interpreted.failure() != null
                || root != null
                        && (!new OperationCheck(called.carried(), check)
                                        .answer(root)
                                        .deviations()
                                        .isEmpty()
                                || literal && !body(interpreted.text()).equals(body(relay.response)));
        if (unlike) {
            wrong.add(what + " interpreted: " + interpreted);
        }
        ends.call(
                type, api, ends.client(type, service, port, standIn.addresses().get(called.port()), false), wanted);
        if (literal && !body(request).equals(body(relay.request))) {
            wrong.add(what + " request:\n" + body(request) + "\n" + body(relay.request));
        }
        if (literal && answer != null && !body(answer).equals(body(relay.response))) {
            wrong.add(what + " answer:\n" + body(answer) + "\n" + body(relay.response));
        }
    }

    private static String body(String envelope) {
        String infoset = Infoset.of(envelope);
        return infoset.substring(infoset.indexOf("}Body")).replaceAll("\\s+", " ");
    }

    /** A server that answers with a text, or hands on to another and remembers what was said. */
    private static final class Wire {
        private final HttpServer server;
        private String request;
        private String response;

        Wire(String target, String answer, String type) throws IOException {
            server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
            server.createContext("/", exchange -> {
                byte[] sent = exchange.getRequestBody().readAllBytes();
                request = new String(sent, StandardCharsets.UTF_8);
                byte[] body = answer == null ? new byte[0] : answer.getBytes(StandardCharsets.UTF_8);
                int status = body.length == 0 ? 202 : 200;
                String contentType = type;
                if (target != null) {
                    HttpRequest.Builder copy = HttpRequest.newBuilder(URI.create(target))
                            .POST(HttpRequest.BodyPublishers.ofByteArray(sent));
                    for (String header : List.of("Content-Type", "SOAPAction")) {
                        if (exchange.getRequestHeaders().containsKey(header)) {
                            copy.header(header, exchange.getRequestHeaders().getFirst(header));
                        }
                    }
                    HttpResponse<byte[]> came = send(copy.build());
                    body = came.body();
                    status = came.statusCode();
                    contentType = came.headers().firstValue("Content-Type").orElse("text/xml");
                }
                response = new String(body, StandardCharsets.UTF_8);
                exchange.getResponseHeaders().set("Content-Type", contentType == null ? "text/xml" : contentType);
                exchange.sendResponseHeaders(status, body.length == 0 ? -1 : body.length);
                exchange.getResponseBody().write(body);
                exchange.close();
            });
            server.start();
        }

        private static HttpResponse<byte[]> send(HttpRequest request) throws IOException {
            try {
                return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofByteArray());
            } catch (InterruptedException e) {
                throw new IOException(e);
            }
        }

        String address() {
            return "http://127.0.0.1:" + server.getAddress().getPort() + "/";
        }

        void close() {
            server.stop(0);
        }
    }
}
