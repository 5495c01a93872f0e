package org.protypos.runtime.soap;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.protypos.runtime.http.Exchange;
import org.protypos.runtime.http.HttpListener;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlLimits;

/**
 * An HTTP server for endpoints. It answers POST with the operation's output and GET with the contract. Who sends slowly
 * keeps nobody else waiting, and is broken off when hardly anything has come for some time.
 */
public final class SoapServer implements AutoCloseable {
    private static final int THREADS = 256;
    private static final Duration GRACE = Duration.ofSeconds(10);
    private static final Pattern HOST = Pattern.compile("[A-Za-z0-9.:\\[\\]_-]{1,255}");

    private final HttpListener listener;
    private final ExecutorService threads;
    private final Map<String, Endpoint> endpoints = new ConcurrentHashMap<>();
    private volatile Reading reading = Reading.strict(XmlLimits.DEFAULT);
    private volatile long attachmentLimit = 2L << 30;
    private volatile Duration requestTime = Duration.ofMinutes(1);
    private volatile Function<UnaryOperator<String>, String> gate = headers -> null;
    private volatile Function<String, Map<String, String>> headers = path -> Map.of();
    private volatile boolean behindProxy;
    private volatile boolean stopping;

    private SoapServer(InetSocketAddress address) throws IOException {
        ThreadPoolExecutor pool =
                new ThreadPoolExecutor(THREADS, THREADS, 30, TimeUnit.SECONDS, new LinkedBlockingQueue<>(), task -> {
                    Thread thread = new Thread(task, "soap-server");
                    thread.setDaemon(true);
                    return thread;
                });
        pool.allowCoreThreadTimeOut(true);
        threads = pool;
        listener = HttpListener.listen(address, this::serve, threads, () -> requestTime);
    }

    /**
     * Starts listening on all addresses of this machine.
     *
     * @param port the TCP port; 0 takes a free one
     * @throws UncheckedIOException when the port cannot be had
     */
    public static SoapServer listen(int port) {
        return listen(new InetSocketAddress(port));
    }

    /**
     * Starts listening on one address.
     *
     * @throws UncheckedIOException when the address cannot be had
     */
    public static SoapServer listen(InetSocketAddress address) {
        try {
            return new SoapServer(address);
        } catch (IOException e) {
            throw new UncheckedIOException("cannot listen on " + address + ": " + e.getMessage(), e);
        }
    }

    /**
     * Serves an endpoint.
     *
     * @param path the path of its address, starting with a slash
     */
    public SoapServer publish(String path, Endpoint endpoint) {
        endpoints.put(Request.normal(path), endpoint);
        return this;
    }

    /**
     * Trusts the headers by which a proxy in front says under which address it was asked ({@code Forwarded}, or {@code
     * X-Forwarded-Proto} and {@code X-Forwarded-Host}): the contract then shows that address. Without a proxy anybody could set them.
     */
    public SoapServer trustForwardedHeaders() {
        behindProxy = true;
        return this;
    }

    /**
     * Looks at each request before anything of it is read.
     *
     * @param value is given the values of its header fields by name, empty for one that did not come, and gives why it is not
     *     answered, or null
     */
    public SoapServer gate(Function<UnaryOperator<String>, String> value) {
        gate = Objects.requireNonNull(value, "gate");
        return this;
    }

    /**
     * Says header fields with every answer that does not say them itself.
     *
     * @param fields gives them for the path that was asked for
     */
    public SoapServer headers(Function<String, Map<String, String>> fields) {
        headers = Objects.requireNonNull(fields, "fields");
        return this;
    }

    /** Holds messages to other bounds than the default ones. */
    public SoapServer limits(XmlLimits value) {
        reading = reading.limits(value);
        return this;
    }

    /** Reads requests leniently, as {@link Reading} says, rather than answering with a fault. */
    public SoapServer lenient(Consumer<XmlFormatException> passedOver) {
        reading = reading.leniently(Objects.requireNonNull(passedOver, "passedOver"));
        return this;
    }

    /** Takes messages with attachments of at most so many bytes together. The default is 2 GiB. */
    public SoapServer attachmentLimit(long bytes) {
        attachmentLimit = bytes;
        return this;
    }

