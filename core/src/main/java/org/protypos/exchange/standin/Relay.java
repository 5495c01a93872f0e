package org.protypos.exchange.standin;

import java.io.IOException;
import java.io.InputStream;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.protypos.runtime.attach.Spool;
import org.protypos.runtime.soap.Request;
import org.protypos.runtime.value.Conversions;

/**
 * Where a stand-in hands requests on to. What comes is passed on byte for byte, and so is what is answered: neither end can tell
 * that somebody stands between, and a signature over what nobody here knows still holds (SOAP 1.2 Part 1, section 2.7).
 *
 * @param address the address of the real service
 * @param client sends the requests; it follows no redirections
 * @param headers header fields for requests that do not have them
 * @param recording keeps what the service answers, or null
 */
public record Relay(String address, HttpClient client, Map<String, String> headers, Recording recording) {
    private static final Duration PATIENCE = Duration.ofMinutes(1);

    /** Fields that are for the next hop alone (RFC 9110, section 7.6.1), and those that the HTTP client says itself. */
    private static final Set<String> OWN = Set.of(
            "connection",
            "proxy-connection",
            "keep-alive",
            "te",
            "trailer",
            "transfer-encoding",
            "upgrade",
            "proxy-authenticate",
            "proxy-authorization",
            "host",
            "content-length",
            "expect");

    /**
     * What the real service answers.
     *
     * @param fields its header fields, those for this hop alone left out
     */
    record Answer(int status, Map<String, List<String>> fields, Spool body) {
        /** A field by its name, empty when it is absent. */
        String field(String name) {
            return String.join(", ", fields.getOrDefault(name.toLowerCase(Locale.ROOT), List.of()));
        }
    }

    /**
     * Passes a request on.
     *
     * @param body the body as it came
     * @throws IOException when there is no answer; its message says why
     */
    Answer send(Request request, Spool body) throws IOException {
        Map<String, String> fields = new LinkedHashMap<>();
        headers.forEach((name, value) -> fields.put(name.toLowerCase(Locale.ROOT), value));
        Set<String> hop = hop(request.field("Connection"));
        for (String name : request.names().get()) {
            if (!hop.contains(name.toLowerCase(Locale.ROOT))) {
                fields.put(name.toLowerCase(Locale.ROOT), request.field(name));
            }
        }
        try {
            String query = request.query() == null ? "" : (address.contains("?") ? "&" : "?") + request.query();
            boolean twice = address.endsWith("/") && request.path().startsWith("/");
            String base = twice ? address.substring(0, address.length() - 1) : address;
            HttpRequest.Builder builder = HttpRequest.newBuilder(Conversions.toUri(base + request.path() + query))
                    .timeout(PATIENCE)
                    .version(HttpClient.Version.HTTP_1_1)
                    .method(request.method(), content(request, body));
            fields.forEach(builder::setHeader);
            HttpResponse<InputStream> answer = client.send(builder.build(), HttpResponse.BodyHandlers.ofInputStream());
            Spool came = Spool.large(request.attachments(), "the answer");
            try (InputStream in = answer.body()) {
                in.transferTo(came);
            }
            Map<String, List<String>> back = new LinkedHashMap<>();
            Set<String> last = hop(answer.headers().firstValue("Connection").orElse(""));
            answer.headers().map().forEach((name, values) -> {
                if (!last.contains(name.toLowerCase(Locale.ROOT))) {
                    back.put(name.toLowerCase(Locale.ROOT), values);
                }
            });
            return new Answer(answer.statusCode(), back, came);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted while waiting for an answer", e);
        } catch (IllegalArgumentException e) {
            throw new IOException("the request cannot be passed on: " + e.getMessage(), e);
        }
    }

    private static BodyPublisher content(Request request, Spool body) {
        if (body.length() > 0) {
            return BodyPublishers.fromPublisher(BodyPublishers.ofInputStream(body::open), body.length());
        }
        boolean none = List.of("GET", "HEAD", "DELETE").contains(request.method());
        return none ? BodyPublishers.noBody() : BodyPublishers.ofByteArray(new byte[0]);
    }

    private static Set<String> hop(String connection) {
        Set<String> names = new HashSet<>(OWN);
        Arrays.stream(connection.split(","))
                .forEach(name -> names.add(name.strip().toLowerCase(Locale.ROOT)));
        return names;
    }
}
