package org.protypos.testing;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;

/** A service on this machine that knows no contract: it keeps what it was asked and gives one answer. */
public final class ForeignPeer implements AutoCloseable {
    private final HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    private volatile Asked asked;
    private volatile Answer answer;

    /**
     * What it was asked.
     *
     * @param target the method, the path and the query
     * @param type the content type, or null
     * @param action what {@code SOAPAction} says, or null
     */
    public record Asked(String target, String type, String action, byte[] body) {
        public String text() {
            return new String(body, StandardCharsets.UTF_8);
        }
    }

    /** What it answers; no type means that of the question. */
    private record Answer(int status, String type, byte[] body) {}

    public ForeignPeer() throws IOException {
        server.createContext("/", this::exchange);
        server.start();
    }

    /** Where it is, with a slash at the end. */
    public String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort() + "/";
    }

    /** Says what it answers from now on, and forgets what it was asked. */
    public void answer(int status, String type, byte[] body) {
        asked = null;
        answer = new Answer(status, type, body);
    }

    /** What it was asked last since it was told what to answer, or null. */
    public Asked asked() {
        return asked;
    }

    private void exchange(HttpExchange exchange) throws IOException {
        String type = exchange.getRequestHeaders().getFirst("Content-Type");
        asked = new Asked(
                exchange.getRequestMethod() + " " + exchange.getRequestURI(),
                type,
                exchange.getRequestHeaders().getFirst("SOAPAction"),
                exchange.getRequestBody().readAllBytes());
        String said = answer.type == null ? type.replaceFirst(";.*", "") + "; charset=utf-8" : answer.type;
        exchange.getResponseHeaders().add("Content-Type", said);
        exchange.sendResponseHeaders(answer.status, answer.body.length == 0 ? -1 : answer.body.length);
        exchange.getResponseBody().write(answer.body);
        exchange.close();
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
