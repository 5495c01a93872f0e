package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.URL;
import java.net.URLClassLoader;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Generated;
import org.protypos.testing.HarbourOffice;
import org.protypos.testing.Infoset;

/** The harbour desk over real HTTP: the generated client and server, and each against a peer written by hand. */
class ServiceTest {
    private static final String SOAP11 = "http://schemas.xmlsoap.org/soap/envelope/";
    private static final String SOAP12 = "http://www.w3.org/2003/05/soap-envelope";
    private static final String DESK = "http://lanternbay.example/harbour/desk";

    @TempDir
    private static Path folder;

    private static HarbourOffice office;

    @BeforeAll
    static void open() throws Exception {
        office = HarbourOffice.open(folder);
    }

    @AfterAll
    static void close() throws Exception {
        office.close();
    }

    /** Each failure has a reference of its own. */
    private static String settled(String told) {
        return told.replaceAll("\\(reference [0-9a-f]{8}\\)", "(reference 0)");
    }

    @ParameterizedTest
    @CsvSource({"false, false, Server", "false, true, Receiver", "true, false, Server", "true, true, Receiver"})
    void theGeneratedClientCallsTheGeneratedServer(boolean contained, boolean soap12, String receiver)
            throws Exception {
        String address = contained ? office.containedAddress() : office.address();
        assertThat(settled(office.calls("all", address, soap12))).isEqualTo("""
                        2027-05-09T24:00:00
                        Tanker{callSign=LB9T, name=Mellow Drop, lengthInMetres=96.0, draughtInMetres=7.8, \
                        flag=LANTERN_COAST, cargo=rape oil, cubicMetres=5400}
                        null
                        %s NoBerthFree{waiting=2, nextFree=2027-05-11T06:00:00Z}
                        NoBerthFreeFault
                        PayDuesResult[receiptNumber=270451, paidOn=2027-05-09]
                        the service answered payDues with the fault %s: the service failed (reference 0)
                        3
                        """.formatted(receiver, receiver));
    }

    /** Only what is thrown for the caller is told. */
    @Test
    void whatAnImplementationThrowsIsItsOwnAffair() throws Exception {
        assertThat(settled(office.calls("thrown"))
                        .replaceAll("\\[\\{[^}]*}|]", "")
                        .replace("the service answered listBerths with", "answered"))
                .isEqualTo("""
                        fault Server: answered the fault Server: the service failed (reference 0)
                        fault Server: answered the fault Server: the service failed (reference 0)
                        fault Client: answered the fault Client: no berth 4
                        fault Server: answered the fault Server: castOff is not implemented
                        """);
    }

