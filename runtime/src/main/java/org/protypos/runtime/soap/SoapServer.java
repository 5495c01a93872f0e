package org.protypos.runtime.soap;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.regex.Pattern;
import org.protypos.runtime.xml.XmlLimits;

/** An HTTP server for endpoints. It answers POST with the operation's output and GET with the contract. */
public final class SoapServer implements AutoCloseable {
    private static final int THREADS = Math.max(16, 4 * Runtime.getRuntime().availableProcessors());
    private static final Pattern HOST = Pattern.compile("[A-Za-z0-9.:\\[\\]_-]{1,255}");

    private final HttpServer server;
    private final ExecutorService threads;
    private final XmlLimits limits = XmlLimits.DEFAULT;
    private volatile boolean behindProxy;

    private SoapServer(HttpServer server, ExecutorService threads) {
        this.server = server;
        this.threads = threads;
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
            HttpServer server = HttpServer.create(address, 0);
            ExecutorService threads = Executors.newFixedThreadPool(THREADS, task -> {
                Thread thread = new Thread(task, "soap-server");
                thread.setDaemon(true);
                return thread;
            });
            server.setExecutor(threads);
            server.start();
            return new SoapServer(server, threads);
        } catch (IOException e) {
            throw new UncheckedIOException("cannot listen on " + address + ": " + e.getMessage(), e);
        }
    }

    /**
     * Serves an endpoint.
     *
     * @param path the path of its address, starting with a slash
     */
    public SoapServer publish(String path, SoapEndpoint endpoint) {
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

    /** The TCP port that the server listens on. */
    public int port() {
        return server.getAddress().getPort();
    }

    /** Stops: running calls get a second to end, new ones are refused. */
    @Override
    public void close() {
        server.stop(threads.isShutdown() ? 0 : 1);
        threads.shutdownNow();
    }

    private void serve(HttpExchange exchange, String path, SoapEndpoint endpoint) throws IOException {
        try (exchange) {
            if (!exchange.getRequestURI().getPath().equals(path)) {
                send(exchange, plain(404, "nothing is published here"));
                return;
            }
            switch (exchange.getRequestMethod()) {
                case "POST" -> send(exchange, call(exchange, endpoint));
                case "GET" -> send(exchange, contract(exchange, path, endpoint));
                default -> {
                    exchange.getResponseHeaders().set("Allow", "GET, POST");
                    send(exchange, plain(405, "POST calls an operation, GET shows the contract"));
                }
            }
        }
    }

    private SoapEndpoint.Reply call(HttpExchange exchange, SoapEndpoint endpoint) throws IOException {
        String type = header(exchange, "Content-Type");
        SoapVersion spoken = version(type);
        if (spoken == null) {
            return plain(415, "a SOAP message is text/xml or application/soap+xml, not " + printable(type));
        }
        byte[] message;
        try (InputStream body = exchange.getRequestBody()) {
            message = body.readNBytes((int) Math.min(Integer.MAX_VALUE - 8, limits.bytes() + 1));
        }
        if (message.length > limits.bytes()) {
            return plain(413, "the message is longer than " + limits.bytes() + " bytes");
        }
        if (header(exchange, "Content-Encoding").equalsIgnoreCase("gzip")) {
            try {
                message = Gzip.unpack(message, limits.bytes());
            } catch (IOException e) {
                return plain(400, "the message cannot be unpacked: " + e.getMessage());
            }
        }
        return endpoint.handle(message, SoapConnection.charset(type), action(exchange, type), limits, spoken);
    }

    private static SoapVersion version(String contentType) {
        String type = contentType.toLowerCase(Locale.ROOT);
        for (SoapVersion version : SoapVersion.values()) {
            if (type.startsWith(version.mediaType())) {
                return version;
            }
        }
        return null;
    }

    private static String action(HttpExchange exchange, String contentType) {
        String action = header(exchange, "SOAPAction");
        int at = contentType.indexOf("action=");
        if (action.isEmpty() && at >= 0) {
            action = contentType.substring(at + "action=".length()).split(";")[0];
        }
        return action.replace("\"", "").trim();
    }

    private static String header(HttpExchange exchange, String name) {
        String value = exchange.getRequestHeaders().getFirst(name);
        return value == null ? "" : value;
    }

    private SoapEndpoint.Reply contract(HttpExchange exchange, String path, SoapEndpoint endpoint) {
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
        String text = endpoint.documents()
                .show(exchange.getRequestURI().getQuery(), endpoint.portType(), scheme + "://" + host + path);
        return text == null
                ? plain(404, "the contract has no such document")
                : new SoapEndpoint.Reply(200, "text/xml; charset=utf-8", text.getBytes(StandardCharsets.UTF_8));
    }

    private static String printable(String text) {
        return text.replaceAll("[^ -~]", "?");
    }

    private static SoapEndpoint.Reply plain(int status, String text) {
        return new SoapEndpoint.Reply(
                status, "text/plain; charset=utf-8", (text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    private static void send(HttpExchange exchange, SoapEndpoint.Reply reply) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", reply.contentType());
        exchange.sendResponseHeaders(reply.status(), reply.body().length == 0 ? -1 : reply.body().length);
        if (reply.body().length > 0) {
            try (OutputStream body = exchange.getResponseBody()) {
                body.write(reply.body());
            }
        }
    }
}
