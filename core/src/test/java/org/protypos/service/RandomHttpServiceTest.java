package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.URLDecoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.generator.Generator;
import org.protypos.message.check.ContractCheck;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.CSharp;
import org.protypos.testing.ForeignPeer;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomHttpService;

/**
 * Random services of plain HTTP between two ends that are none of ours: what is put together by hand goes into a generated server,
 * from there into a generated client, and has to come out as it went in. A stand-in takes it as well.
 */
class RandomHttpServiceTest {
    private static final InetSocketAddress ANY = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

    private final HttpClient http = HttpClient.newHttpClient();
    private ForeignPeer peer;
    private RandomHttpService.Carried answer;

    @BeforeEach
    void listen() throws IOException {
        peer = new ForeignPeer();
    }

    @AfterEach
    void close() {
        peer.close();
    }

    private void answer(RandomHttpService.Carried next) {
        answer = next;
        peer.answer(200, next.type(), next.body());
    }

    private HttpResponse<byte[]> send(String address, String verb, RandomHttpService.Carried request) throws Exception {
        HttpRequest.Builder sent = HttpRequest.newBuilder(URI.create(address + request.path()))
                .method(
                        verb,
                        request.body().length == 0
                                ? HttpRequest.BodyPublishers.noBody()
                                : HttpRequest.BodyPublishers.ofByteArray(request.body()));
        return http.send(
                (request.type() == null ? sent : sent.header("Content-Type", request.type())).build(),
                HttpResponse.BodyHandlers.ofByteArray());
    }

    /** Fields and paths as they are meant, whatever their order and however they are escaped. */
    private static List<String> meant(String text) {
        List<String> meant = new ArrayList<>();
        for (String one : text.replace("?", "&").split("&")) {
            meant.add(URLDecoder.decode(one, StandardCharsets.UTF_8));
        }
        return meant.stream().sorted().toList();
    }

    private static void same(RandomHttpService.Carried came, RandomHttpService.Carried sent, String about) {
        String text = new String(came.body(), StandardCharsets.UTF_8);
        String wanted = new String(sent.body(), StandardCharsets.UTF_8);
        if (sent.isDocument()) {
            assertThat(Infoset.of(text)).as(about).isEqualTo(Infoset.of(wanted));
        } else if (sent.isForm()) {
            assertThat(meant(text)).as(about).isEqualTo(meant(wanted));
        } else {
            assertThat(came.body()).as(about + ": " + text).isEqualTo(sent.body());
        }
        if (sent.body().length > 0) {
            assertThat(came.type()).as(about).startsWith(sent.type());
        }
    }

    /** What a client sent is for the same place, and has the same in it. */
    private void judge(RandomHttpService.Carried request, String verb, String about) {
        // In a path a plus is itself.
        assertThat(peer.asked()).as(about).isNotNull();
        String target = peer.asked().target();
        String path = target.replaceFirst("[?].*", "").replace("+", "%2B") + target.replaceFirst("^[^?]*", "");
        String wanted = verb + " /p" + request.path().replaceFirst("[?].*", "").replace("+", "%2B")
                + request.path().replaceFirst("^[^?]*", "");
        assertThat(meant(path)).as(about).isEqualTo(meant(wanted));
        same(
                new RandomHttpService.Carried(
                        null, peer.asked().body(), peer.asked().type(), false, false),
                request,
                about);
    }

