package org.protypos.runtime.soap;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlTypes;

/**
 * The client's end of a port: sends the message of a call and reads the answer (SOAP 1.1, section 6; SOAP 1.2 Part 2,
 * section 7). Safe for use by several threads.
 */
public final class SoapConnection {
    private final SoapPort<?> port;
    private final SoapSettings settings;
    private final String address;
    private final HttpClient client;
    private final XmlTypes types;

    private SoapConnection(SoapPort<?> port, SoapSettings settings, HttpClient client, XmlTypes types) {
        this.port = port;
        this.settings = settings;
        this.address = settings.address();
        this.client = client;
        this.types = types;
    }

    /**
     * Gives a connection. Nothing is sent before the first call.
     *
     * @param port the port of the contract
     * @param with says what differs from the contract and the defaults
     * @param types what the contract declares by name
     */
    public static SoapConnection to(SoapPort<?> port, UnaryOperator<SoapSettings> with, XmlTypes types) {
        SoapSettings settings = with.apply(SoapSettings.of(port));
        return new SoapConnection(port, settings, settings.client(), types);
    }

    /** Gives a connection to the same port that differs in some setting; this one stays as it is. */
    public SoapConnection with(UnaryOperator<SoapSettings> with) {
        SoapSettings changed = with.apply(settings);
        return new SoapConnection(port, changed, changed.sharesClient(settings) ? client : changed.client(), types);
    }

    /**
     * Calls an operation and waits for the answer.
     *
     * @param operation the operation's name
     * @param action the SOAP action of the default port
     * @param request the message to send
     * @param answer the message to fill, or null for a one-way operation
     * @throws DeclaredFault when the service answers with a fault that the contract declares
     * @throws CallFailedException when anything else than the answer comes
     */
    public void call(String operation, String action, SoapMessage request, SoapMessage answer) throws DeclaredFault {
        try {
            callLater(operation, action, request, answer, any -> null).join();
        } catch (CompletionException e) {
            if (e.getCause() instanceof DeclaredFault declared) {
                throw declared;
            }
            if (e.getCause() instanceof RuntimeException known) {
                throw known;
            }
            throw new CallFailedException(operation + " failed: " + e.getCause().getMessage(), 0, e.getCause());
        }
    }

    /**
     * Calls an operation of which the contract declares no fault.
     *
     * @throws CallFailedException when anything else than the answer comes
     */
    public void callPlain(String operation, String action, SoapMessage request, SoapMessage answer) {
        try {
            call(operation, action, request, answer);
        } catch (DeclaredFault e) {
            throw unexpected(e);
        }
    }

    /** What to throw when a fault comes that the caller has already ruled out. */
    public static IllegalStateException unexpected(DeclaredFault fault) {
        return new IllegalStateException("a fault that the operation does not declare: " + fault.getMessage(), fault);
    }

    /**
     * Calls an operation and does not wait.
     *
     * @param result takes the result out of {@code answer} once that is filled
     * @return a future of the result; it fails as {@link #call} does, and cancelling it gives the
     *     exchange up
     */
    public <A extends SoapMessage, R> CompletableFuture<R> callLater(
            String operation, String action, SoapMessage request, A answer, Function<A, R> result) {
        Map<String, String> headers = new LinkedHashMap<>();
        SoapInterceptor.Call call = new SoapInterceptor.Call(port.service(), port.name(), operation, address, headers);
        HttpRequest sent = request(call, port.action(operation, action), request);
        CompletableFuture<HttpResponse<byte[]>> exchange =
                client.sendAsync(sent, info -> new BoundedBody(settings.limits().bytes()));
        CompletableFuture<HttpResponse<byte[]>> answered = new CompletableFuture<>();
        exchange.whenComplete((response, failure) -> {
            if (failure == null) {
                answered.complete(response);
            } else {
                answered.completeExceptionally(failure);
            }
        });
        CompletableFuture<R> later = answered.orTimeout(settings.timeout().toMillis(), TimeUnit.MILLISECONDS)
                .handle((response, failure) -> {
                    if (failure != null) {
                        throw notReached(operation, failure);
                    }
                    interpret(call, response, answer);
                    return result.apply(answer);
                });
        // Whoever has stopped waiting, by time limit or of his own will, gives the exchange up with it.
        later.whenComplete((done, failure) -> exchange.cancel(true));
        return later;
    }

