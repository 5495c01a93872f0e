package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.exchange.page.StandInPage;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.CSharp;
import org.protypos.testing.HarbourOffice;

/** What is sent in malice, and what a bad connection makes of what was sent in good faith. */
@Isolated("waits for peers that are slow")
class RoughWireTest {
    private static final String SOAP = "http://schemas.xmlsoap.org/soap/envelope/";

    @TempDir
    private static Path folder;

    private static HarbourOffice office;
    private static CSharp.Program inCSharp;

    @BeforeAll
    static void open() throws Exception {
        office = HarbourOffice.open(folder);
    }

    @AfterAll
    static void close() throws Exception {
        office.close();
        if (inCSharp != null) {
            inCSharp.close();
        }
    }

    /** The same office in C#. */
    private static CSharp.Program inCSharp() throws IOException {
        CSharp.assumed();
        if (inCSharp == null) {
            inCSharp = CSharp.office(folder);
        }
        return inCSharp;
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private static String envelope(String header, String body) {
        return "<e:Envelope xmlns:e='" + SOAP + "' xmlns='http://lanternbay.example/harbour/desk'>" + header
                + "<e:Body>" + body + "</e:Body></e:Envelope>";
    }

    /** Reads a request to its end, as far as its length says. */
    private static void readRequest(InputStream in) throws IOException {
        ByteArrayOutputStream head = new ByteArrayOutputStream();
        while (!head.toString(StandardCharsets.US_ASCII).endsWith("\r\n\r\n")) {
            head.write(in.read());
        }
        String length = head.toString(StandardCharsets.US_ASCII).replaceAll("(?is).*content-length: *([0-9]+).*", "$1");
        in.readNBytes(Integer.parseInt(length));
    }

    /** One answer, cut, delayed, truncated or corrupted: a call ends in an answer or in one clear exception all the same. */
    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp"})
    @Timeout(value = 5, unit = TimeUnit.MINUTES)
    void brokenAnswersEndInAnAnswerOrOneClearException(String language) throws Exception {
        Random random = new Random(20270509);
        byte[] content = utf8(envelope(
                "",
                "<listBerthsResponse><berth><number>4</number><quay>q</quay><depthInMetres>3.5"
                        + "</depthInMetres></berth></listBerthsResponse>"));
        Map<String, Integer> ends = new TreeMap<>();
        try (ServerSocket peer = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
            String address = "http://127.0.0.1:" + peer.getLocalPort() + "/";
            for (int i = 0; i < 150; i++) {
                byte[] body = content.clone();
                int kind = i % 5;
                int at = random.nextInt(body.length);
                if (kind == 1) {
                    body[at] = (byte) random.nextInt(256);
                } else if (kind == 2) {
                    body = Arrays.copyOf(body, at);
                }
                byte[] head = utf8("HTTP/1.1 200 OK\r\nContent-Type: text/xml\r\nContent-Length: "
                        + (kind == 2 && random.nextBoolean() ? content.length : body.length)
                        + "\r\nConnection: close\r\n\r\n");
                if (kind == 3) {
                    head[random.nextInt(head.length)] = (byte) random.nextInt(256);
                }
                byte[] whole = Arrays.copyOf(head, head.length + body.length);
                System.arraycopy(body, 0, whole, head.length, body.length);
                int sent = kind == 4 ? random.nextInt(whole.length) : whole.length;
                boolean silent = kind == 4 && random.nextInt(5) == 0;
                Thread answering = new Thread(() -> answer(peer, whole, sent, silent));
                answering.start();
                String end = language.equals("java")
                        ? office.calls("list", address)
                        : inCSharp().answer(address);
                answering.join();
                assertThat(end)
                        .as(new String(whole, 0, sent, StandardCharsets.ISO_8859_1))
                        .matches("(?s)[0-9] berths|[0-9]+: (the answer to [lL]istBerths|[lL]istBerths at http://).+")
                        .doesNotContain("Exception");
                ends.merge(
                        end.contains("berths") && end.length() < 10 ? "answer" : end.split("[:(]")[1].strip(),
                        1,
                        Integer::sum);
            }
        }
        assertThat(ends).containsKey("answer").hasSizeGreaterThan(2);
    }

    /** Answers that are packed, in an encoding or redirected in ways that a peer should not choose. */
    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp"})
    @Timeout(value = 5, unit = TimeUnit.MINUTES)
    void answersOfBadWillAreToldOf(String language) throws Exception {
        byte[] message = utf8(envelope("", "<listBerthsResponse/>"));
        byte[] packed = packed(message);
        byte[] empty = packed(new byte[0]);
        ByteArrayOutputStream members = new ByteArrayOutputStream();
        for (int i = 0; i < 25_000; i++) {
            members.writeBytes(empty);
        }
        StringBuilder details = new StringBuilder();
        for (int i = 0; i < 200_000; i++) {
            details.append("<noBerthFree/>");
        }
        String fault = "<e:Fault><faultcode>e:Server</faultcode><faultstring>low tide</faultstring><detail>" + details
                + "</detail></e:Fault>";
        Map<String, byte[]> answers = new LinkedHashMap<>();
        String type = "Content-Type: text/xml\r\n";
        answers.put("0 berths", answer("200", type + "Content-Encoding: X-Gzip\r\n", packed));
        answers.put(
                "(0 berths|.*no SOAP message.*, empty.*)",
                answer("200", type + "Content-Encoding: gzip\r\n", members.toByteArray()));
        answers.put(
                ".*cannot be unpacked: .*end too early",
                answer("200", type + "Content-Encoding: gzip\r\n", Arrays.copyOf(packed, packed.length - 9)));
        answers.put(
                ".*cannot be unpacked: it is packed with \"br\"; gzip alone can be read",
                answer("200", type + "Content-Encoding: br\r\n", packed));
        answers.put(
                ".*the encoding (IBM037|ibm037) is not known.*|.*cannot be read: (text stands|Data at the root).*",
                answer("200", "Content-Type: text/xml; charset=IBM037\r\n", message));
        answers.put(
                ".*the encoding utf-7 is not known.*",
                answer("200", "Content-Type: text/xml; charset=utf-7\r\n", message));
        answers.put("0 berths ?", answer("200", "Content-Type: text/xml; charset=\"\r\n", message));
        answers.put(".{20,1200}", answer("307", "Location: http://" + "a".repeat(9000) + ".example/\r\n", new byte[0]));
        answers.put(".*low tide.*", answer("500", type, utf8(envelope("", fault))));
        try (ServerSocket peer = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
            String address = "http://127.0.0.1:" + peer.getLocalPort() + "/";
            for (Map.Entry<String, byte[]> answer : answers.entrySet()) {
                byte[] whole = answer.getValue();
                Thread answering = new Thread(() -> answer(peer, whole, whole.length, false));
                answering.start();
                String end = language.equals("java")
                        ? office.calls("list", address)
                        : inCSharp().answer(address);
                answering.join();
                assertThat(end).matches("(?s)" + answer.getKey()).doesNotContain("Exception");
            }
        }
    }

    private static byte[] packed(byte[] content) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(packed)) {
            zip.write(content);
        }
        return packed.toByteArray();
    }

    private static byte[] answer(String status, String head, byte[] body) {
        byte[] start = utf8("HTTP/1.1 " + status + " x\r\n" + head + "Content-Length: " + body.length
                + "\r\nConnection: close\r\n\r\n");
        byte[] whole = Arrays.copyOf(start, start.length + body.length);
        System.arraycopy(body, 0, whole, start.length, body.length);
        return whole;
    }

    private static void answer(ServerSocket peer, byte[] whole, int sent, boolean silent) {
        try (Socket socket = peer.accept();
                OutputStream out = socket.getOutputStream()) {
            readRequest(socket.getInputStream());
            out.write(whole, 0, sent / 2);
            out.flush();
            Thread.sleep(5);
            out.write(whole, sent / 2, sent - sent / 2);
            out.flush();
            if (silent) {
                Thread.sleep(2_000);
            }
        } catch (IOException | InterruptedException e) {
            // The client has gone away, which is its right.
        }
    }

    /** Names, and what is sent under them: whole HTTP requests. */
    private static Map<String, byte[]> hostile() throws IOException {
        Map<String, byte[]> requests = new LinkedHashMap<>();
        StringBuilder entities = new StringBuilder("<!DOCTYPE e [<!ENTITY a0 'aaaaaaaaaa'>");
        for (int i = 1; i < 30; i++) {
            entities.append("<!ENTITY a" + i + " '" + ("&a" + (i - 1) + ";").repeat(10) + "'>");
        }
        requests.put("entity expansion", post("text/xml", utf8(entities + "]><e>&a29;</e>")));
        requests.put(
                "external entity",
                post("text/xml", utf8("<!DOCTYPE e [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><e>&a;</e>")));
        requests.put("deep nesting", post("text/xml", utf8(envelope("", "<y>".repeat(200_000)))));
        requests.put("deep header", post("text/xml", utf8(envelope("<e:Header>" + "<y>".repeat(200_000), ""))));
        requests.put(
                "a huge attribute",
                post("text/xml", utf8(envelope("", "<listBerths a='" + "x".repeat(8 << 20) + "'/>"))));
        StringBuilder colliding = new StringBuilder();
        for (int i = 0; i < 1 << 14; i++) {
            colliding.append(" x");
            for (int bit = 0; bit < 14; bit++) {
                colliding.append((i >> bit & 1) == 0 ? "Aa" : "BB");
            }
            colliding.append("=''");
        }
        requests.put("colliding names", post("text/xml", utf8(envelope("", "<listBerths" + colliding + "/>"))));
        requests.put(
                "colliding names in a header",
                post("text/xml", utf8(envelope("<e:Header><h" + colliding + "/></e:Header>", "<listBerths/>"))));
        StringBuilder prefixes = new StringBuilder();
        for (int i = 0; i < 20_000; i++) {
            prefixes.append(" xmlns:p" + i + "='urn:" + i + "'");
        }
        requests.put("prefixes", post("text/xml", utf8(envelope("", "<listBerths" + prefixes + " a='b'/>"))));
        requests.put("duplicate attributes", post("text/xml", utf8(envelope("", "<listBerths a='1' a='2'/>"))));
        requests.put(
                "a long number",
                post(
                        "text/xml",
                        utf8(envelope(
                                "",
                                "<listBerths><deepEnoughFor>" + "9".repeat(4 << 20)
                                        + "x</deepEnoughFor></listBerths>"))));
        requests.put(
                "a number that means another",
                post(
                        "text/xml",
                        utf8(envelope("", "<listBerths><deepEnoughFor>1e999999999</deepEnoughFor></listBerths>"))));
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream zip = new GZIPOutputStream(packed)) {
            byte[] spaces = new byte[1 << 20];
            Arrays.fill(spaces, (byte) ' ');
            for (int i = 0; i < 512; i++) {
                zip.write(spaces);
            }
        }
        requests.put("a gzip bomb", post("text/xml\r\nContent-Encoding: gzip", packed.toByteArray()));
        requests.put("not gzip", post("text/xml\r\nContent-Encoding: gzip", utf8("plain")));
        requests.put(
                "parts in parts",
                post(
                        "multipart/related; boundary=b",
                        utf8(
                                "--b\r\nContent-Type: multipart/related; boundary=c\r\n\r\n--c\r\n\r\nx\r\n--c--\r\n--b--")));
        requests.put(
                "many parts", post("multipart/related; boundary=b", utf8("--b\r\n\r\n\r\n".repeat(50_000) + "--b--")));
        requests.put("no boundary", post("multipart/related", utf8("--b\r\n\r\n\r\n--b--")));
        requests.put("another character set", post("text/xml; charset=utf-99", utf8(envelope("", "<listBerths/>"))));
        requests.put("bytes", post("text/xml", new byte[] {0, 1, 2, (byte) 0xff, (byte) 0xfe}));
        requests.put(
                "another action",
                post("text/xml\r\nSOAPAction: \"" + "<&>\u00e9".repeat(2000) + "\"", utf8(envelope("", "<x/>"))));
        requests.put(
                "a header that begins another",
                post("text/xml; charset=\"x\\\r\n X-Injected: 1\"", utf8(envelope("", "<x/>"))));
        requests.put(
                "no message at all",
                utf8("POST /desk HTTP/1.1\r\nHost: x\r\nContent-Type: text/xml\r\n" + "Connection: close\r\n\r\n"));
        requests.put(
                "a path outside", utf8("GET /desk/../../etc/passwd HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n"));
        requests.put(
                "a host that is none",
                utf8("DELETE /desk?wsdl HTTP/1.1\r\nHost: \"><script>\r\nConnection: close\r\n\r\n"));
        return requests;
    }

    private static byte[] post(String type, byte[] body) {
        byte[] head = utf8("POST /desk HTTP/1.1\r\nHost: localhost\r\nContent-Type: " + type + "\r\nContent-Length: "
                + body.length + "\r\nConnection: close\r\n\r\n");
        byte[] whole = Arrays.copyOf(head, head.length + body.length);
        System.arraycopy(body, 0, whole, head.length, body.length);
        return whole;
    }

    /** The status of the answer, or 0 when the connection was closed without one; and what the answer says. */
    private static String ask(URI address, byte[] request) throws IOException {
        try (Socket socket = new Socket(address.getHost(), address.getPort())) {
            socket.setSoTimeout(30_000);
            try {
                socket.getOutputStream().write(request);
                socket.getOutputStream().flush();
            } catch (IOException e) {
                // Refused before all of it was sent: the answer says why.
            }
            try {
                return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            } catch (IOException e) {
                return "";
            }
        }
    }

    /** Generated servers and a stand-in get the same, and all go on. */
    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp", "stand-in"})
    @Timeout(value = 5, unit = TimeUnit.MINUTES)
    void hostileRequestsAreRefusedAndHarmNobody(String server) throws Exception {
        Contract contract = ContractReader.read(DocumentGatherer.gather(
                List.of(HarbourOffice.EXAMPLE.resolve("contract/desk.wsdl").toString()), null));
        InetSocketAddress any = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
        try (StandIn standIn = StandIn.serve(contract, any, Answers.NONE, seen -> {})) {
            StandInPage.publish(standIn);
            boolean played = server.equals("stand-in");
            String address = played
                    ? standIn.addresses().values().iterator().next()
                    : server.equals("java") ? office.address() : inCSharp().address("/desk");
            for (Map.Entry<String, byte[]> request : hostile().entrySet()) {
                String answer = ask(URI.create(address), request.getValue());
                assertThat(answer)
                        .as(request.getKey())
                        .matches("(?s)(HTTP/1.1 [45][0-9][0-9] .*)?")
                        .doesNotContain("root:", "\nX-Injected", "<script>", "java.", "Exception", "\tat ");
                assertThat(office.calls("list", address))
                        .as("after " + request.getKey())
                        .isEqualTo(played ? "1 berths" : "3 berths");
            }
        }
    }

    /** Connections on which nothing comes, or hardly anything, keep nobody else waiting. */
    @Test
    @Timeout(value = 5, unit = TimeUnit.MINUTES)
    void idleConnectionsKeepNobodyWaiting() throws Exception {
        URI address = URI.create(office.address());
        Socket[] idle = new Socket[100];
        for (int i = 0; i < idle.length; i++) {
            idle[i] = new Socket(address.getHost(), address.getPort());
            idle[i].getOutputStream()
                    .write(
                            utf8(
                                    "POST /desk HTTP/1.1\r\nHost: x\r\nContent-Type: text/xml\r\nContent-Length: 900\r\n\r\n<e"));
            idle[i].getOutputStream().flush();
        }
        assertThat(office.calls("list", office.address())).isEqualTo("3 berths");
        for (Socket socket : idle) {
            socket.close();
        }
    }
}
