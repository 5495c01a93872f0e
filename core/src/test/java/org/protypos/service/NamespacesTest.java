package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.StringReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.message.check.ContractCheck;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.Infoset;
import org.w3c.dom.Node;
import org.w3c.dom.NodeList;
import org.xml.sax.InputSource;

/**
 * Content of which a contract knows nothing, with prefixes that hide each other in elements, attributes and text: it means the same
 * after every kind of end has read and written it. What a text means the platform's parser says.
 */
class NamespacesTest {
    /** A name with combining marks, which are no letters. */
    private static final String MARKED = "\u0915\u093e\u092b\u093c\u0940";

    private static final Path CONTRACT = Path.of("src/test/resources/wire/strain.wsdl");

    @TempDir
    private Path folder;

    private final Random random = new Random(20261202);
    private final BlockingQueue<String> received = new LinkedBlockingQueue<>();
    private final HttpClient client = HttpClient.newHttpClient();
    private HttpServer sink;

    @BeforeEach
    void listen() throws IOException {
        sink = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        sink.createContext("/", exchange -> {
            received.add(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
            exchange.sendResponseHeaders(202, -1);
            exchange.close();
        });
        sink.start();
    }

    @AfterEach
    void close() {
        sink.stop(0);
    }

    private String address() {
        return "http://127.0.0.1:" + sink.getAddress().getPort() + "/";
    }

    private String any(List<String> texts) {
        return texts.get(random.nextInt(texts.size()));
    }

    /** An element with others in it; prefixes that we would make up ourselves are among those that it declares. */
    private String element(int depth) {
        StringBuilder tag = new StringBuilder();
        for (String prefix : List.of("", "n1", "n2", "h1", "h3", "soap")) {
            if (random.nextInt(3) == 0) {
                boolean none = prefix.isEmpty() && random.nextInt(3) == 0;
                tag.append(prefix.isEmpty() ? " xmlns='" : " xmlns:" + prefix + "='")
                        .append(none ? "" : "urn:" + random.nextInt(3))
                        .append('\'');
            }
        }
        String name = any(depth == 0 ? List.of("n1:c", "n2:d") : List.of("a", "b", "n1:c", "n2:d", "h1:e", "h3:f"));
        if (random.nextBoolean()) {
            tag.append(' ').append(any(List.of("x", "n1:x", "h1:x", "h3:x"))).append("='");
            tag.append(any(List.of("h1:v", "n2:v", "soap:v", "plain"))).append('\'');
        }
        if (random.nextInt(10) == 0) {
            tag.append(" xmlns:i='http://www.w3.org/2001/XMLSchema-instance' i:type='");
            tag.append(any(List.of("n1:t", "u", MARKED))).append('\'');
        }
        StringBuilder content = new StringBuilder();
        for (int i = random.nextInt(4); i > 0; i--) {
            boolean text = depth > 5 || random.nextInt(4) == 0;
            content.append(
                    text
                            ? any(List.of("n1:text ", "h1<![CDATA[:q]]> ", " ", "h3:q n2:q ", " quay <![CDATA[west]]>"))
                            : element(depth + 1));
        }
        return "<" + name + tag + ">" + content + "</" + name + ">";
    }

    private String envelope() {
        return "<s:Envelope xmlns:s='http://schemas.xmlsoap.org/soap/envelope/' xmlns='urn:loft' xmlns:n1='urn:1' xmlns:n2='urn:2'"
                + " xmlns:h1='urn:0' xmlns:h3='urn:1' xmlns:soap='urn:2'><s:Body><store>" + element(0) + element(0)
                + "</store></s:Body></s:Envelope>";
    }

    private void post(String address, String envelope) throws Exception {
        HttpResponse<String> answer = client.send(
                HttpRequest.newBuilder(URI.create(address))
                        .header("Content-Type", "text/xml; charset=utf-8")
                        .header("SOAPAction", "\"urn:store\"")
                        .POST(HttpRequest.BodyPublishers.ofString(envelope))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(answer.statusCode()).as(answer.body() + envelope).isLessThan(300);
    }

    private void judge(String sent) throws Exception {
        String came = received.poll(1, TimeUnit.MINUTES);
        assertThat(came).isNotNull();
        assertThat(Infoset.of(came)).as("%s became %s", sent, came).isEqualTo(Infoset.of(sent));
        assertThat(defaults(came)).as("%s became %s", sent, came).isEqualTo(defaults(sent));
    }

    /** What names without a prefix are in, wherever they stand alone in a text or an attribute. */
    private static List<String> defaults(String document) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        factory.setCoalescing(true);
        NodeList elements = factory.newDocumentBuilder()
                .parse(new InputSource(new StringReader(document)))
                .getElementsByTagName("*");
        List<String> told = new ArrayList<>();
        for (int i = 0; i < elements.getLength(); i++) {
            Node element = elements.item(i);
            boolean names = false;
            for (Node in = element.getFirstChild(); in != null; in = in.getNextSibling()) {
                names |= in.getNodeType() == Node.TEXT_NODE && in.getNodeValue().matches("[\\sa-z]*[a-z][\\sa-z]*");
            }
            for (int k = 0; k < element.getAttributes().getLength(); k++) {
                names |= element.getAttributes().item(k).getNodeValue().matches("plain|u|" + MARKED);
            }
            if (names) {
                String space = element.lookupNamespaceURI(null);
                told.add(element.getLocalName() + " " + (space == null ? "" : space));
            }
        }
        return told;
    }

    @Test
    void generatedJavaReadsAndWritesWhatItDoesNotKnow() throws Exception {
        Generated generated = Generated.from(CONTRACT, folder, null);
        GeneratedEnds ends = new GeneratedEnds(generated);
        PlannedService service = generated.plan().services().get(0);
        PlannedService.Port port = service.ports().get(0);
        PlannedOperation api = port.type().operations().get(0);
        try (AutoCloseable server = ends.serve(port.type())) {
            Object again = ends.client(port.type(), service, port, address(), false);
            for (int i = 0; i < 500; i++) {
                String envelope = envelope();
                post(GeneratedEnds.address(server), envelope);
                ends.call(port.type(), api, again, ends.seen());
                judge(envelope);
            }
        }
    }

    @Test
    void aCallSendsItAsItIs() throws Exception {
        Generated generated = Generated.from(CONTRACT, folder, null);
        CalledOperation called = CalledOperation.of(generated.contract()).get(0);
        ContractCheck check = new ContractCheck(generated.contract());
        for (int i = 0; i < 200; i++) {
            String envelope = envelope();
            assertThat(new Caller(called, check, with -> with.address(address()))
                            .call(envelope)
                            .failure())
                    .isNull();
            judge(envelope);
        }
    }

    @Test
    void generatedCSharpReadsAndWritesWhatItDoesNotKnow() throws Exception {
        CSharp.assumed();
        Files.createDirectories(folder);
        PlannedService service = CSharp.service(CONTRACT, folder);
        PlannedService.Port port = service.ports().get(0);
        try (CSharp.Program relay = CSharp.relay(folder, List.of(CSharp.stop(service, port, "/loft", address())))) {
            for (int i = 0; i < 300; i++) {
                String envelope = envelope();
                post(relay.address("/loft"), envelope);
                judge(envelope);
            }
            assertThat(relay.said()).isEmpty();
        }
    }
}
