package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.lang.reflect.Array;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.call.OperationCheck;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.CarriedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.plan.ApiInterface;
import org.protypos.plan.ApiOperation;
import org.protypos.plan.ApiService;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Operation;

/**
 * Every operation of a contract: the generated client calls the generated server with sample data. Both ends must see the
 * same values, and both messages on the wire must say what the sample says, which is valid against the contract. So it is
 * when one of the ends is interpreted: the contract called without code, or a stand-in for the server.
 */
class BothEndsTest {
    @TempDir
    private Path folder;

    private Generated generated;
    private String runtime;
    private final Map<String, Object> results = new HashMap<>();
    private Object[] seen;
    private StandIn standIn;
    private ContractCheck check;

    static Stream<Path> contracts() {
        return Stream.of(
                Path.of("../examples/harbour/contract/desk.wsdl"),
                Path.of("../examples/tide/tide.wsdl"),
                Path.of("../examples/papers/papers.wsdl"),
                Path.of("src/test/resources/gauge/gauge.wsdl"),
                Path.of("src/test/resources/bodies/bodies.wsdl"),
                Path.of("src/test/resources/encoded/dues.wsdl"));
    }

    @ParameterizedTest
    @MethodSource("contracts")
    void bothEndsSeeTheSame(Path contract) throws Exception {
        generated = Generated.from(contract, folder, null);
        runtime = generated.plan().rootPackage() + ".runtime.";
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
            for (ApiService service : generated.plan().services()) {
                for (ApiService.Port port : service.ports()) {
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

    private int port(Samples samples, ApiService service, ApiService.Port port, List<String> wrong) throws Exception {
        ApiInterface type = port.type();
        Binding binding = generated.contract().wsdl().services().get(service.xmlName()).ports().stream()
                .filter(one -> one.name().equals(port.xmlName()))
                .map(one -> generated.contract().wsdl().bindings().get(one.binding()))
                .findFirst()
                .orElseThrow();
        Object server = serve(type);
        int calls = 0;
        try (AutoCloseable closing = (AutoCloseable) server) {
            Objects.requireNonNull(closing);
            String address =
                    "http://127.0.0.1:" + server.getClass().getMethod("port").invoke(server) + "/p";
            List<Operation> operations = generated
                    .contract()
                    .wsdl()
                    .portTypes()
                    .get(binding.portType())
                    .operations();
            int at = 0;
            for (ApiOperation api : type.operations()) {
                while (!operations.get(at).name().equals(api.xmlName())) {
                    at++;
                }
                String what = type.name() + "." + api.method();
                try {
                    call(samples, binding, operations.get(at++), type, api, port, service, address, what, wrong);
                } catch (InvocationTargetException e) {
                    wrong.add(what + ": " + e.getCause());
                }
                calls++;
            }
        }
        return calls;
    }

    private Object serve(ApiInterface type) throws Exception {
        Class<?> api = generated.load(type.packageName() + "." + type.name());
        Object implementation =
                Proxy.newProxyInstance(api.getClassLoader(), new Class<?>[] {api}, (proxy, method, arguments) -> {
                    seen = arguments == null ? new Object[0] : arguments;
                    return results.containsKey(method.getName()) ? results.get(method.getName()) : nothing(method);
                });
        Object endpoint = generated
                .load(type.packageName() + "." + type.endpoint())
                .getMethod("of", api)
                .invoke(null, implementation);
        Class<?> servers = generated.load(runtime + "soap.SoapServer");
        Object server = servers.getMethod("listen", InetSocketAddress.class)
                .invoke(null, new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
        servers.getMethod("publish", String.class, generated.load(runtime + "soap.Endpoint"))
                .invoke(server, "/p", endpoint);
        return server;
    }

    private static Object nothing(Method method) {
        Class<?> type = method.getReturnType();
        return type.isPrimitive() && type != void.class ? Array.get(Array.newInstance(type, 1), 0) : null;
    }

    private void call(
            Samples samples,
            Binding binding,
            Operation operation,
            ApiInterface type,
            ApiOperation api,
            ApiService.Port port,
            ApiService service,
            String address,
            String what,
            List<String> wrong)
            throws Exception {
        results.clear();
        String request = samples.message(new CarriedMessage(generated.contract(), binding, operation, false));
        boolean soap12 = port.protocol().title().endsWith("1.2");
        String contentType = soap12 ? "application/soap+xml; action=\"" + api.soapAction() + "\"" : "text/xml";
        seen = null;
        HttpResponse<String> raw = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address))
                                .header("Content-Type", contentType)
                                .header("SOAPAction", "\"" + api.soapAction() + "\"")
                                .POST(HttpRequest.BodyPublishers.ofString(request))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        if (seen == null) {
            wrong.add(what + " was not reached: " + raw.body());
            return;
        }
        Object[] wanted = seen;
        String answer = api.output() == null
                ? null
                : samples.message(new CarriedMessage(generated.contract(), binding, operation, true));
        Wire sample = new Wire(null, answer, soap12 ? "application/soap+xml" : "text/xml");
        Object result =
                method(type, api, client(type, service, port, sample.address())).invoke(wanted);
        sample.close();
        results.put(api.method(), result);
        Wire relay = new Wire(address, null, null);
        Object again =
                method(type, api, client(type, service, port, relay.address())).invoke(wanted);
        relay.close();
        if (!Arrays.deepEquals(wanted, seen) || !Objects.deepEquals(result, again)) {
            wrong.add(what + ": " + Arrays.deepToString(wanted) + " became " + Arrays.deepToString(seen) + "; " + result
                    + " became " + again);
        }
        boolean literal = !api.input().encoded();
        CalledOperation called = CalledOperation.of(generated.contract()).stream()
                .filter(one -> one.operation() == operation && one.port().name().equals(port.xmlName()))
                .findFirst()
                .orElseThrow();
        Caller.Answer interpreted = new Caller(called, check.vocabulary(), with -> with.address(address)).call(request);
        MessageElement root = answer == null ? null : interpreted.root();
        boolean unlike = interpreted.fault() != null
                || interpreted.failure() != null
                || root != null
                        && (!new OperationCheck(called, check)
                                        .answer(root)
                                        .deviations()
                                        .isEmpty()
                                || literal && !body(interpreted.text()).equals(body(relay.response)));
        if (unlike) {
            wrong.add(what + " interpreted: " + interpreted);
        }
        method(type, api, client(type, service, port, standIn.addresses().get(called.port())))
                .invoke(wanted);
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

    private interface Call {
        Object invoke(Object[] arguments) throws Exception;
    }

    private Call method(ApiInterface type, ApiOperation api, Object client) throws Exception {
        for (Method method :
                generated.load(type.packageName() + "." + type.name()).getMethods()) {
            if (method.getName().equals(api.method())) {
                return arguments -> method.invoke(client, arguments);
            }
        }
        throw new NoSuchMethodException(api.method());
    }

    /** A client for an address that keeps binary content in the message, where it can be compared. */
    private Object client(ApiInterface type, ApiService service, ApiService.Port port, String address)
            throws Exception {
        Class<?> settings = generated.load(runtime + "soap.SoapSettings");
        UnaryOperator<Object> with = given -> {
            try {
                Object changed = settings.getMethod("address", String.class).invoke(given, address);
                return settings.getMethod("notOptimized").invoke(changed);
            } catch (ReflectiveOperationException e) {
                throw new IllegalStateException(e);
            }
        };
        Object constant = generated
                .load(service.packageName() + "." + service.name())
                .getField(port.constant())
                .get(null);
        return generated
                .load(type.packageName() + "." + type.client())
                .getMethod("connect", generated.load(runtime + "soap.SoapPort"), UnaryOperator.class)
                .invoke(null, constant, with);
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
