package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.CSharp;
import org.protypos.testing.ForeignPeer;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.RandomEncodedService;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;

/**
 * Random services in the SOAP encoding between two ends that are none of ours. What comes out is read by a few lines that know the
 * encoding and no contract, and has to say what went in.
 */
class RandomEncodedServiceTest {
    private static final String ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";

    private final HttpClient http = HttpClient.newHttpClient();
    private ForeignPeer peer;

    @BeforeEach
    void listen() throws IOException {
        peer = new ForeignPeer();
    }

    @AfterEach
    void close() {
        peer.close();
    }

    private String post(String address, String envelope, RandomEncodedService.Operation operation) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", "text/xml; charset=utf-8")
                .header("SOAPAction", "\"urn:do/" + operation.name() + "\"")
                .POST(HttpRequest.BodyPublishers.ofString(envelope))
                .build();
        return http.send(request, HttpResponse.BodyHandlers.ofString()).body();
    }

    private static List<Element> children(Element parent) {
        List<Element> children = new ArrayList<>();
        for (Node at = parent.getFirstChild(); at != null; at = at.getNextSibling()) {
            if (at instanceof Element child) {
                children.add(child);
            }
        }
        return children;
    }

    private static String said(String envelope) throws Exception {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Element root = factory.newDocumentBuilder()
                .parse(new InputSource(new StringReader(envelope)))
                .getDocumentElement();
        Map<String, Element> targets = new HashMap<>();
        collect(root, targets);
        StringBuilder said = new StringBuilder();
        for (Element part : children(children(children(root).get(0)).get(0))) {
            say(part.getLocalName(), part, targets, said);
        }
        return said.toString();
    }

    private static void collect(Element element, Map<String, Element> targets) {
        targets.put("#" + element.getAttribute("id"), element);
        children(element).forEach(child -> collect(child, targets));
    }

    private static void say(String name, Element referring, Map<String, Element> targets, StringBuilder to) {
        Element element = referring;
        while (element.hasAttribute("href")) {
            element = targets.get(element.getAttribute("href"));
        }
        to.append(name).append('=');
        String array = element.getAttributeNS(ENCODING, "arrayType");
        String type = element.getAttributeNS(XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI, "type");
        boolean isStructure = type.contains(":") && "urn:n".equals(named(element, type));
        if (!element.getAttributeNS(XMLConstants.W3C_XML_SCHEMA_INSTANCE_NS_URI, "nil")
                .isEmpty()) {
            to.append("nil;");
        } else if (children(element).isEmpty() && array.isEmpty() && !isStructure) {
            to.append('"').append(element.getTextContent()).append("\";");
        } else {
            assertThat(array.isEmpty() ? "" : named(element, array)).as(array).isNotNull();
            to.append('{');
            for (Element child : children(element)) {
                say(array.isEmpty() ? child.getLocalName() : "*", child, targets, to);
            }
            to.append('}');
        }
    }

    private static String named(Element element, String name) {
        return element.lookupNamespaceURI(name.substring(0, name.indexOf(':')));
    }

    private static void judge(String came, RandomEncodedService.Carried sent) throws Exception {
        assertThat(said(came)).as(sent.envelope() + " became " + came).isEqualTo(sent.said());
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
    void generatedJavaCarriesThem(long seed, @TempDir Path folder) throws Exception {
        RandomEncodedService random = new RandomEncodedService(seed);
        try (Generated generated = Generated.from(random.layOut(folder), folder.resolve("out"), null)) {
            GeneratedEnds ends = new GeneratedEnds(generated);
            PlannedService service = generated.plan().services().get(0);
            PlannedService.Port port = service.ports().get(0);
            try (AutoCloseable server = ends.serve(port.type())) {
                Object client = ends.client(port.type(), service, port, peer.address(), false);
                String address = GeneratedEnds.address(server);
                for (RandomEncodedService.Operation operation : random.operations()) {
                    CalledOperation called = ends.called(port, operation.name());
                    PlannedOperation api = GeneratedEnds.operation(port.type(), called);
                    for (int i = 0; i < 4; i++) {
                        RandomEncodedService.Carried request = random.request(operation);
                        RandomEncodedService.Carried answered = random.answer(operation);
                        peer.answer(200, null, answered.envelope().getBytes(StandardCharsets.UTF_8));
                        // Whatever it answers: what it was asked is passed on first.
                        ends.results().put(api.method(), new IllegalStateException("not asked yet"));
                        ends.forget();
                        post(address, request.envelope(), operation);
                        assertThat(ends.seen()).as(request.envelope()).isNotNull();
                        ends.results().put(api.method(), ends.call(port.type(), api, client, ends.seen()));
                        judge(peer.asked().text(), request);
                        judge(post(address, request.envelope(), operation), answered);
                    }
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {11, 12, 13, 14})
    void generatedCSharpCarriesThem(long seed, @TempDir Path folder) throws Exception {
        CSharp.assumed();
        RandomEncodedService random = new RandomEncodedService(seed);
        Path contract = random.layOut(folder);
        Path compiled = Files.createDirectories(folder.resolve("compiled"));
        PlannedService service = CSharp.service(contract, compiled);
        List<String> stop = CSharp.stop(service, service.ports().get(0), "/q", peer.address());
        try (CSharp.Program relay = CSharp.relay(compiled, List.of(stop))) {
            for (RandomEncodedService.Operation operation : random.operations()) {
                for (int i = 0; i < 4; i++) {
                    RandomEncodedService.Carried request = random.request(operation);
                    RandomEncodedService.Carried answered = random.answer(operation);
                    peer.answer(200, null, answered.envelope().getBytes(StandardCharsets.UTF_8));
                    String came = post(relay.address("/q"), request.envelope(), operation);
                    assertThat(peer.asked())
                            .as(request.envelope() + " was answered " + came)
                            .isNotNull();
                    judge(peer.asked().text(), request);
                    judge(came, answered);
                }
            }
            assertThat(relay.said()).isEmpty();
        }
    }
}
