package org.protypos.exchange;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.contract.ContractReader;
import org.protypos.exchange.page.StandInPage;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.source.DocumentGatherer;

/** What a page of another site can make a browser send to a stand-in, byte by byte: nothing of it is carried out. */
class VisitorsTest {
    private static final String ENVELOPE = "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body>"
            + "<listBerths xmlns='http://lanternbay.example/harbour/desk'/></e:Body></e:Envelope>";

    private final List<StandIn.Seen> seen = new ArrayList<>();
    private StandIn standIn;
    private int port;
    private String path;

    @BeforeEach
    void serve() throws IOException {
        standIn = StandIn.serve(
                ContractReader.read(DocumentGatherer.gather(List.of("../examples/harbour/contract/desk.wsdl"), null)),
                new InetSocketAddress(InetAddress.getLoopbackAddress(), 0),
                Answers.NONE,
                seen::add);
        StandInPage.publish(standIn);
        URI address = URI.create(standIn.addresses().values().iterator().next());
        port = address.getPort();
        path = address.getPath();
    }

    @AfterEach
    void stop() {
        standIn.close();
    }

    private String send(String method, String target, String fields, String body) throws IOException {
        byte[] content = body.getBytes(StandardCharsets.UTF_8);
        String head = method + " " + target + " HTTP/1.1\r\nConnection: close\r\nContent-Length: " + content.length
                + "\r\n" + fields.replace("PORT", String.valueOf(port)).replace(" ~ ", "\r\n") + "\r\n\r\n";
        try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
            socket.getOutputStream().write(head.getBytes(StandardCharsets.UTF_8));
            socket.getOutputStream().write(content);
            InputStream in = socket.getInputStream();
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static int status(String answer) {
        return Integer.parseInt(answer.substring(9, 12));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Host: localhost:PORT | 200",
                "Host: 127.0.0.1:PORT | 200",
                "Host: [::1]:PORT | 200",
                "Host: LOCALHOST | 200",
                "Host: localhost:PORT ~ Origin: http://localhost:PORT | 200",
                "Host: localhost:PORT ~ Sec-Fetch-Site: same-origin | 200",
                "Host: localhost:PORT ~ Sec-Fetch-Site: none | 200",
                "Host: rebound.example:PORT | 403",
                "Host: localhost.rebound.example:PORT | 403",
                "Host: rebound.example:PORT ~ Origin: http://rebound.example:PORT | 403",
                "Host: localhost:PORT ~ Origin: http://evil.example | 403",
                "Host: localhost:PORT ~ Origin: http://localhost:1 | 403",
                "Host: localhost:PORT ~ Origin: https://localhost:PORT | 403",
                "Host: localhost:PORT ~ Origin: null | 403",
                "Host: localhost:PORT ~ Sec-Fetch-Site: cross-site | 403",
                "Host: localhost:PORT ~ Sec-Fetch-Site: same-site | 403",
            })
    void callsOfOtherSitesAreRefused(String fields, int status) throws IOException {
        String answer = send("POST", path, fields + " ~ Content-Type: text/xml", ENVELOPE);
        assertThat(status(answer)).as(answer).isEqualTo(status);
        assertThat(seen).hasSize(status == 200 ? 1 : 0);
        assertThat(status(send("GET", "/stand-in/received?after=0", fields, "")))
                .isEqualTo(status);
        assertThat(status(send("GET", path + "?wsdl", fields, ""))).isEqualTo(status);
    }

    @Test
    void whoIsLetInMayCall() throws IOException {
        standIn.admit(Set.of("desk.test"), Set.of("http://localhost:3000"));
        assertThat(status(send("POST", path, "Host: desk.test:1 ~ Content-Type: text/xml", ENVELOPE)))
                .isEqualTo(200);
        assertThat(status(send(
                        "POST",
                        path,
                        "Host: localhost:PORT ~ Origin: http://localhost:3000 ~ Content-Type: text/xml",
                        ENVELOPE)))
                .isEqualTo(200);
        assertThat(status(send("POST", path, "Host: other.test ~ Content-Type: text/xml", ENVELOPE)))
                .isEqualTo(403);
    }

    @Test
    void thePageAloneCanSend() throws IOException {
        String form = "Host: localhost:PORT ~ Content-Type: application/x-www-form-urlencoded";
        String answer = send("POST", "/stand-in/call", form, "operation=0&xml=%3Ca%2F%3E&value=%7B%7D");
        assertThat(status(answer)).isEqualTo(400);
        assertThat(answer).contains("not sent by the page");
        assertThat(seen).isEmpty();
    }

    @Test
    void nothingInAnAnswerRuns() throws IOException {
        for (String target : List.of("/", "/stand-in/contract", path + "?wsdl", path, "/nothing")) {
            String answer = send("GET", target, "Host: localhost:PORT", "");
            assertThat(answer)
                    .containsIgnoringCase("X-Content-Type-Options: nosniff")
                    .containsIgnoringCase("X-Frame-Options: DENY")
                    .containsIgnoringCase("Content-Security-Policy: default-src 'none'");
            assertThat(answer.contains("sandbox"))
                    .as(target)
                    .isEqualTo(target.startsWith(path) || target.equals("/nothing"));
        }
    }
}
