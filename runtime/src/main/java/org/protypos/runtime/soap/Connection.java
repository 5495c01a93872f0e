package org.protypos.runtime.soap;

import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpConnectTimeoutException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Function;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.attach.Spool;
import org.protypos.runtime.parse.DecodedText;
import org.protypos.runtime.xml.XmlTypes;

/**
 * The client's end of a port: sends the message of a call and reads the answer. Safe for use by several threads.
 */
public abstract sealed class Connection permits SoapConnection, HttpConnection {
    private final SoapSettings settings;
    private final String address;
    private final HttpClient client;
    private volatile URI known;
    private final XmlTypes types;

    Connection(SoapSettings settings, HttpClient client, XmlTypes types) {
        this.settings = settings;
        this.address = settings.address();
        this.client = client;
        this.types = types;
    }

    final SoapSettings settings() {
        return settings;
    }

    final XmlTypes types() {
        return types;
    }

    final String address() {
        return address;
    }

    final HttpClient client() {
        return client;
    }

    /**
     * Makes the HTTP request of a call.
     *
     * @param action what the contract says of the operation: its SOAP action, or its location
     */
    abstract HttpRequest request(SoapInterceptor.Call call, String action, SoapMessage message);

    /** Reads an answer, or throws what it means. */
    abstract void interpret(SoapInterceptor.Call call, Answer came, SoapMessage answer);

    private SoapInterceptor.Call begin(String operation) {
        return new SoapInterceptor.Call(
                settings.service(),
                settings.port(),
                operation,
                address,
                new LinkedHashMap<>(),
                new LinkedHashMap<>(),
                settings.isAddressed() ? Addressing.newId() : null);
    }

    /**
     * An answer.
     *
     * @param status the HTTP status
     * @param contentType the content type as it came, empty for none
     * @param message what came with it
     */
    record Answer(int status, String contentType, Incoming message) {}

    /**
     * Calls an operation and waits for the answer.
     *
     * @param operation the operation's name
     * @param action the SOAP action or the location of the operation at the default port
     * @param request the message to send
     * @param answer the message to fill, or null for a one-way operation
     * @throws DeclaredFault when the service answers with a fault that the contract declares
     * @throws CallFailedException when anything else than the answer comes
     */
    public final void call(String operation, String action, SoapMessage request, SoapMessage answer)
            throws DeclaredFault {
        SoapInterceptor.Call call = begin(operation);
        HttpRequest sent = request(call, action, request);
        try {
            interpret(call, received(call, exchange(operation, sent)), answer);
        } catch (CompletionException e) {
            if (e.getCause() instanceof DeclaredFault declared) {
                throw declared;
            }
            throw e;
        }
    }

    /** Sends a request and waits for all of the answer, which costs no other thread as a future would. */
    private Arrived exchange(String operation, HttpRequest sent) {
        long end = System.nanoTime() + settings.timeout().toNanos();
        SpooledBody body = null;
        try {
            HttpResponse<SpooledBody> response = client.send(sent, this::body);
            HttpRequest next = settings.redirects().next(sent, response);
            for (int hop = 0; next != null && hop < Redirects.MOST_HOPS; hop++) {
                response.body().giveUp();
                HttpRequest followed = next;
                response = client.send(followed, this::body);
                next = settings.redirects().next(followed, response);
            }
            body = response.body();
            return new Arrived(response, body.whole().get(Math.max(1, end - System.nanoTime()), TimeUnit.NANOSECONDS));
        } catch (InterruptedException e) {
            giveUp(body);
            Thread.currentThread().interrupt();
            throw new CallFailedException(operation + " at " + shown() + ": interrupted while waiting", 0, e);
        } catch (TimeoutException e) {
            giveUp(body);
            throw notReached(operation, e);
        } catch (ExecutionException e) {
            throw notReached(operation, e.getCause());
        } catch (IOException | RuntimeException e) {
            // Some headers that are none make the HTTP client fail in ways of its own.
            throw notReached(operation, e);
        }
    }

    private static void giveUp(SpooledBody body) {
        if (body != null) {
            body.giveUp();
        }
    }

    /** An answer of which all has come. */
    private record Arrived(HttpResponse<SpooledBody> response, Spool body) {}