    /** SOAP 1.2 has a general code and others below it; SOAP 1.1 has one code alone. */
    @Test
    void aServerSaysWhoIsToBlameForADeclaredFault() throws Exception {
        assertThat(office.calls("blamed", false)).isEqualTo("""
                        [{urn:lanternbay}needs] ask for less
                        [{http://schemas.xmlsoap.org/soap/envelope/}Server] ask for less
                        """);
        assertThat(office.calls("blamed", true)).isEqualTo("""
                        [{http://www.w3.org/2003/05/soap-envelope}Sender, {urn:lanternbay}needs] ask for less
                        [{http://www.w3.org/2003/05/soap-envelope}Receiver] ask for less
                        """);
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void everyShapeOfDocumentLiteralOperationCanBeCalled(boolean soap12, @TempDir Path home) throws Exception {
        Generated.from(Path.of("src/test/resources/gauge/gauge.wsdl"), home, null)
                .close();
        Path calls = Files.createDirectories(home.resolve("sources/tide")).resolve("GaugeCalls.java");
        Files.copy(Path.of("src/test/resources/gauge/GaugeCalls.java"), calls);
        assertThat(Generated.compile(home.resolve("sources"), home.resolve("classes")))
                .isEmpty();
        URL[] path = {home.resolve("classes").toUri().toURL()};
        try (URLClassLoader gauge = new URLClassLoader(path, ClassLoader.getPlatformClassLoader())) {
            Object told = gauge.loadClass("tide.GaugeCalls")
                    .getMethod("all", boolean.class)
                    .invoke(null, soap12);
            assertThat(told).isEqualTo("""
                            1.50
                            null
                            low mud & <weed>
                            RED
                            GREEN
                            [-1, 2]
                            XmlSimple{int=5}
                            Reading{by=me, at=12:00:00}
                            NoteResult[reading=Reading{at=24:00:00}, colour=GREEN, station=9]
                            NoteResult[reading=Reading{at=01:00:00Z}, colour=GREEN, station=null]
                            SwapResult[value=false, more=[3, 3]]
                            SwapResult[value=true, more=[]]
                            SwapResult{n=2}
                            sizes [7]
                            note Reading{at=24:00:00} RED 8
                            note Reading{at=01:00:00Z} null null
                            reset
                            restart
                            notify 9
                            """);
        }
    }

    @Test
    void settingsAreSeenOnTheWireAndStrangeAnswersAreNamed() throws Exception {
        Object told =
                office.load("example.lanternbay.office.Wire").getMethod("all").invoke(null);
        assertThat(told).isEqualTo("""
                        [] null false
                        Bearer t0ken true
                        Basic YWRhOnA6dw== false
                        []
                        urn:trace 42 true pl41n
                        logged secrets: false, logged: request of listBerths, blanked: ***
                        [] signed listBerths of HarbourOffice listQuays
                        200 the answer to listBerths from http://peer/desk is no SOAP message \
                        (HTTP 200, text/html, starts with: <html><body>Please log in</body></html>)
                        500 the answer to listBerths from http://peer/desk is no SOAP message (HTTP 500, text/xml, empty)
                        502 the answer to listBerths from http://peer/desk is no SOAP message \
                        (HTTP 502, text/plain, starts with: bad gateway)
                        200 the answer to listBerths (HTTP 200) cannot be read: it ends \
                        inside a tag (line 1, column 150, at /Envelope)
                        200 the answer to listBerths (HTTP 200) cannot be read: expected <listBerthsResponse>, \
                        but <listBerthsAnswer> came (line 1, column 139, at /Envelope/Body/listBerthsAnswer)
                        200 the answer to listBerths from http://peer/desk is no SOAP message: the root element is <contract> \
                        of namespace "", not a SOAP envelope (HTTP 200, text/xml, starts with: <contract/>)
                        """);
    }

    @Test
    void remoteProcedureCallsAndBodiesOfSeveralElementsCanBeCalled(@TempDir Path home) throws Exception {
        Generated.from(Path.of("../examples/tide/tide.wsdl"), home, null).close();
        Path calls = Files.createDirectories(home.resolve("sources/house")).resolve("TideCalls.java");
        Files.copy(Path.of("src/test/resources/tide/TideCalls.java"), calls);
        assertThat(Generated.compile(home.resolve("sources"), home.resolve("classes")))
                .isEmpty();
        URL[] path = {home.resolve("classes").toUri().toURL()};
        try (URLClassLoader tide = new URLClassLoader(path, ClassLoader.getPlatformClassLoader())) {
            Object told = tide.loadClass("house.TideCalls").getMethod("all").invoke(null);
            assertThat(told).isEqualTo("""
                            ReadTideResult[mark=42, reading=Reading{at=2027-05-09T24:00:00, level=4.20, trend=RISING}]
                            dry since spring / no water
                            3.10001
                            no difference Reading{at=2027-05-09T06:00:00Z, level=3}
                            7
                            <?xml version="1.0" encoding="UTF-8"?>
                            <soap:Envelope xmlns:soap="http://schemas.xmlsoap.org/soap/envelope/" \
                            xmlns:n2="http://lanternbay.example/tide/calls"><soap:Body><n2:readTideResponse>\
                            <reading><at>2027-05-09T24:00:00</at><level>4.20</level><trend>rising</trend></reading>\
                            <mark>2</mark></n2:readTideResponse></soap:Body></soap:Envelope>
                            true
                            <?xml version="1.0" encoding="UTF-8"?>
                            <soap:Envelope xmlns:soap="http://schemas.xmlsoap.org/soap/envelope/"><soap:Body><soap:Fault>\
                            <faultcode>soap:Client</faultcode><faultstring>expected &lt;mark&gt;, but the element ends \
                            (line 1, column 165, at /Envelope/Body/readTide)</faultstring></soap:Fault></soap:Body></soap:Envelope>
                            reset
                            ticket 12
                            ticket null
                            first Reading{at=2027-05-09T06:00:00Z, level=2}
                            """);
        }
    }

    /** Generates from a contract, compiles a caller beside it and gives what the caller tells. */
    private static String told(Path contract, Path home, String caller) throws Exception {
        Generated.from(contract, home, null).close();
        Path source = Path.of("src/test/resources").resolve(caller + ".java");
        String name = source.getFileName().toString();
        Files.copy(
                source, Files.createDirectories(home.resolve("sources/caller")).resolve(name));
        assertThat(Generated.compile(home.resolve("sources"), home.resolve("classes")))
                .isEmpty();
        String packageName = Files.readString(source).split("[ ;]")[1];
        URL[] path = {home.resolve("classes").toUri().toURL()};
        try (URLClassLoader loader = new URLClassLoader(path, ClassLoader.getPlatformClassLoader())) {
            return (String) loader.loadClass(packageName + "." + name.replace(".java", ""))
                    .getMethod("all")
                    .invoke(null);
        }
    }

    /** Contracts with a caller each; what it tells when all is well stands beside it. */
    @ParameterizedTest
    @CsvSource({
        "papers/papers.wsdl, papers/PaperCalls",
        "tables/tables.wsdl, tables/TableCalls",
        "harbour/contract/desk.wsdl, security/SecurityCalls",
        "../core/src/test/resources/carried/carried.wsdl, carried/CarriedCalls",
        "../core/src/test/resources/encoded/dues.wsdl, encoded/DuesCalls"
    })
    void callersSeeWhatTheContractsPromise(String contract, String caller, @TempDir Path home) throws Exception {
        String told = settled(told(Path.of("../examples").resolve(contract), home, caller));
        Path expected = Path.of("src/test/resources").resolve(caller + ".txt");
        if (Boolean.getBoolean("expected.write")) {
            Files.writeString(expected, told);
        }
        assertThat(told).isEqualTo(Files.readString(expected));
    }

    private static HttpResponse<String> post(String type, String body, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(office.address()))
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofString(body, StandardCharsets.UTF_8));
        if (headers.length > 0) {
            request.headers(headers);
        }
        return HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private static String envelope(String namespace, String header, String body) {
        return "<e:Envelope xmlns:e='" + namespace + "' xmlns:d='" + DESK + "'>" + header + "<e:Body>" + body
                + "</e:Body></e:Envelope>";
    }

