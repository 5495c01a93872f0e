package org.protypos.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.protypos.exchange.ExchangeTest.ANY;
import static org.protypos.exchange.ExchangeTest.read;
import static org.protypos.exchange.ExchangeTest.said;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.Recording;
import org.protypos.exchange.standin.Relay;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;

/** What stands between a client and a service, and what it writes down. */
class RecordingTest {
    /** Between client and service nothing is lost, and what was recorded is answered again without the service. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/tide/tide.wsdl",
                "../examples/customs/customs.wsdl",
                "../examples/tables/tables.wsdl"
            })
    void whatARealServiceAnswersIsRecorded(String file, @TempDir Path folder) throws IOException {
        Contract contract = read(file);
        Samples samples = new Samples(contract, new ContractCheck(contract).vocabulary(), true);
        CalledOperation first = CalledOperation.of(contract).get(0);
        Path recorded = folder.resolve("recorded.yaml");
        List<StandIn.Seen> seen = new ArrayList<>();
        Findings findings = new Findings();
        String faults = file.endsWith("desk.wsdl") ? """
                answers:
                  requestBerth:
                    each:
                      - answer: {offer: {berth: {quay: "the ${x} quay"}}}
                      - fault: {noBerthFree: {waiting: 4}}
                        reason: all berths are taken
                        code: [sender, "{urn:lanternbay}full"]
                """ : "answers: {}";
        Answers answers = Answers.read(new SourceText("answers.yaml", faults), contract, findings);
        List<String> direct = new ArrayList<>();
        List<String> replayed = new ArrayList<>();
        List<CalledOperation> all = CalledOperation.of(contract).stream()
                .filter(called -> called.port() == first.port())
                .toList();
        List<CalledOperation> twice = new ArrayList<>(all);
        twice.addAll(all);
        try (StandIn real = StandIn.serve(contract, ANY, answers, one -> {})) {
            Relay relay = relay(real.addresses().get(first.port()), recorded);
            try (StandIn between = StandIn.between(contract, ANY, relay, seen::add)) {
                twice.forEach(called -> direct.add(said(called, samples, between)));
            }
        }
        assertThat(seen).hasSameSizeAs(twice);
        assertThat(seen).allMatch(one -> one.isSound());
        String text = Files.readString(recorded);
        Answers again = Answers.read(new SourceText("recorded.yaml", text), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        try (StandIn replay = StandIn.serve(contract, ANY, again, one -> {})) {
            twice.forEach(called -> replayed.add(said(called, samples, replay)));
        }
        assertThat(replayed).as(text).isEqualTo(direct);
        assertThat(String.join("", direct)
                        .contains("\"{urn:lanternbay}full\" {null}faultstring \"all berths are taken\""))
                .isEqualTo(file.endsWith("desk.wsdl"));
        assertThat(text.replaceAll("\\s+", " ").contains("code: - \"{urn:lanternbay}full\""))
                .isEqualTo(file.endsWith("desk.wsdl"));
    }

    /** What a relay does not know goes through it byte for byte, both ways: blocks, encodings, header fields, statuses. */
    @Test
    void whatIsNotKnownIsPassedOnAsItIs(@TempDir Path folder) throws Exception {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        byte[] request =
                ("<?xml version='1.0' encoding='UTF-16'?><e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'>"
                                + "<e:Header ><s:sig  xmlns:s='urn:s' e:mustUnderstand='1'\n>x</s:sig><!-- kept --></e:Header>"
                                + "<e:Body><listBerths xmlns='http://lanternbay.example/harbour/desk'/></e:Body></e:Envelope>")
                        .getBytes(StandardCharsets.UTF_16);
        byte[] answer =
                ("<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Header><t:trace xmlns:t='urn:t'>9"
                                + "</t:trace></e:Header><e:Body><e:Fault><faultcode>e:Server</faultcode><faultstring>full</faultstring>"
                                + "</e:Fault></e:Body></e:Envelope>")
                        .getBytes(StandardCharsets.UTF_8);
        List<byte[]> came = new CopyOnWriteArrayList<>();
        List<String> fields = new CopyOnWriteArrayList<>();
        HttpServer real = HttpServer.create(ANY, 0);
        real.createContext("/", exchange -> {
            came.add(exchange.getRequestBody().readAllBytes());
            fields.add(exchange.getRequestHeaders().getFirst("Traceparent") + " "
                    + exchange.getRequestHeaders().getFirst("X-Hop") + " "
                    + exchange.getRequestHeaders().getFirst("SOAPAction"));
            exchange.getResponseHeaders().set("Content-Type", "text/xml");
            exchange.getResponseHeaders().set("X-Served-By", "quay");
            exchange.getResponseHeaders()
                    .put("Set-Cookie", List.of("a=1; Path=/", "b=2; Expires=Sat, 28 Nov 2026 10:00:00 GMT"));
            exchange.sendResponseHeaders(503, answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        real.start();
        List<StandIn.Seen> seen = new CopyOnWriteArrayList<>();
        String address = "http://127.0.0.1:" + real.getAddress().getPort() + "/";
        try (StandIn between =
                StandIn.between(contract, ANY, relay(address, folder.resolve("recorded.yaml")), seen::add)) {
            URI at = URI.create(between.addresses().values().iterator().next());
            String shown = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(at + "?wsdl")).build(),
                            HttpResponse.BodyHandlers.ofString())
                    .body();
            between.addresses().values().forEach(one -> assertThat(shown).contains("location=\"" + one + "\""));
            try (Socket socket = new Socket(at.getHost(), at.getPort())) {
                socket.getOutputStream()
                        .write(("POST " + at.getPath() + " HTTP/1.1\r\nHost: " + at.getAuthority()
                                        + "\r\nContent-Type: text/xml; charset=utf-16\r\nSOAPAction: \"\"\r\nTraceparent: 00-1\r\n"
                                        + "X-Hop: mine\r\nConnection: close, X-Hop\r\nContent-Length: " + request.length
                                        + "\r\n\r\n")
                                .getBytes(StandardCharsets.US_ASCII));
                socket.getOutputStream().write(request);
                String whole = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
                assertThat(whole).startsWith("HTTP/1.1 503 ").containsIgnoringCase("X-Served-By: quay");
                assertThat(whole.split("(?i)\r\nDate: ")).hasSize(2);
                assertThat(whole)
                        .containsIgnoringCase("\r\nSet-Cookie: a=1; Path=/\r\n")
                        .containsIgnoringCase("\r\nSet-Cookie: b=2; Expires=Sat, 28");
                assertThat(whole).endsWith(new String(answer, StandardCharsets.UTF_8));
            }
        } finally {
            real.stop(0);
        }
        assertThat(came).hasSize(1);
        assertThat(came.get(0)).isEqualTo(request);
        assertThat(fields).containsExactly("00-1 null \"\"");
        assertThat(seen).hasSize(1).allMatch(StandIn.Seen::isSound);
        assertThat(seen.get(0).operation()).isEqualTo("listBerths");
        String recorded = Files.readString(folder.resolve("recorded.yaml"));
        Findings findings = new Findings();
        Answers again = Answers.read(new SourceText("recorded.yaml", recorded), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        CalledOperation list = CalledOperation.of(contract).get(1);
        ContractCheck check = new ContractCheck(contract);
        try (StandIn replay = StandIn.serve(contract, ANY, again, one -> {})) {
            Caller caller = new Caller(
                    list, check, with -> with.address(replay.addresses().get(list.port())));
            assertThat(caller.call(new Samples(contract, check.vocabulary(), true).message(list.request()))
                            .fault()
                            .fault()
                            .reason())
                    .isEqualTo("full");
        }
    }

    /** A request that holds all of another and more has its own answer again, whichever came first. */
    @Test
    void requestsThatHoldOthersKeepTheirAnswers(@TempDir Path folder) throws IOException {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        CalledOperation called = CalledOperation.of(contract).get(0);
        ContractCheck check = new ContractCheck(contract);
        String request = new Samples(contract, check.vocabulary(), true).message(called.request());
        String need = request.replaceFirst("(?s).*?(<\\w+:need>.*?</\\w+:need>).*", "$1");
        List<String> requests = List.of(
                request.replace(need, need + need),
                request.replace(need, ""),
                request,
                request.replace(need, need + need + need));
        Findings findings = new Findings();
        Answers answers = Answers.read(new SourceText("answers.yaml", """
                answers:
                  requestBerth:
                    each:
                      - answer: {offer: {berth: {quay: two}}}
                      - answer: {offer: {berth: {quay: none}}}
                      - answer: {offer: {berth: {quay: one}}}
                      - answer: {offer: {berth: {quay: three}}}
                """), contract, findings);
        Path recorded = folder.resolve("recorded.yaml");
        List<String> quays = new ArrayList<>();
        try (StandIn real = StandIn.serve(contract, ANY, answers, one -> {});
                StandIn between = StandIn.between(
                        contract, ANY, relay(real.addresses().get(called.port()), recorded), one -> {})) {
            requests.forEach(one -> quays.add(quay(called, check, between, one)));
        }
        Answers again = Answers.read(new SourceText("recorded.yaml", Files.readString(recorded)), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        try (StandIn replay = StandIn.serve(contract, ANY, again, one -> {})) {
            requests.forEach(one -> quays.add(quay(called, check, replay, one)));
        }
        assertThat(quays).containsExactly("two", "none", "one", "three", "two", "none", "one", "three");
    }

    /** Answers without end are a recording's end; what has been recorded stays whole. */
    @Test
    void aRecordingHasAnEnd(@TempDir Path folder) throws Exception {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        ContractCheck check = new ContractCheck(contract);
        CalledOperation called = CalledOperation.of(contract).get(0);
        Samples samples = new Samples(contract, check.vocabulary(), true);
        MessageElement asked = MessageReader.read("message", samples.message(called.request()));
        Path file = folder.resolve("recorded.yaml");
        Recording recording = new Recording(file, "", 500_000);
        int kept = 0;
        String told = null;
        for (int i = 0; told == null && i < 1000; i++) {
            String answer = samples.message(called.answer()).replaceAll("(quay>)[^<]*", "$1" + i + "x".repeat(5000));
            try {
                recording.keep(called, check, asked, MessageReader.read("message", answer), Map.of());
                kept++;
            } catch (IOException e) {
                told = e.getMessage();
            }
        }
        assertThat(told).startsWith("there are more answers than a recording can hold");
        recording.keep(called, check, asked, MessageReader.read("message", samples.message(called.answer())), Map.of());
        recording.finish();
        assertThat(Files.readString(file).split("quay: ")).hasSize(kept + 1);
        assertThat(kept).isBetween(40, 100);
        assertThat(Files.size(file)).isLessThan(600_000);
    }

    private static String quay(CalledOperation called, ContractCheck check, StandIn at, String request) {
        Caller.Answer answer =
                new Caller(called, check, with -> with.address(at.addresses().get(called.port()))).call(request);
        return answer.text().replaceFirst("(?s).*quay>(\\w+)<.*", "$1");
    }

    private static Relay relay(String address, Path recorded) {
        return new Relay(address, HttpClient.newHttpClient(), Map.of(), new Recording(recorded, "", 10_000));
    }

    /** Who calls is passed on to the real service; a recording holds no secrets, and no blocks that are none of the contract's. */
    @Test
    void whoCallsIsPassedOn(@TempDir Path folder) throws Exception {
        Contract contract = read("../examples/harbour/contract/desk.wsdl");
        List<String> came = new CopyOnWriteArrayList<>();
        HttpServer real = HttpServer.create(ANY, 0);
        real.createContext("/", exchange -> {
            exchange.getRequestBody().readAllBytes();
            came.add(exchange.getRequestHeaders().getFirst("Authorization") + " "
                    + exchange.getRequestHeaders().getFirst("X-Quay"));
            byte[] answer = ("<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'"
                            + " xmlns='http://lanternbay.example/harbour/desk'><e:Header><trace xmlns='urn:t'>9</trace></e:Header>"
                            + "<e:Body><listBerthsResponse/></e:Body></e:Envelope>")
                    .getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", "text/xml");
            exchange.sendResponseHeaders(200, answer.length);
            exchange.getResponseBody().write(answer);
            exchange.close();
        });
        real.start();
        String address = "http://127.0.0.1:" + real.getAddress().getPort() + "/";
        Path recorded = folder.resolve("recorded.yaml");
        CalledOperation list = CalledOperation.of(contract).get(1);
        ContractCheck check = new ContractCheck(contract);
        String request = new Samples(contract, check.vocabulary(), true).message(list.request());
        try (StandIn between = StandIn.between(contract, ANY, relay(address, recorded), one -> {})) {
            String at = between.addresses().get(list.port());
            Caller.Answer answer = new Caller(list, check, with -> with.address(at)
                            .bearerToken("s3cret")
                            .httpHeader("X-Quay", "north"))
                    .call(request);
            assertThat(answer.failure()).isNull();
            assertThat(answer.text()).contains("listBerthsResponse", "trace");
            assertThat(new OperationCheck(list.carried(), check)
                            .answer(answer.root())
                            .deviations())
                    .isEmpty();
        } finally {
            real.stop(0);
        }
        assertThat(came).containsExactly("Bearer s3cret north");
        assertThat(recorded).content().contains("listBerths").doesNotContain("s3cret", "trace");
    }

    /** A recording says of a secret that it was there, and keeps what YAML would take for the end of a line. */
    @Test
    void whatLooksSecretStaysACondition(@TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("gate.wsdl"), """
                <w:definitions xmlns:w="http://schemas.xmlsoap.org/wsdl/" xmlns:s="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:x="http://www.w3.org/2001/XMLSchema" xmlns:g="urn:gate" targetNamespace="urn:gate">
                  <w:types><x:schema targetNamespace="urn:gate" elementFormDefault="qualified">
                    <x:element name="open"><x:complexType><x:sequence><x:element name="who" type="x:string"/>
                      <x:element name="password" type="x:string" minOccurs="0"/></x:sequence></x:complexType></x:element>
                    <x:element name="opened"><x:complexType><x:sequence><x:element name="note" type="x:string"/>
                      </x:sequence></x:complexType></x:element>
                  </x:schema></w:types>
                  <w:message name="in"><w:part name="p" element="g:open"/></w:message>
                  <w:message name="out"><w:part name="p" element="g:opened"/></w:message>
                  <w:portType name="Gate"><w:operation name="open"><w:input message="g:in"/><w:output message="g:out"/></w:operation></w:portType>
                  <w:binding name="B" type="g:Gate"><s:binding transport="http://schemas.xmlsoap.org/soap/http"/>
                    <w:operation name="open"><s:operation soapAction=""/><w:input><s:body use="literal"/></w:input>
                      <w:output><s:body use="literal"/></w:output></w:operation></w:binding>
                  <w:service name="S"><w:port name="P" binding="g:B"><s:address location="http://gate.example/"/></w:port></w:service>
                </w:definitions>
                """);
        Contract contract = read(schema.toString());
        ContractCheck check = new ContractCheck(contract);
        CalledOperation open = CalledOperation.of(contract).get(0);
        Findings findings = new Findings();
        String note = "one\u0085two\u2028three";
        Answers real = Answers.read(
                new SourceText("answers.yaml", "answers:\n  open: {answer: {note: \"one\\Ntwo\\Lthree\"}}\n"),
                contract,
                findings);
        Path recorded = folder.resolve("recorded.yaml");
        String with = "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body><open xmlns='urn:gate'>"
                + "<who>Ada</who><password>s3same</password></open></e:Body></e:Envelope>";
        try (StandIn service = StandIn.serve(contract, ANY, real, one -> {});
                StandIn between = StandIn.between(
                        contract, ANY, relay(service.addresses().get(open.port()), recorded), one -> {})) {
            new Caller(open, check, set -> set.address(between.addresses().get(open.port()))).call(with);
        }
        assertThat(recorded).content().contains("secret:", "- password").doesNotContain("s3same");
        Answers again = Answers.read(new SourceText("recorded.yaml", Files.readString(recorded)), contract, findings);
        assertThat(findings.sorted()).isEmpty();
        try (StandIn replay = StandIn.serve(contract, ANY, again, one -> {})) {
            Caller caller = new Caller(
                    open, check, set -> set.address(replay.addresses().get(open.port())));
            assertThat(caller.call(with)
                            .root()
                            .children()
                            .get(0)
                            .children()
                            .get(0)
                            .children()
                            .get(0)
                            .text())
                    .isEqualTo(note);
            // Without a password the recorded answer is none: a sample comes.
            assertThat(caller.call(with.replaceFirst("<password>.*</password>", ""))
                            .text())
                    .doesNotContain("one");
        }
    }
}