    /**
     * Calls an operation of which the contract declares no fault.
     *
     * @throws CallFailedException when anything else than the answer comes
     */
    public final void callPlain(String operation, String action, SoapMessage request, SoapMessage answer) {
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
    public final <A extends SoapMessage, R> CompletableFuture<R> callLater(
            String operation, String action, SoapMessage request, A answer, Function<A, R> result) {
        SoapInterceptor.Call call = begin(operation);
        HttpRequest sent = request(call, action, request);
        CompletableFuture<HttpResponse<SpooledBody>> exchange = sendLater(sent, Redirects.MOST_HOPS);
        CompletableFuture<Arrived> arrived = new CompletableFuture<>();
        exchange.thenCompose(response -> response.body().whole().thenApply(body -> new Arrived(response, body)))
                .whenComplete((whole, failure) -> {
                    if (failure == null) {
                        arrived.complete(whole);
                    } else {
                        arrived.completeExceptionally(failure);
                    }
                });
        CompletableFuture<R> later = arrived.orTimeout(settings.timeout().toMillis(), TimeUnit.MILLISECONDS)
                .handle((whole, failure) -> {
                    if (failure != null) {
                        throw notReached(operation, failure);
                    }
                    interpret(call, received(call, whole), answer);
                    return result.apply(answer);
                });
        // Whoever has stopped waiting, by time limit or of his own will, gives the exchange up with it.
        later.whenComplete((done, failure) -> {
            exchange.cancel(true);
            exchange.thenAccept(response -> response.body().giveUp());
        });
        return later;
    }

    private CompletableFuture<HttpResponse<SpooledBody>> sendLater(HttpRequest sent, int hops) {
        return client.sendAsync(sent, this::body).thenCompose(response -> {
            HttpRequest next = hops == 0 ? null : settings.redirects().next(sent, response);
            if (next == null) {
                return CompletableFuture.completedFuture(response);
            }
            response.body().giveUp();
            return sendLater(next, hops - 1);
        });
    }

    private SpooledBody body(HttpResponse.ResponseInfo info) {
        MediaType type = MediaType.of(info.headers().firstValue("Content-Type").orElse(""));
        return new SpooledBody(
                Incoming.spool(type, settings.reading().limits(), settings.attachmentLimit(), "the answer"));
    }

    /** The request to an address, with what the settings say of headers. */
    final HttpRequest.Builder builder(String target, Map<String, String> headers) {
        headers.putAll(settings.headers());
        HttpRequest.Builder builder = HttpRequest.newBuilder(uri(target)).timeout(settings.timeout());
        headers.forEach(builder::setHeader);
        return builder;
    }

    private URI uri(String text) {
        if (text.equals(address) && known != null) {
            return known;
        }
        URI parsed = parsed(text);
        if (text.equals(address)) {
            known = parsed;
        }
        return parsed;
    }

    private URI parsed(String text) {
        try {
            URI target = Origin.target(text);
            if (target.getScheme() != null && target.getHost() != null) {
                return target;
            }
        } catch (IllegalArgumentException e) {
            throw noAddress(e);
        }
        throw noAddress(null);
    }

    /** The address for messages, without what may say who calls. */
    private String shown() {
        try {
            return Origin.shown(Origin.target(address));
        } catch (IllegalArgumentException e) {
            return "an address that is none";
        }
    }

    private CallFailedException noAddress(Throwable cause) {
        return new CallFailedException(
                "\"" + address + "\" is no address to send to: set one with address(...)", 0, cause);
    }

    private CallFailedException notReached(String operation, Throwable failure) {
        Throwable cause = failure instanceof CompletionException ? failure.getCause() : failure;
        if (cause instanceof Redirects.Refused refused) {
            return new CallFailedException(
                    operation + " at " + shown() + " " + refused.getMessage(), refused.status(), null);
        }
        boolean late = cause instanceof TimeoutException
                || cause instanceof HttpTimeoutException && !(cause instanceof HttpConnectTimeoutException);
        String what = late ? "no answer within " + settings.timeout().toMillis() + " ms" : reason(cause);
        return new CallFailedException(operation + " at " + shown() + ": " + what, 0, cause);
    }

    /** What the failure or one below it says; those of refused connections often say nothing. */
    private static String reason(Throwable failure) {
        for (Throwable at = failure; at != null; at = at.getCause()) {
            if (at.getMessage() != null && !at.getMessage().contains("Exception")) {
                return at.getMessage();
            }
        }
        return failure instanceof ConnectException
                ? "no connection"
                : failure.getClass().getSimpleName();
    }

    /** What came, unpacked and seen by the interceptors. */
    private Answer received(SoapInterceptor.Call call, Arrived whole) {
        HttpResponse<SpooledBody> response = whole.response();
        call.answerHeaders().put(":status", String.valueOf(response.statusCode()));
        response.headers().map().forEach((name, values) -> call.answerHeaders().put(name, String.join(", ", values)));
        String contentType = response.headers().firstValue("Content-Type").orElse("");
        String encoding = response.headers().firstValue("Content-Encoding").orElse("");
        Incoming message;
        try {
            message = Incoming.of(
                    whole.body(),
                    MediaType.of(contentType),
                    encoding,
                    settings.reading().limits(),
                    settings.attachmentLimit(),
                    "the answer");
        } catch (IOException e) {
            throw new CallFailedException(
                    "the answer to " + call.operation() + " cannot be unpacked: " + e.getMessage(),
                    response.statusCode(),
                    e);
        }
        byte[] body = message.body();
        WireLog.answer(call, response.statusCode(), body, message.type().charset());
        try {
            for (SoapInterceptor interceptor : settings.interceptors()) {
                body = interceptor.answer(call, body, message.type().charset());
            }
        } catch (SecurityException e) {
            throw new CallFailedException(
                    "the answer to " + call.operation() + " is refused: " + e.getMessage(), response.statusCode(), e);
        }
        return new Answer(response.statusCode(), contentType, new Incoming(body, message.type(), message.parts()));
    }

    /** The failure for an answer that is not of the kind expected: with its status, its type and how it starts. */
    final CallFailedException unusable(String operation, Answer came, String what, Throwable cause) {
        byte[] body = came.message().body();
        String text = DecodedText.of(body, came.message().type().charset())
                .replaceAll("\\s+", " ")
                .trim();
        String start = text.substring(0, Math.min(200, text.length()));
        return new CallFailedException(
                "the answer to " + operation + " from " + shown() + " " + what + " (HTTP "
                        + came.status() + ", "
                        + (came.contentType().isEmpty() ? "no content type" : came.contentType()) + ", "
                        + (start.isEmpty() ? "empty" : "starts with: " + start) + ")",
                came.status(),
                cause);
    }
}