    /**
     * Breaks off requests, and the sending of answers, of which less than 64 KiB and not the rest comes through in this time.
     * The default is one minute.
     */
    public SoapServer requestTime(Duration value) {
        requestTime = value;
        return this;
    }

    /** The TCP port that the server listens on. */
    public int port() {
        return listener.port();
    }

    /** Stops: running calls get ten seconds to end, new ones are refused. */
    @Override
    public void close() {
        stop(GRACE);
    }

    /** Stops: running calls get some time to end, new ones are refused. */
    public void stop(Duration grace) {
        stopping = true;
        listener.refuseMore();
        long end = System.nanoTime() + grace.toNanos();
        try {
            while (listener.isBusy() && System.nanoTime() < end) {
                TimeUnit.MILLISECONDS.sleep(10);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        listener.close();
        threads.shutdownNow();
    }

    private void serve(Exchange exchange) throws IOException {
        if (stopping) {
            send(exchange, Reply.plain(503, "the service is stopping"));
            return;
        }
        String refused = gate.apply(exchange::field);
        if (refused != null) {
            send(exchange, Reply.plain(403, refused));
            return;
        }
        String asked = Request.normal(exchange.path());
        String path = endpoints.keySet().stream()
                .filter(asked::startsWith)
                .max(Comparator.comparing(String::length))
                .orElse(null);
        if (path == null) {
            send(exchange, Reply.plain(404, "nothing is published here"));
            return;
        }
        // HEAD is answered as GET is, without the body (RFC 9110, section 9.3.2).
        String method = exchange.method().equals("HEAD") ? "GET" : exchange.method();
        Request request = new Request(
                method,
                asked.substring(path.equals("/") ? 0 : path.length()),
                exchange.query(),
                name -> address(exchange, path, name),
                exchange::names,
                exchange::field,
                exchange.body(),
                reading,
                attachmentLimit);
        Reply reply;
        try {
            reply = endpoints.get(path).answer(request);
        } catch (RuntimeException | Error e) {
            System.getLogger(getClass().getName()).log(System.Logger.Level.ERROR, "a request could not be answered", e);
            reply = Reply.plain(500, "the service failed");
        }
        send(exchange, reply);
    }

    /** Where an endpoint is served: this one, if documents speak of its ports by that name, or else the first at a path. */
    private String address(Exchange exchange, String path, String name) {
        boolean own = name.isEmpty() || endpoints.get(path).serves(name);
        String at = own
                ? path
                : endpoints.entrySet().stream()
                        .filter(entry -> entry.getValue().serves(name))
                        .map(Map.Entry::getKey)
                        .min(Comparator.naturalOrder())
                        .orElse(null);
        return at == null ? null : address(exchange) + at;
    }

    /** Scheme and host under which the caller knows this server. */
    private String address(Exchange exchange) {
        String host = exchange.field("Host");
        String scheme = "http";
        if (behindProxy) {
            String asked = forwarded(exchange, "host", "X-Forwarded-Host");
            host = asked.isEmpty() ? host : asked;
            scheme = forwarded(exchange, "proto", "X-Forwarded-Proto").equals("https") ? "https" : scheme;
        }
        if (!HOST.matcher(host).matches()) {
            host = "localhost:" + port();
        }
        return scheme + "://" + host;
    }

    /** What the proxy next to the caller says, by the standard field (RFC 7239, section 4) or by the one that came before it. */
    private static String forwarded(Exchange exchange, String parameter, String field) {
        for (String pair : exchange.field("Forwarded").split(",")[0].split(";")) {
            String[] parts = pair.split("=", 2);
            if (parts.length == 2 && parts[0].strip().equalsIgnoreCase(parameter)) {
                return parts[1].strip().replace("\"", "");
            }
        }
        return exchange.field(field).split(",")[0].strip();
    }

    private void send(Exchange exchange, Reply reply) throws IOException {
        Map<String, List<String>> fields = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        headers.apply(exchange.path()).forEach((name, value) -> fields.put(name, List.of(value)));
        fields.putAll(reply.headers());
        OutputStream body = exchange.answer(reply.status(), fields, reply.length());
        try {
            reply.body().writeTo(body);
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        // Only what was written to its end is ended: the caller must see that the rest of another is missing.
        body.close();
    }
}
