package org.protypos.runtime.soap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a client does when a service says that it is elsewhere: what a request holds goes where it was meant to go. */
class RedirectsTest {
    private final HttpClient client = HttpClient.newHttpClient();
    private HttpServer server;
    private String base;

    @BeforeEach
    void serve() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        base = "http://localhost:" + server.getAddress().getPort();
        server.createContext("/", exchange -> {
            String query = String.valueOf(exchange.getRequestURI().getRawQuery());
            String[] parts = query.split(",", 2);
            if (parts.length == 2) {
                exchange.getResponseHeaders().set("Location", parts[1]);
            }
            exchange.sendResponseHeaders(Integer.parseInt(parts[0]), -1);
            exchange.close();
        });
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private HttpRequest request(String status, String location) {
        return HttpRequest.newBuilder(URI.create(base + "/?" + status + "," + location))
                .header("Authorization", "Basic c2VjcmV0")
                .header("X-Api-Key", "k")
                .header("Content-Type", "text/xml")
                .POST(HttpRequest.BodyPublishers.ofString("<a/>"))
                .build();
    }

    private HttpRequest next(Redirects how, String status, String location) throws Exception {
        HttpRequest sent = request(status, location);
        return how.next(sent, client.send(sent, HttpResponse.BodyHandlers.discarding()));
    }

    @ParameterizedTest
    @ValueSource(strings = {"301", "302", "307", "308"})
    void aCallStaysACallAtTheSameServer(String status) throws Exception {
        HttpRequest next = next(Redirects.SAME_ORIGIN, status, "/there?x=1");
        assertThat(next.uri()).isEqualTo(URI.create(base + "/there?x=1"));
        assertThat(next.method()).isEqualTo("POST");
        assertThat(next.bodyPublisher()).isPresent();
        assertThat(next.headers().firstValue("Authorization")).contains("Basic c2VjcmV0");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "SAME_ORIGIN | 302 | http://other.example/x | another server than it was meant for",
                "SAME_ORIGIN | 307 | http://localhost:1/x | another server than it was meant for",
                "SAME_ORIGIN | 303 | /x | an answer waits that is none to this call",
                "NONE | 308 | /x | set that address, or followRedirects()",
                "ANYWHERE | 302 | ftp://other.example/x | is no address",
                "ANYWHERE | 302 | file:///etc/passwd | is no address",
                "ANYWHERE | 301 | '' | is no address",
                "NONE | 301 | http://u:p@other.example/x?secret=1 | is redirected to http://other.example/x?...;",
            })
    void whatIsNotFollowedSaysWhereItLeads(Redirects how, String status, String location, String says) {
        assertThatThrownBy(() -> next(how, status, location))
                .isInstanceOf(Redirects.Refused.class)
                .hasMessageContaining(says)
                .hasMessageNotContaining("u:p");
    }

    @Test
    void whoCallsStaysBehindWhenTheServerIsAnother() throws Exception {
        HttpRequest next = next(Redirects.ANYWHERE, "307", "http://other.example/x");
        assertThat(next.headers().map()).containsKey("Content-Type").doesNotContainKeys("Authorization", "X-Api-Key");
    }

    @Test
    void answersAreNoRedirections() throws Exception {
        assertThat(next(Redirects.ANYWHERE, "200", "/x")).isNull();
        assertThat(next(Redirects.NONE, "304", "/x")).isNull();
    }
}