    @Test
    void aPeerWrittenByHandGetsAValidAnswer() throws Exception {
        String request = "<d:findVessel><d:callSign> LB4F </d:callSign></d:findVessel>";
        HttpResponse<String> answer = post("text/xml", envelope(SOAP11, "<e:Header/>", request), "SOAPAction", "\"x\"");
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Content-Type")).contains("text/xml; charset=utf-8");
        String body = answer.body();
        String content = body.substring(body.indexOf("<soap:Body>") + 11, body.indexOf("</soap:Body>"));
        String declarations = body.substring(body.indexOf(" xmlns"), body.indexOf("><soap:Body>"));
        String alone = content.replaceFirst("(<[^ />]+)", "$1" + declarations);
        assertThat(Infoset.complaint(HarbourOffice.EXAMPLE.resolve("contract/desk.xsd"), alone))
                .isNull();
        assertThat(alone).contains("type=\"").contains(":Ferry\"").contains("Aurora");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "500 | Client | no operation takes the element {urn:x}swim | SOAP11 | | <x:swim xmlns:x='urn:x'/>",
                "400 | Sender | no operation takes an empty body | SOAP12 | |",
                "500 | Client | is not a valid int | SOAP11 | | <d:castOff><d:berthNumber>one</d:berthNumber></d:castOff>",
                "400 | Sender | expected <berthNumber> | SOAP12 | | <d:castOff/>",
                "500 | MustUnderstand | header block {urn:x}key is not understood | SOAP11 |"
                        + " <e:Header><key xmlns='urn:x' e:mustUnderstand='1'/></e:Header> |"
                        + " <d:listBerths/>",
                "200 | listBerthsResponse | | SOAP11 |"
                        + " <e:Header><key xmlns='urn:x' e:mustUnderstand='1' e:actor='urn:somebody'/></e:Header> |"
                        + " <d:listBerths/>",
                "200 | payDuesResponse | | SOAP12 |"
                        + " <e:Header><d:pass e:mustUnderstand='true'><d:holder/><d:validUntil>2027-01-01</d:validUntil></d:pass></e:Header> |"
                        + " <d:payDues><d:callSign>LB4F</d:callSign><d:amount>1</d:amount></d:payDues>",
            })
    void theServerAnswersAsTheStandardAsks(
            int status, String has, String says, String version, String header, String body) throws Exception {
        boolean soap11 = version.equals("SOAP11");
        String message = envelope(soap11 ? SOAP11 : SOAP12, header == null ? "" : header, body == null ? "" : body);
        HttpResponse<String> answer = post(soap11 ? "text/xml" : "application/soap+xml; action=\"a\"", message);
        assertThat(answer.body())
                .contains(has)
                .contains(says == null ? "" : says.replace("<", "&lt;").replace(">", "&gt;"));
        assertThat(answer.statusCode()).isEqualTo(status);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "hello",
                "<e:Envelope xmlns:e='urn:soap-9'/>",
                "<!DOCTYPE e [<!ENTITY a 'aaaa'><!ENTITY b '&a;&a;&a;'>]><e>&b;</e>",
                "<!DOCTYPE e SYSTEM 'http://127.0.0.1:1/never.dtd'><e/>",
                "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body>",
                "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Header/></e:Envelope>"
            })
    void messagesThatAreNoneGetAFault(String message) throws Exception {
        HttpResponse<String> answer = post("text/xml; charset=utf-8", message);
        assertThat(answer.statusCode()).isEqualTo(500);
        assertThat(Infoset.of(answer.body())).contains("{" + SOAP11 + "}Fault").doesNotContain("java.");
    }

    @Test
    void deepAndWideMessagesAreRefused() throws Exception {
        String deep = envelope(SOAP11, "", "<d:x>".repeat(100_000));
        assertThat(post("text/xml", deep).body()).contains("Fault");
        String header = "<e:Header>" + "<y>".repeat(1000) + "</y>".repeat(1000) + "</e:Header>";
        assertThat(post("text/xml", envelope(SOAP11, header, "")).body()).contains("deeper than 400 levels");
        StringBuilder wide = new StringBuilder("<e:Header><y");
        for (int i = 0; i < 2000; i++) {
            wide.append(" a").append(i).append("=''");
        }
        assertThat(post("text/xml", envelope(SOAP11, wide + "/></e:Header>", ""))
                        .body())
                .contains("more than 1000 attributes");
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void wrongTypesMethodsAndPathsAreNamed(boolean contained) throws Exception {
        String address = contained ? office.containedAddress() : office.address();
        HttpClient client = HttpClient.newHttpClient();
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address));
        HttpRequest json = request.header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString("{}"))
                .build();
        assertThat(client.send(json, HttpResponse.BodyHandlers.ofString()).statusCode())
                .isEqualTo(415);
        HttpResponse<String> delete = client.send(request.DELETE().build(), HttpResponse.BodyHandlers.ofString());
        assertThat(delete.statusCode()).isEqualTo(405);
        assertThat(delete.headers().firstValue("Allow")).contains("GET, POST");
        assertThat(get(address + "/more").statusCode()).isEqualTo(404);
        assertThat(get(address + "?document=99").statusCode()).isEqualTo(404);
    }

    private static HttpResponse<String> get(String uri) throws Exception {
        return HttpClient.newHttpClient()
                .send(HttpRequest.newBuilder(URI.create(uri)).build(), HttpResponse.BodyHandlers.ofString());
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void theServerPublishesItsContractUnderItsOwnAddress(boolean contained) throws Exception {
        String address = contained ? office.containedAddress() : office.address();
        String wsdl = get(address + "?wsdl").body();
        assertThat(wsdl).contains("location=\"" + address + "\"").doesNotContain("office.lanternbay.example");
        Contract published = ContractReader.read(DocumentGatherer.gather(List.of(address + "?wsdl"), null));
        assertThat(published.findings()).isEmpty();
        Contract original = ContractReader.read(DocumentGatherer.gather(
                List.of(HarbourOffice.EXAMPLE.resolve("contract/desk.wsdl").toString()), null));
        assertThat(published.schema().types().keySet())
                .isEqualTo(original.schema().types().keySet());
        assertThat(published.documents().all()).hasSize(3);
    }

    static Stream<String[]> answers() {
        String fault = "<e:Fault><faultcode>e:Server</faultcode><faultstring>low tide</faultstring></e:Fault>";
        return Stream.of(
                new String[] {
                    "200",
                    "text/html",
                    "<html><body>Sign\n in</body></html>",
                    "200: the answer to listBerths from ADDRESS is no SOAP message (HTTP 200, text/html, starts with: <html><body>Sign in</body></html>)"
                },
                new String[] {
                    "500",
                    "text/xml",
                    "",
                    "500: the answer to listBerths from ADDRESS is no SOAP message (HTTP 500, text/xml, empty)"
                },
                new String[] {
                    "500",
                    "text/xml",
                    envelope(SOAP11, "", fault),
                    "fault [{" + SOAP11 + "}Server]: the service answered listBerths with the fault Server: low tide"
                },
                new String[] {
                    "200",
                    "text/xml",
                    envelope(SOAP11, "", "<d:listBerthsResponse><d:berth/></d:listBerthsResponse>"),
                    "200: the answer to listBerths (HTTP 200) cannot be read: expected <number>, but the element ends (line 1, column 154, at /Envelope/Body/listBerthsResponse/berth)"
                },
                new String[] {
                    "200",
                    "text/xml",
                    "<e:Envelope xmlns:e='" + SOAP11 + "'><e:Bo",
                    "200: the answer to listBerths (HTTP 200) cannot be read: it ends inside the tag <e:Bo> (line 1, column 70, at /Envelope)"
                },
                new String[] {
                    "404",
                    "application/xml",
                    "<missing/>",
                    "404: the answer to listBerths from ADDRESS is no SOAP message: the root element is <missing> of namespace \"\", not a SOAP envelope (HTTP 404, application/xml, starts with: <missing/>)"
                },
                new String[] {"200", "text/xml; charset=\"utf-16be\"", "utf-16", "0 berths"});
    }

    @Test
    void everyAnswerEndsInOneClearException() throws Exception {
        for (String[] answer : answers().toList()) {
            byte[] body = answer[2].equals("utf-16")
                    ? envelope(SOAP11, "", "<d:listBerthsResponse/>").getBytes(StandardCharsets.UTF_16BE)
                    : answer[2].getBytes(StandardCharsets.UTF_8);
            HttpServer peer = peer(Integer.parseInt(answer[0]), answer[1], body, 0);
            String at = "http://127.0.0.1:" + peer.getAddress().getPort() + "/";
            assertThat(office.calls("list", at)).isEqualTo(answer[3].replace("ADDRESS", at));
            peer.stop(0);
        }
    }

    @Test
    void silenceAndNoServerEndInTime() throws Exception {
        HttpServer silent = peer(200, "text/xml", new byte[0], 4_000);
        String at = "http://127.0.0.1:" + silent.getAddress().getPort() + "/";
        assertThat(office.calls("cancel", at)).isEqualTo("cancelled");
        assertThat(office.calls("listAtOnce", at)).isEqualTo("0: listBerths at " + at + ": no answer within 1500 ms");
        silent.stop(0);
        assertThat(office.calls("list", at)).startsWith("0: listBerths at " + at + ": ");
        assertThat(office.calls("list", "desk"))
                .isEqualTo("0: \"desk\" is no address to send to: set one with address(...)");
    }

    private static HttpServer peer(int status, String type, byte[] body, long delay) throws IOException {
        HttpServer peer = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        peer.createContext("/", exchange -> {
            assertThat(exchange.getRequestHeaders().getFirst("X-Agent")).isEqualTo("quill");
            exchange.getRequestBody().readAllBytes();
            pause(delay);
            exchange.getResponseHeaders().set("Content-Type", type);
            exchange.sendResponseHeaders(status, body.length == 0 ? -1 : body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        peer.start();
        return peer;
    }

    private static void pause(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