    private HttpRequest request(SoapInterceptor.Call call, String action, SoapMessage message) {
        Map<String, String> headers = call.headers();
        headers.put("Content-Type", port.version().contentType(action));
        headers.put("Accept", port.version().mediaType() + ", multipart/related;q=0.1, */*;q=0.05");
        if (port.version() == SoapVersion.SOAP_1_1) {
            headers.put("SOAPAction", "\"" + action + "\"");
        }
        if (settings.isCompressed()) {
            headers.put("Content-Encoding", "gzip");
            headers.put("Accept-Encoding", "gzip");
        }
        headers.putAll(settings.headers());
        byte[] envelope = Envelope.write(port.version(), message, settings.soapHeaders(), types);
        for (SoapInterceptor interceptor : settings.interceptors()) {
            envelope = interceptor.request(call, envelope);
        }
        WireLog.request(call, envelope);
        HttpRequest.Builder builder = HttpRequest.newBuilder(address());
        headers.forEach(builder::setHeader);
        byte[] sent = settings.isCompressed() ? Gzip.pack(envelope) : envelope;
        return builder.POST(HttpRequest.BodyPublishers.ofByteArray(sent)).build();
    }

    private URI address() {
        try {
            URI target = URI.create(address);
            if (target.getScheme() != null && target.getHost() != null) {
                return target;
            }
        } catch (IllegalArgumentException e) {
            throw noAddress(e);
        }
        throw noAddress(null);
    }

    private CallFailedException noAddress(Throwable cause) {
        return new CallFailedException(
                "\"" + address + "\" is no address to send to: set one with address(...)", 0, cause);
    }

    private CallFailedException notReached(String operation, Throwable failure) {
        Throwable cause = failure instanceof CompletionException ? failure.getCause() : failure;
        String what = cause instanceof TimeoutException
                ? "no answer within " + settings.timeout().toMillis() + " ms"
                : cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
        return new CallFailedException(operation + " at " + address + ": " + what, 0, cause);
    }

    /** What came, unpacked and seen by the interceptors. */
    private byte[] received(SoapInterceptor.Call call, HttpResponse<byte[]> response) {
        byte[] body = response.body();
        if (response.headers().firstValue("Content-Encoding").orElse("").equalsIgnoreCase("gzip") && body.length > 0) {
            try {
                body = Gzip.unpack(body, settings.limits().bytes());
            } catch (IOException e) {
                throw new CallFailedException(
                        "the answer to " + call.operation() + " cannot be unpacked: " + e.getMessage(),
                        response.statusCode(),
                        e);
            }
        }
        WireLog.answer(call, response.statusCode(), body);
        for (SoapInterceptor interceptor : settings.interceptors()) {
            body = interceptor.answer(call, body);
        }
        return body;
    }

    private void interpret(SoapInterceptor.Call call, HttpResponse<byte[]> response, SoapMessage answer) {
        String operation = call.operation();
        int status = response.statusCode();
        byte[] body = received(call, response);
        if (answer == null && status / 100 == 2) {
            return;
        }
        String type = response.headers().firstValue("Content-Type").orElse("");
        if (body.length == 0 || !type.toLowerCase(Locale.ROOT).contains("xml")) {
            throw notSoap(operation, response, body, "is no SOAP message", null);
        }
        try {
            boolean encoded = answer != null && answer.isEncoded();
            byte[] literal = encoded ? EncodedMessage.literal(body, charset(type), settings.limits()) : body;
            Envelope envelope = Envelope.open(literal, encoded ? null : charset(type), types, settings.limits());
            if (envelope.isFault()) {
                SoapFault fault = envelope.readFault();
                DeclaredFault declared = answer == null ? null : answer.declared(fault);
                throw declared == null
                        ? new UndeclaredFaultException(operation, fault, status)
                        : new CompletionException(declared);
            }
            if (answer != null) {
                envelope.readInto(answer);
            }
        } catch (XmlFormatException e) {
            throw new CallFailedException(
                    "the answer to " + operation + " (HTTP " + status + ") cannot be read: " + e.getMessage(),
                    status,
                    e);
        } catch (Envelope.NotAnEnvelopeException e) {
            throw notSoap(operation, response, body, "is no SOAP message: " + e.getMessage(), e);
        }
    }

    /** The charset that a content type names, or null. */
    static String charset(String contentType) {
        for (String parameter : contentType.split(";")) {
            String[] pair = parameter.split("=", 2);
            if (pair.length == 2 && pair[0].trim().equalsIgnoreCase("charset")) {
                return pair[1].replace("\"", "").trim();
            }
        }
        return null;
    }

    private CallFailedException notSoap(
            String operation, HttpResponse<byte[]> response, byte[] body, String what, Throwable cause) {
        String start = new String(body, 0, Math.min(200, body.length), StandardCharsets.UTF_8)
                .replaceAll("\\s+", " ")
                .trim();
        return new CallFailedException(
                "the answer to " + operation + " from " + address + " " + what + " (HTTP "
                        + response.statusCode() + ", "
                        + response.headers().firstValue("Content-Type").orElse("no content type") + ", "
                        + (start.isEmpty() ? "empty" : "starts with: " + start) + ")",
                response.statusCode(),
                cause);
    }
}
