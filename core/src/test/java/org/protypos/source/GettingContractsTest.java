package org.protypos.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.Finding;
import org.protypos.source.fetch.Remote;
import org.protypos.source.fetch.Web;
import org.protypos.source.fetch.WebPage;

/** Contracts from web servers that behave as real ones do, and from archives. */
class GettingContractsTest {
    private static final String SCHEMA = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'/>";

    private final AtomicInteger asked = new AtomicInteger();
    private HttpServer server;
    private String base;

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        base = "http://localhost:" + server.getAddress().getPort();
        server.createContext("/", this::answer);
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private void answer(HttpExchange exchange) throws IOException {
        Headers sent = exchange.getRequestHeaders();
        String shown = String.valueOf(sent.getFirst("Authorization"));
        String path = exchange.getRequestURI().getPath();
        int number = asked.incrementAndGet();
        String body = SCHEMA;
        int status = 200;
        String type = "text/xml";
        switch (path) {
            case "/guarded" -> status = shown.equals("Basic YWRhOnM=") || shown.equals("Bearer t1") ? 200 : 401;
            case "/elsewhere" -> {
                status = 302;
                String other = base.replace("localhost", "127.0.0.1") + "/bare";
                exchange.getResponseHeaders().set("Location", other);
            }
            case "/gone/The Crane.xsd" -> status = 404;
            case "/bare" -> body = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' id='" + shown + "'/>";
            case "/round" -> {
                status = 302;
                exchange.getResponseHeaders().set("Location", "/round");
            }
            case "/file" -> {
                status = 302;
                exchange.getResponseHeaders().set("Location", "file:///etc/passwd");
            }
            case "/busy" -> status = number < 3 ? 503 : 200;
            case "/down" -> status = 502;
            case "/login" -> {
                type = "text/html";
                body =
                        "<!DOCTYPE html><html><title> Please\n log in</title><form><input type='password'></form></html>";
            }
            case "/page" -> body = "<html><a href='/desk?wsdl&amp;v=1'>the contract</a></html>";
            case "/drip" -> {
                exchange.sendResponseHeaders(200, 0);
                drip(exchange);
                return;
            }
            case "/other" -> body = "<?xml version='1.0'?>\n<html xmlns='http://www.w3.org/1999/xhtml'/>";
            default -> status = 404;
        }
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        if (path.equals("/guarded") && "gzip".equals(sent.getFirst("Accept-Encoding"))) {
            ByteArrayOutputStream packed = new ByteArrayOutputStream();
            try (GZIPOutputStream stream = new GZIPOutputStream(packed)) {
                stream.write(bytes);
            }
            bytes = packed.toByteArray();
            exchange.getResponseHeaders().set("Content-Encoding", "gzip");
        }
        exchange.getResponseHeaders().set("Content-Type", type);
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    /** A byte now and then, so that no single one of them is late. */
    private static void drip(HttpExchange exchange) throws IOException {
        try (exchange) {
            for (int i = 0; i < 400; i++) {
                exchange.getResponseBody().write(SCHEMA.charAt(i % SCHEMA.length()));
                exchange.getResponseBody().flush();
                Thread.sleep(50);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private String fetch(String path, Map<String, String> environment) throws IOException {
        Web web = new Web(environment);
        return new String(web.fetch(web.name(URI.create(base + path))), StandardCharsets.UTF_8);
    }

    /** Who asks is shown to the servers that somebody has named: another port is another server, and a document names nobody. */
    @Test
    void secretsGoToTheOriginThatWasNamed(@TempDir Path home) throws IOException {
        Web web = new Web(Map.of("PROTYPOS_TOKEN", "t1"));
        web.name(URI.create("http://localhost:1/desk"));
        assertThat(new String(web.fetch(URI.create(base + "/bare")), StandardCharsets.UTF_8))
                .contains("id='null'");
        assertThat(new String(web.fetch(web.name(URI.create(base + "/bare"))), StandardCharsets.UTF_8))
                .contains("id='Bearer t1'");
        Path local = Files.writeString(
                home.resolve("a.xsd"),
                "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'><xs:include schemaLocation='" + base
                        + "/guarded'/></xs:schema>");
        assertThat(DocumentGatherer.gather(List.of(local.toString()), null).findings())
                .extracting(finding -> finding.message())
                .singleElement()
                .asString()
                .contains("HTTP status 401");
    }

    /** Bytes that are none in the encoding of a document are told with their place; a replacement character may be meant. */
    @ParameterizedTest
    @CsvSource({"UTF-8, 1:115 byte 115", "ISO-8859-1, ''"})
    void bytesThatAreNoTextAreTold(String encoding, String told, @TempDir Path home) throws IOException {
        String schema = "<?xml version='1.0' encoding='" + encoding
                + "'?><xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'><xs:element name='caf\u00e9'/></xs:schema>";
        Path file = Files.write(home.resolve("a.xsd"), schema.getBytes(StandardCharsets.ISO_8859_1));
        String found = DocumentGatherer.gather(List.of(file.toString()), null).findings().stream()
                .map(finding -> finding.code() + " " + finding.place().line() + ":"
                        + finding.place().column() + " " + finding.message().replaceFirst(" of the.*", ""))
                .collect(Collectors.joining());
        assertThat(found).isEqualTo(told.isEmpty() ? "" : "encoding " + told);
        Files.writeString(file, SCHEMA + "<!-- \ufffd -->");
        assertThat(DocumentGatherer.gather(List.of(file.toString()), null).findings())
                .isEmpty();
    }

    @Test
    void aPasswordInAnAddressIsUsedThereAndShownNowhere() throws IOException {
        String address = base.replace("://", "://ada:s@") + "/guarded";
        Documents documents = DocumentGatherer.gather(List.of(address), null);
        assertThat(documents.findings()).isEmpty();
        assertThat(documents.all())
                .extracting(document -> document.location().toString())
                .containsExactly(base + "/guarded");
        Documents wrong = DocumentGatherer.gather(List.of(address.replace("ada:s", "ada:wrong")), null);
        assertThat(wrong.findings().toString()).contains("401").doesNotContain("wrong");
    }

    @Test
    void secretsComeFromTheEnvironmentOrNetrcAndStayWithTheirHost(@TempDir Path home) throws IOException {
        Path netrc = Files.writeString(
                home.resolve("netrc"),
                "# mine\nmachine other.example login x password y\nmachine localhost\n  login ada\n  password s\n");
        Map<String, String> byFile = Map.of("NETRC", netrc.toString());
        assertThat(fetch("/guarded", byFile)).isEqualTo(SCHEMA);
        assertThat(fetch("/guarded", Map.of("PROTYPOS_TOKEN", "t1"))).isEqualTo(SCHEMA);
        assertThat(fetch("/guarded", Map.of("PROTYPOS_USER", "ada", "PROTYPOS_PASSWORD", "s")))
                .isEqualTo(SCHEMA);
        assertThat(fetch("/elsewhere", Map.of("PROTYPOS_TOKEN", "t1"))).contains("id='null'");
        assertThat(fetch("/elsewhere", byFile)).contains("id='null'");
    }

    @Test
    void whatIsOverSoonIsTriedAgain() throws IOException {
        assertThat(fetch("/busy", Map.of())).isEqualTo(SCHEMA);
        assertThat(asked).hasValue(3);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "/guarded | the server answered with HTTP status 401: put user and password for localhost into ~/.netrc,"
                        + " or set PROTYPOS_TOKEN",
                "/down | the server answered with HTTP status 502, 3 times",
                "/round | it is redirected more than 10 times",
                "/file | it is redirected to \"file:///etc/passwd\", which is not followed",
                "/login | the answer is a web page titled \"Please log in\" that asks for a password; put user and"
                        + " password for localhost into ~/.netrc, or save the contract with your browser and name the file",
                "/page | the answer is a web page that links to BASE/desk?wsdl&v=1; give that address",
                "/other | the answer is a web page, not a contract; a service often shows its contract when a query is"
                        + " added to its address",
                "/nothing | the server answered with HTTP status 404"
            })
    void whatIsNoContractIsNamed(String path, String why) {
        assertThatThrownBy(() -> fetch(path, Map.of()))
                .isInstanceOf(IOException.class)
                .hasMessage(why.replace("BASE", base));
    }

    /** What a server says of its answer need not be so. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Content-Length: 99999999999999999999 | the connection broke off, 3 times",
                "Content-Length: 99999 | the connection broke off, 3 times",
                "Transfer-Encoding: chunked | the connection broke off, 3 times",
                "Content-Encoding: gzip | the data are not packed with gzip",
                "Content-Encoding: br | it is packed with \"br\"; gzip alone can be read",
                "Content-Encoding: utf-8 | read",
            })
    void answersThatAreNotWhatTheySay(String head, String told) throws Exception {
        byte[] answer = ("HTTP/1.1 200 OK\r\nContent-Type: text/xml\r\nConnection: close\r\n" + head + "\r\n\r\n"
                        + SCHEMA)
                .getBytes(StandardCharsets.UTF_8);
        try (ServerSocket server = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
            Thread answering = new Thread(() -> {
                while (!server.isClosed()) {
                    try (Socket socket = server.accept()) {
                        socket.getInputStream().read(new byte[4000]);
                        socket.getOutputStream().write(answer);
                    } catch (IOException e) {
                        // The end of the test, or of what the client wanted.
                    }
                }
            });
            answering.start();
            URI address = URI.create("http://localhost:" + server.getLocalPort() + "/");
            String end;
            try {
                end = new String(new Web(Map.of()).fetch(address), StandardCharsets.UTF_8).replace(SCHEMA, "read");
            } catch (IOException e) {
                end = e.getMessage();
            }
            assertThat(end).isEqualTo(told);
        }
    }

    @Test
    @Timeout(15)
    void aDocumentThatDripsIsEnded() {
        Web web = new Web(Map.of(), Duration.ofSeconds(1));
        assertThatThrownBy(() -> web.fetch(URI.create(base + "/drip")))
                .isInstanceOf(IOException.class)
                .hasMessage("it did not come to its end within 1 seconds");
    }

    @ParameterizedTest
    @Timeout(5)
    @ValueSource(
            strings = {"<input ", "<title ", "<a href='x", "<a href='.xsd.xsd", "<input type=", "<!doctype", "<", " "})
    void pagesAreRecognisedQuickly(String repeated) {
        byte[] page = ("<html>" + repeated.repeat(400_000)).getBytes(StandardCharsets.UTF_8);
        assertThat(WebPage.complaint(page, "text/html", URI.create(base))).startsWith("the answer is a web page");
    }

    /** Whoever names a file has not asked for what it leads to on some server. */
    @Test
    void whatIsFetchedFromServersThatNobodyNamedIsTold(@TempDir Path home) throws IOException {
        Path local = Files.writeString(
                home.resolve("local.xsd"),
                SCHEMA.replace("/>", "><xs:include schemaLocation='" + base + "/bare'/></xs:schema>"));
        List<String> told = new ArrayList<>();
        Remote telling = (address, named) -> {
            told.add(address + " " + named);
            return null;
        };
        assertThat(DocumentGatherer.gather(List.of(local.toString()), null, telling)
                        .all())
                .hasSize(2);
        assertThat(DocumentGatherer.gather(List.of(base + "/bare"), null, telling)
                        .all())
                .hasSize(1);
        assertThat(told).containsExactly(base + "/bare false", base + "/bare true");
        int before = asked.get();
        Documents offline = DocumentGatherer.gather(List.of(local.toString()), null, (address, named) -> "not now");
        assertThat(offline.findings())
                .extracting(finding -> finding.message())
                .containsExactly("the document " + base + "/bare cannot be read: not now");
        assertThat(asked.get()).isEqualTo(before);
    }

    @Test
    void catalogsLeadToFilesAlone(@TempDir Path home) throws IOException {
        String catalog = "<catalog xmlns='urn:oasis:names:tc:entity:xmlns:xml:catalog'>%s</catalog>";
        Files.writeString(home.resolve("inner.xml"), catalog.formatted("<uri name='urn:x' uri='x.xsd'/>"));
        Files.writeString(home.resolve("x.xsd"), SCHEMA);
        Path outer = Files.writeString(
                home.resolve("outer.xml"),
                catalog.formatted(
                        "\n<nextCatalog catalog='inner.xml'/><group><delegateURI uriStartString='urn:y' catalog='"
                                + base + "/catalog'/></group><uri name='urn:z' uri='::'/>"));
        Path contract = Files.writeString(
                home.resolve("contract.xsd"),
                SCHEMA.replace(
                        "/>",
                        "><xs:include schemaLocation='urn:x'/><xs:import namespace='urn:y'/>"
                                + "<xs:import namespace='urn:z'/></xs:schema>"));
        Documents documents = DocumentGatherer.gather(List.of(contract.toString()), outer);
        assertThat(documents.all()).extracting(Document::name).containsExactly("contract.xsd", "x.xsd");
        assertThat(documents.findings())
                .extracting(finding -> finding.code() + " " + finding.place().line() + " " + finding.message())
                .containsExactly("catalog-remote 2 the catalog leads to " + base
                        + "/catalog, which is no file of this machine and is not asked");
        assertThat(asked.get()).isZero();
    }

    @Test
    void whatWasMailedWithAContractIsOffered(@TempDir Path home) throws IOException {
        Path desk = Files.writeString(
                home.resolve("desk.xsd"),
                "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'>"
                        + "<xs:include schemaLocation='parts/berths.XSD'/><xs:include schemaLocation='parts/quay.xsd'/></xs:schema>");
        Path parts = Files.createDirectory(home.resolve("parts"));
        Files.writeString(
                parts.resolve("quay.xsd"),
                SCHEMA.replace(
                        "/>",
                        "><xs:include schemaLocation='ftp://files.example/a.xsd'/><xs:include schemaLocation='" + base
                                + "/gone/The%20Crane.xsd?a=1&amp;b=2'/></xs:schema>"));
        Files.writeString(parts.resolve("the crane.xsd"), SCHEMA);
        Files.writeString(parts.resolve("Berths.xsd"), SCHEMA);
        List<String> cures = cures(desk);
        assertThat(cures)
                .hasSize(3)
                .anyMatch(cure -> cure.startsWith("write Berths.xsd, as the file is called that lies there"))
                .anyMatch(cure -> cure.startsWith("save it there"));
        String offered = cures.stream()
                .filter(cure -> cure.contains("<catalog"))
                .findFirst()
                .orElseThrow();
        assertThat(offered)
                .startsWith("if parts/the crane.xsd is that document, say so in a catalog.xml beside the contract");
        Files.writeString(home.resolve("catalog.xml"), offered.substring(offered.indexOf('<')));
        assertThat(cures(desk)).hasSize(2).noneMatch(cure -> cure.contains("<catalog"));
        Files.delete(home.resolve("catalog.xml"));
        Files.move(parts.resolve("the crane.xsd"), home.resolve("The Crane.xsd"));
        String asked = cures(desk).stream()
                .filter(cure -> cure.contains("<catalog"))
                .findFirst()
                .orElseThrow();
        assertThat(asked).startsWith("save it as The Crane.xsd beside the contract, and say so in a catalog.xml there");
        Files.writeString(home.resolve("catalog.xml"), asked.substring(asked.indexOf('<')));
        assertThat(cures(desk)).hasSize(2);
    }

    private static List<String> cures(Path contract) {
        return DocumentGatherer.gather(List.of(contract.toString()), null).findings().stream()
                .map(Finding::cure)
                .toList();
    }

    @Test
    void anArchiveIsReadWithoutUnpackingIt(@TempDir Path home) throws IOException {
        Path zip = home.resolve("bay contract.zip");
        try (ZipOutputStream stream = new ZipOutputStream(Files.newOutputStream(zip))) {
            entry(
                    stream,
                    "a/desk.wsdl",
                    "<definitions xmlns='http://schemas.xmlsoap.org/wsdl/'><types>"
                            + "<schema xmlns='http://www.w3.org/2001/XMLSchema'>"
                            + "<include schemaLocation='../types%20of/b.xsd'/></schema></types></definitions>");
            entry(
                    stream,
                    "types of/b.xsd",
                    "<schema xmlns='http://www.w3.org/2001/XMLSchema'>"
                            + "<include schemaLocation='../../../../../../etc/passwd'/>"
                            + "<include schemaLocation='zip:/tmp/x.zip/!/y.xsd'/></schema>");
            entry(stream, "../out.xsd", SCHEMA);
        }
        Documents documents = DocumentGatherer.gather(List.of(zip.toString()), null);
        assertThat(documents.all()).extracting(Document::name).containsExactly("a/desk.wsdl", "types%20of/b.xsd");
        assertThat(documents.findings())
                .extracting(finding -> finding.code() + " " + finding.message().replaceAll("zip:[^ ]*/", ""))
                .containsExactly(
                        "document-unreachable the document passwd cannot be read: it lies in no archive of the contract",
                        "document-unreachable the document y.xsd cannot be read: it lies in no archive of the contract");
    }

    private static void entry(ZipOutputStream to, String name, String text) throws IOException {
        to.putNextEntry(new ZipEntry(name));
        to.write(text.getBytes(StandardCharsets.UTF_8));
        to.closeEntry();
    }
}
