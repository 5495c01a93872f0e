package org.protypos.runtime.http;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Requests as bytes, and as the platform's client makes them; the answers tell what was understood. */
@Timeout(60)
class HttpListenerTest {
    private final ExecutorService threads = Executors.newFixedThreadPool(4);
    private volatile Duration patience = Duration.ofMinutes(1);
    private HttpListener listener;

    @BeforeEach
    void listen() throws IOException {
        listener = HttpListener.listen(
                new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), this::echo, threads, () -> patience);
    }

    @AfterEach
    void close() {
        listener.close();
        threads.shutdownNow();
    }

    /** Says what came: with its length, or in chunks where the path says so. */
    private void echo(Exchange exchange) throws IOException {
        if (exchange.path().equals("/unread")) {
            exchange.answer(403, Map.of(), 0).close();
            return;
        }
        if (exchange.path().startsWith("/broken")) {
            OutputStream out = exchange.answer(200, Map.of(), exchange.path().equals("/broken") ? 10 : -1);
            out.write("only".getBytes(StandardCharsets.US_ASCII));
            out.flush();
            throw new IOException("there is no more to be had");
        }
        byte[] body = exchange.body().readAllBytes();
        String start = exchange.method() + " " + exchange.path() + " " + exchange.query() + " " + exchange.field("Host")
                + " " + exchange.field("x-one") + " [";
        byte[] content =
                (start + new String(body, StandardCharsets.ISO_8859_1) + "]").getBytes(StandardCharsets.ISO_8859_1);
        boolean chunks = exchange.path().startsWith("/chunks");
        Map<String, List<String>> fields = Map.of("Content-Type", List.of("text/plain"), "X-Odd", List.of("a\r\nb"));
        try (OutputStream out = exchange.answer(200, fields, chunks ? -1 : content.length)) {
            out.write(content);
        }
    }

    private Socket connect() throws IOException {
        Socket socket = new Socket(InetAddress.getLoopbackAddress(), listener.port());
        socket.setSoTimeout(20_000);
        return socket;
    }

    /** Sends bytes and gives all that comes until the connection ends; the half that sends ends at once or never. */
    private String exchange(String request, boolean half) throws IOException {
        try (Socket socket = connect()) {
            socket.getOutputStream().write(request.getBytes(StandardCharsets.ISO_8859_1));
            if (half) {
                socket.shutdownOutput();
            }
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1)
                    .replaceAll("Date: ..., \\d\\d ... \\d{4} \\d\\d:\\d\\d:\\d\\d GMT\r\n", "")
                    .replaceAll("(Content-Type: text/plain|X-Odd: a b)\r\n", "")
                    .replace("\r\n", "~");
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "GET /a?b=c HTTP/1.1~Host: h~Connection: close~~ | 200 OK~Content-Length: 19~Connection: close~~GET /a b=c h  []",
                "GET /a HTTP/1.0~~ | 200 OK~Content-Length: 17~Connection: close~~GET /a null   []",
                "POST /a HTTP/1.0~Content-Length: 2~~xy | 200 OK~Content-Length: 20~Connection: close~~POST /a null   [xy]",
                "POST /chunks HTTP/1.0~Content-Length: 2~~xy | 200 OK~Connection: close~~POST /chunks null   [xy]",
                "HEAD /a HTTP/1.1~Host: h~Connection: close~~ | 200 OK~Content-Length: 19~Connection: close~~",
                "GET http://other:8/a HTTP/1.1~Host: h~Connection: Close~~ "
                        + "| 200 OK~Content-Length: 24~Connection: close~~GET /a null other:8  []",
                "OPTIONS * HTTP/1.1~Host: h~Connection: close~~ | 200 OK~Content-Length: 22~Connection: close~~OPTIONS * null h  []",
                "POST /a HTTP/1.1~Host: h~Transfer-Encoding: chunked~Connection: x, close~~2;q=1~xy~00003~abc~0~T: t~~ "
                        + "| 200 OK~Content-Length: 24~Connection: close~~POST /a null h  [xyabc]",
                "GET /a HTTP/1.1~Host: h~X-One: 1~x-ONE:2~Connection: close~~ "
                        + "| 200 OK~Content-Length: 24~Connection: close~~GET /a null h 1, 2 []",
                "GET /chunks HTTP/1.1~Host: h~Connection: close~~ "
                        + "| 200 OK~Transfer-Encoding: chunked~Connection: close~~16~GET /chunks null h  []~0~~",
                "~~GET /a HTTP/1.1~Host: h~Connection: close~~ | 200 OK~Content-Length: 18~Connection: close~~GET /a null h  []",
            })
    void whatIsAskedIsAnswered(String request, String answer) throws IOException {
        String sent = request.replace("~", "\r\n");
        String expected = "HTTP/1.1 "
                + answer.replaceFirst("Content-Length: \\d+", "Content-Length: n")
                        .strip();
        for (boolean half : new boolean[] {false, true}) {
            String came = exchange(sent, half).replaceFirst("Content-Length: \\d+", "Content-Length: n");
            assertThat(came.strip()).isEqualTo(expected);
        }
        // A line may end without a carriage return.
        assertThat(exchange(sent.replace("\r\n", "\n"), false)).startsWith("HTTP/1.1 200 OK");
    }

    /** RFC 9112, sections 2 to 7: what could be taken in two ways, or is none of HTTP, is refused and the connection closed. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "GET /a~~ | 400",
                "GET  /a HTTP/1.1~Host: h~~ | 400",
                "GET /a HTTP/1.1~~ | 400",
                "GET /a HTTP/1.1~Host: h~Host: i~~ | 400",
                "GET a HTTP/1.1~Host: h~~ | 400",
                "GET /a#b HTTP/1.1~Host: h~~ | 400",
                "GET /\u00e4 HTTP/1.1~Host: h~~ | 400",
                "G(T / HTTP/1.1~Host: h~~ | 400",
                "GET /a HTTP/2.0~Host: h~~ | 505",
                "PRI * HTTP/2.0~~SM~~ | 505",
                "GET /a HTTP/1.1~Host : h~~ | 400",
                "GET /a HTTP/1.1~Host: h~ folded: x~~ | 400",
                "GET /a HTTP/1.1~Host: h~X-One: a\u0000b~~ | 400",
                "POST /a HTTP/1.1~Host: h~Content-Length: 1~Content-Length: 2~~xy | 400",
                "POST /a HTTP/1.1~Host: h~Content-Length: +1~~x | 400",
                "POST /a HTTP/1.1~Host: h~Content-Length: 99999999999999999999~~x | 400",
                "POST /a HTTP/1.1~Host: h~Content-Length: 1~Transfer-Encoding: chunked~~0~~ | 400",
                "POST /a HTTP/1.1~Host: h~Transfer-Encoding: gzip, chunked~~0~~ | 501",
                "POST /a HTTP/1.0~Transfer-Encoding: chunked~~0~~ | 400",
            })
    void whatIsNoRequestIsRefused(String request, int status) throws IOException {
        assertThat(exchange(request.replace("~", "\r\n"), false))
                .startsWith("HTTP/1.1 " + status + " ")
                .contains("~Connection: close~");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "x",
                "-1",
                "fffffffffffffffff",
                "2\r\nxyz\r\n0\r\n\r\n",
                "",
                "0x1\r\nx\r\n0\r\n\r\n",
            })
    void brokenChunksEndTheConnection(String chunks) throws IOException {
        String request = "POST /a HTTP/1.1\r\nHost: h\r\nTransfer-Encoding: chunked\r\n\r\n" + chunks + "\r\n";
        assertThat(exchange(request, true)).isEmpty();
    }

    /** An answer that breaks off must not look like a whole one. */
    @Test
    void brokenAnswersAreSeenToBeBroken() throws IOException {
        assertThat(exchange("GET /broken HTTP/1.1\r\nHost: h\r\n\r\n", false)).endsWith("~~only");
        assertThat(exchange("GET /broken-chunks HTTP/1.1\r\nHost: h\r\n\r\n", false))
                .endsWith("~~4~only~");
    }

    @Test
    void endlessHeadsAreRefused() throws IOException {
        for (String head : List.of("GET /" + "a".repeat(200_000), "GET / HTTP/1.1\r\n" + "X: y\r\n".repeat(20_000))) {
            try {
                assertThat(exchange(head, false)).startsWith("HTTP/1.1 431 ");
            } catch (SocketException e) {
                assertThat(e).hasMessageMatching("(?i).*(reset|pipe).*");
            }
        }
        assertThat(exchange("GET / HTTP/1.1\r\nHost: h\r\n" + "X: y\r\n".repeat(300) + "\r\n", false))
                .startsWith("HTTP/1.1 431 ");
    }

    /** Requests one behind the other, cut anywhere, over one connection: as many answers in their order. */
    @Test
    void requestsAreAnsweredInTheirOrderHoweverTheyAreCut() throws Exception {
        Random random = new Random(7);
        for (int round = 0; round < 20; round++) {
            StringBuilder all = new StringBuilder();
            int count = 1 + random.nextInt(12);
            for (int i = 0; i < count; i++) {
                String end = i == count - 1 ? "Connection: close\r\n" : "";
                String body = "b".repeat(random.nextInt(4) == 0 ? random.nextInt(100_000) : random.nextInt(9));
                all.append("POST /")
                        .append(i)
                        .append(" HTTP/1.1\r\nHost: h\r\n")
                        .append(end);
                if (random.nextBoolean()) {
                    all.append("Content-Length: " + body.length() + "\r\n\r\n" + body);
                } else {
                    int cut = random.nextInt(body.length() + 1);
                    all.append("Transfer-Encoding: chunked\r\n\r\n");
                    for (String chunk : new String[] {body.substring(0, cut), body.substring(cut)}) {
                        all.append(
                                chunk.isEmpty() ? "" : Integer.toHexString(chunk.length()) + "\r\n" + chunk + "\r\n");
                    }
                    all.append("0\r\n\r\n");
                }
            }
            byte[] bytes = all.toString().getBytes(StandardCharsets.ISO_8859_1);
            try (Socket socket = connect()) {
                CompletableFuture<byte[]> answers = CompletableFuture.supplyAsync(() -> {
                    try {
                        return socket.getInputStream().readAllBytes();
                    } catch (IOException e) {
                        return e.toString().getBytes(StandardCharsets.UTF_8);
                    }
                });
                for (int at = 0; at < bytes.length; ) {
                    int length = Math.min(bytes.length - at, 1 + random.nextInt(random.nextBoolean() ? 40 : 50_000));
                    socket.getOutputStream().write(bytes, at, length);
                    at += length;
                }
                String came = new String(answers.get(), StandardCharsets.ISO_8859_1);
                List<String> paths = new ArrayList<>();
                for (String part : came.split("HTTP/1.1 200 OK")) {
                    paths.add(part.replaceAll("(?s).*POST /([0-9]+) .*", "$1").strip());
                }
                List<String> expected = new ArrayList<>(List.of(""));
                for (int i = 0; i < count; i++) {
                    expected.add(String.valueOf(i));
                }
                assertThat(paths).isEqualTo(expected);
            }
        }
    }

    @Test
    void thePlatformsClientIsUnderstood() throws Exception {
        HttpClient client =
                HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
        URI here = URI.create("http://localhost:" + listener.port() + "/");
        byte[] large = new byte[5_000_000];
        Arrays.fill(large, (byte) 'l');
        for (String path : List.of("chunks", "whole")) {
            for (HttpRequest.BodyPublisher body : List.of(
                    BodyPublishers.ofByteArray(large),
                    BodyPublishers.fromPublisher(BodyPublishers.ofByteArray(large)),
                    BodyPublishers.noBody())) {
                // Without a body there is nothing to go on with, and this client waits for the word nevertheless.
                for (boolean first : body.contentLength() == 0 ? new boolean[1] : new boolean[] {false, true}) {
                    HttpResponse<String> answer = client.send(
                            HttpRequest.newBuilder(here.resolve(path))
                                    .expectContinue(first)
                                    .POST(body)
                                    .build(),
                            BodyHandlers.ofString());
                    assertThat(answer.body()).startsWith("POST /" + path).hasSizeGreaterThanOrEqualTo((int)
                            Math.max(0, body.contentLength()));
                }
            }
        }
        HttpResponse<String> refused = client.send(
                HttpRequest.newBuilder(here.resolve("unread"))
                        .POST(BodyPublishers.ofByteArray(large))
                        .build(),
                BodyHandlers.ofString());
        assertThat(refused.statusCode()).isEqualTo(403);
    }

    /** There are four threads, and a hundred who take their time. */
    @Test
    void whoIsSlowKeepsNobodyWaiting() throws Exception {
        List<Socket> slow = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            Socket socket = connect();
            slow.add(socket);
            String start = i % 2 == 0 ? "POST / HT" : "POST / HTTP/1.1\r\nHost: h\r\nContent-Length: 60000\r\n\r\nabc";
            socket.getOutputStream().write(start.getBytes(StandardCharsets.US_ASCII));
        }
        assertThat(exchange("GET /quick HTTP/1.1\r\nHost: h\r\nConnection: close\r\n\r\n", false))
                .contains("GET /quick");
        patience = Duration.ofMillis(200);
        for (Socket socket : slow) {
            assertThat(new String(socket.getInputStream().readAllBytes(), StandardCharsets.US_ASCII))
                    .startsWith("HTTP/1.1 408 ");
            socket.close();
        }
    }

    @Test
    void whoStopsInTheMiddleIsBrokenOff() throws Exception {
        patience = Duration.ofMillis(200);
        try (Socket sending = connect();
                Socket taking = connect()) {
            String start = "POST / HTTP/1.1\r\nHost: h\r\nContent-Length: 900000\r\n\r\n" + "a".repeat(70_000);
            sending.getOutputStream().write(start.getBytes(StandardCharsets.US_ASCII));
            String whole = "POST / HTTP/1.1\r\nHost: h\r\nContent-Length: 30000000\r\n\r\n" + "a".repeat(30_000_000);
            taking.setReceiveBufferSize(4096);
            taking.getOutputStream().write(whole.getBytes(StandardCharsets.US_ASCII));
            assertThat(sending.getInputStream().readAllBytes()).isEmpty();
            while (listener.isBusy()) {
                Thread.sleep(20);
            }
        }
    }
}