    private void judge(HttpResponse<byte[]> came, String about) {
        assertThat(came.statusCode())
                .as(about + ": " + new String(came.body(), StandardCharsets.UTF_8))
                .isEqualTo(200);
        String type = came.headers().firstValue("Content-Type").orElse("");
        same(new RandomHttpService.Carried(null, came.body(), type, false, false), answer, about);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void generatedJavaCarriesThem(long seed, @TempDir Path folder) throws Exception {
        RandomHttpService random = new RandomHttpService(seed);
        try (Generated generated = Generated.from(random.layOut(folder), folder.resolve("out"), null)) {
            GeneratedEnds ends = new GeneratedEnds(generated);
            PlannedService service = generated.plan().services().get(0);
            PlannedService.Port port = service.ports().get(0);
            try (AutoCloseable server = ends.serve(port.type());
                    StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, one -> {})) {
                Object client = ends.client(port.type(), service, port, peer.address() + "p/", false);
                for (RandomHttpService.Operation operation : random.operations()) {
                    CalledOperation called = ends.called(port, operation.name());
                    PlannedOperation api = GeneratedEnds.operation(port.type(), called);
                    for (int i = 0; i < 3; i++) {
                        RandomHttpService.Carried request = random.request(operation);
                        String about = random.verb() + " " + operation + " " + request.path();
                        answer(random.answer(operation));
                        ends.forget();
                        send(GeneratedEnds.address(server), random.verb(), request);
                        assertThat(ends.seen()).as(about).isNotNull();
                        ends.results().put(api.method(), ends.call(port.type(), api, client, ends.seen()));
                        judge(request, random.verb(), about);
                        judge(send(GeneratedEnds.address(server), random.verb(), request), about);
                        ends.results().clear();
                        String played = standIn.addresses().get(called.port());
                        assertThat(send(played, random.verb(), request).statusCode())
                                .as(about)
                                .isEqualTo(200);
                    }
                }
            }
        }
    }

    @Test
    void aTextIsNothingButItsValue(@TempDir Path folder) throws Exception {
        Path wsdl = Files.writeString(folder.resolve("notes.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:xs="http://www.w3.org/2001/XMLSchema"
                    xmlns:t="urn:notes" xmlns:h="http://schemas.xmlsoap.org/wsdl/http/"
                    xmlns:m="http://schemas.xmlsoap.org/wsdl/mime/" targetNamespace="urn:notes">
                  <message name="note"><part name="text" type="xs:string"/></message>
                  <portType name="Notes"><operation name="put"><input message="t:note"/><output message="t:note"/></operation></portType>
                  <binding name="B" type="t:Notes"><h:binding verb="POST"/><operation name="put"><h:operation location="/put"/>
                    <input><m:content type="text/plain"/></input><output><m:content type="text/plain"/></output></operation></binding>
                  <service name="S"><port name="P" binding="t:B"><h:address location="http://localhost/notes"/></port></service>
                </definitions>
                """);
        Contract contract = Generator.of(List.of(wsdl.toString())).corrected(new Findings());
        CalledOperation called = CalledOperation.of(contract).get(0);
        try (StandIn standIn = StandIn.serve(contract, ANY, Answers.NONE, one -> {})) {
            byte[] sent = " a\n b ".getBytes(StandardCharsets.UTF_8);
            HttpResponse<byte[]> came = send(
                    standIn.addresses().get(called.port()),
                    "POST",
                    new RandomHttpService.Carried("/put", sent, "text/plain", false, false));
            assertThat(new String(came.body(), StandardCharsets.UTF_8)).isEqualTo(" a\n b ");
        }
        answer(new RandomHttpService.Carried(null, new byte[] {'x'}, "text/plain", false, false));
        new Caller(called, new ContractCheck(contract), with -> with.address(peer.address()))
                .call("<put>\n  <text> a\n b </text>\n</put>");
        assertThat(peer.asked().text()).isEqualTo(" a\n b ");
    }

    @ParameterizedTest
    @ValueSource(longs = {11, 12, 13})
    void generatedCSharpCarriesThem(long seed, @TempDir Path folder) throws Exception {
        CSharp.assumed();
        RandomHttpService random = new RandomHttpService(seed);
        Path contract = random.layOut(folder);
        Path compiled = Files.createDirectories(folder.resolve("compiled"));
        PlannedService service = CSharp.service(contract, compiled);
        List<String> stop = CSharp.stop(service, service.ports().get(0), "/q", peer.address() + "p/");
        try (CSharp.Program relay = CSharp.relay(compiled, List.of(stop))) {
            for (RandomHttpService.Operation operation : random.operations()) {
                for (int i = 0; i < 3; i++) {
                    RandomHttpService.Carried request = random.request(operation);
                    String about = random.verb() + " " + operation + " " + request.path();
                    answer(random.answer(operation));
                    HttpResponse<byte[]> came = send(relay.address("/q"), random.verb(), request);
                    judge(request, random.verb(), about + " " + new String(came.body(), StandardCharsets.UTF_8));
                    judge(came, about);
                }
            }
            assertThat(relay.said()).isEmpty();
        }
    }
}
