package org.protypos.runtime.soap;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ThreadFactory;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlLimits;

/**
 * An HTTP server for endpoints. It answers POST with the operation's output and GET with the contract. A request of
 * which hardly anything has come for some time is broken off, so that slow senders keep nobody else waiting.
 */
public final class SoapServer implements AutoCloseable {
    private static final int THREADS = 256;
    private static final long MOST_OFTEN = 10_000_000;
    private static final long LEAST_OFTEN = 1_000_000_000;
    private static final Duration GRACE = Duration.ofSeconds(10);
    private static final Pattern HOST = Pattern.compile("[A-Za-z0-9.:\\[\\]_-]{1,255}");

    /** The longest time for a whole request, in seconds: the platform's server looks at it once, when it is loaded. */
    private static final String LONGEST_REQUEST = "sun.net.httpserver.maxReqTime";

    /** Head and body are two packets, of which the second would wait for the other side to have acknowledged the first. */
    private static final String AT_ONCE = "sun.net.httpserver.nodelay";

    private final HttpServer server;
    private final ExecutorService threads;
    private final ScheduledExecutorService clock;
    private final Map<HttpExchange, SlowSenders> running = new ConcurrentHashMap<>();
    private volatile Reading reading = Reading.strict(XmlLimits.DEFAULT);
    private volatile long attachmentLimit = 2L << 30;
    private volatile Duration requestTime = Duration.ofMinutes(1);
    private volatile Function<UnaryOperator<String>, String> gate = headers -> null;
    private volatile Function<String, Map<String, String>> headers = path -> Map.of();
    private volatile boolean behindProxy;
    private volatile boolean stopping;

    private SoapServer(HttpServer server) {
        this.server = server;
        ThreadPoolExecutor pool = new ThreadPoolExecutor(
                THREADS, THREADS, 30, TimeUnit.SECONDS, new LinkedBlockingQueue<>(), daemons("soap-server"));
        pool.allowCoreThreadTimeOut(true);
        this.threads = pool;
        this.clock = Executors.newSingleThreadScheduledExecutor(daemons("soap-server-clock"));
    }

    private static ThreadFactory daemons(String name) {
        return task -> {
            Thread thread = new Thread(task, name);
            thread.setDaemon(true);
            return thread;
        };
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
        if (System.getProperty(LONGEST_REQUEST) == null) {
            System.setProperty(LONGEST_REQUEST, "300");
        }
        if (System.getProperty(AT_ONCE) == null) {
            System.setProperty(AT_ONCE, "true");
        }
        try {
            SoapServer server = new SoapServer(HttpServer.create(address, 0));
            server.server.setExecutor(server.threads);
            server.server.start();
            server.watch();
            return server;
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
        server.createContext(path, exchange -> serve(exchange, path, endpoint));
        return this;
    }

    /**
     * Trusts the headers by which a proxy in front says under which address it was asked ({@code X-Forwarded-Proto},
     * {@code X-Forwarded-Host}): the contract then shows that address. Without a proxy anybody could set them.
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

    /** Breaks off requests of which less than 64 KiB, and not the rest, come in this time. The default is one minute. */
    public SoapServer requestTime(Duration value) {
        requestTime = value;
        return this;
    }

    /** The TCP port that the server listens on. */
    public int port() {
        return server.getAddress().getPort();
    }

    /** Stops: running calls get ten seconds to end, new ones are refused. */
    @Override
    public void close() {
        stop(GRACE);
    }

    /** Stops: running calls get some time to end, new ones are refused. */
    public void stop(Duration grace) {
        stopping = true;
        long end = System.nanoTime() + grace.toNanos();
        try {
            while (!running.isEmpty() && System.nanoTime() < end) {
                TimeUnit.MILLISECONDS.sleep(10);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        server.stop(0);
        clock.shutdownNow();
        threads.shutdownNow();
    }

    /** Looks at all requests that are coming in, four times in the time that each is allowed, and so again and again. */
    private void watch() {
        long allowed = requestTime.toNanos();
        long now = System.nanoTime();
        running.values().forEach(body -> body.check(now, allowed));
        if (!clock.isShutdown()) {
            clock.schedule(this::watch, Math.max(MOST_OFTEN, Math.min(allowed / 4, LEAST_OFTEN)), TimeUnit.NANOSECONDS);
        }
    }

    private void serve(HttpExchange exchange, String path, Endpoint endpoint) throws IOException {
        try (exchange) {
            SlowSenders body = new SlowSenders(exchange.getRequestBody(), exchange::close);
            running.put(exchange, body);
            if (stopping) {
                send(exchange, Reply.plain(503, "the service is stopping"));
                return;
            }
            String refused = gate.apply(name -> header(exchange, name));
            if (refused != null) {
                send(exchange, Reply.plain(403, refused));
                return;
            }
            String asked = exchange.getRequestURI().getRawPath();
            if (!asked.startsWith(path)) {
                send(exchange, Reply.plain(404, "nothing is published here"));
                return;
            }
            Request request = new Request(
                    exchange.getRequestMethod(),
                    asked.substring(path.equals("/") ? 0 : path.length()),
                    exchange.getRequestURI().getRawQuery(),
                    () -> address(exchange) + path,
                    exchange.getRequestHeaders()::getFirst,
                    body,
                    reading,
                    attachmentLimit);
            Reply reply;
            try {
                reply = endpoint.answer(request);
            } finally {
                body.stop();
            }
            send(exchange, reply);
        } finally {
            running.remove(exchange);
        }
    }

    private static String header(HttpExchange exchange, String name) {
        String value = exchange.getRequestHeaders().getFirst(name);
        return value == null ? "" : value;
    }

    /** Scheme and host under which the caller knows this server. */
    private String address(HttpExchange exchange) {
        String host = header(exchange, "Host");
        String scheme = "http";
        if (behindProxy && !header(exchange, "X-Forwarded-Host").isEmpty()) {
            host = header(exchange, "X-Forwarded-Host").split(",")[0].strip();
        }
        if (behindProxy && header(exchange, "X-Forwarded-Proto").strip().equals("https")) {
            scheme = "https";
        }
        if (!HOST.matcher(host).matches()) {
            host = "localhost:" + port();
        }
        return scheme + "://" + host;
    }

    private void send(HttpExchange exchange, Reply reply) throws IOException {
        headers.apply(exchange.getRequestURI().getPath()).forEach(exchange.getResponseHeaders()::set);
        reply.headers().forEach(exchange.getResponseHeaders()::set);
        // This server writes 0 for a length that is not known, and -1 for no body at all.
        long length = reply.length() < 0 ? 0 : reply.length() == 0 ? -1 : reply.length();
        exchange.sendResponseHeaders(reply.status(), length);
        if (length >= 0) {
            try (OutputStream body = exchange.getResponseBody()) {
                reply.body().writeTo(body);
            }
        }
    }
}
