package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.net.URI;
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
import org.protypos.binding.RandomRules;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Targets;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.CSharp;
import org.protypos.testing.ForeignPeer;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomService;

/**
 * Random services between two ends that are none of ours: requests, answers and declared faults, put together by hand, go into a
 * generated server, from there into a generated client, and have to come out as they went in.
 */
class RandomServiceTest {
    private static final int RULES = 24;
    private static final long SEED_WITH_CLASS = 175;

    private final HttpClient http = HttpClient.newHttpClient();
    private ForeignPeer peer;
    private String answer;

    @BeforeEach
    void listen() throws IOException {
        peer = new ForeignPeer();
    }

    @AfterEach
    void close() {
        peer.close();
    }

    /** Says what the foreign server answers; null for nothing but that it was told. */
    private void answer(String next) {
        answer = next;
        if (next == null) {
            peer.answer(202, null, new byte[0]);
        } else {
            peer.answer(next.contains(":Fault>") ? 500 : 200, null, next.getBytes(StandardCharsets.UTF_8));
        }
    }

    private HttpResponse<String> post(String address, String envelope, boolean soap12, String action) throws Exception {
        String type = soap12
                ? "application/soap+xml; charset=utf-8" + (action.isEmpty() ? "" : "; action=\"" + action + "\"")
                : "text/xml; charset=utf-8";
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address))
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofString(envelope));
        return http.send(
                (soap12 ? request : request.header("SOAPAction", '"' + action + '"')).build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private static void same(String came, String sent, String about) {
        assertThat(Infoset.of(came)).as("%s: %s became %s", about, sent, came).isEqualTo(Infoset.of(sent));
    }

    /** What a client sent has the right action, and is what the server got. */
    private void judge(String request, RandomService.Operation operation, String about) {
        ForeignPeer.Asked asked = peer.asked();
        assertThat(asked).as(about + ": " + request).isNotNull();
        String action = asked.type().startsWith("text/xml")
                ? asked.action()
                : asked.type().contains("action=") ? asked.type().replaceFirst(".*action=", "") : "\"\"";
        assertThat(action).as(about + ": " + request).isEqualTo('"' + operation.action() + '"');
        same(asked.text(), request, about);
    }

    private static int status(String fault, boolean soap12) {
        return soap12 && fault.contains("e:Sender") ? 400 : 500;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void generatedJavaCarriesThem(long seed, @TempDir Path folder) throws Exception {
        RandomService random = new RandomService(seed);
        try (Generated generated = Generated.from(random.layOut(folder), folder.resolve("out"), null)) {
            carries(generated, random);
        }
    }

    /** Whatever rules make of names and shapes, messages stay as they are. */
    @ParameterizedTest
    @ValueSource(longs = {21, 22, 23, 24})
    void generatedJavaCarriesThemAsRulesWantIt(long seed, @TempDir Path folder) throws Exception {
        RandomService random = new RandomService(seed);
        Path contract = random.layOut(folder);
        RandomRules.Kept kept = kept(seed, contract, "java");
        try (Generated generated = Generated.from(List.of(contract), folder.resolve("out"), kept.rules())) {
            carries(generated, random);
        } catch (Exception | AssertionError e) {
            throw new AssertionError(kept.text(), e);
        }
    }

    /** A method that a rule calls Class has classes of its own beside those of class, which is class_ in Java. */
    @Test
    void methodsAlikeButForACapitalHaveClassesOfTheirOwn(@TempDir Path folder) throws Exception {
        RandomService random = new RandomService(SEED_WITH_CLASS);
        Path contract = random.layOut(folder);
        List<String> names =
                random.operations().stream().map(RandomService.Operation::name).toList();
        assertThat(names).contains("class");
        String other =
                names.stream().filter(name -> !name.equals("class")).findFirst().orElseThrow();
        Rules rules = RuleReader.read(
                "rules.yaml",
                "rules: [{on: 'portType {urn:service}Desk/" + other + "', name: Class}]",
                Targets.named("java").rules());
        try (Generated generated = Generated.from(List.of(contract), folder.resolve("out"), rules)) {
            carries(generated, random);
        }
    }

    private static RandomRules.Kept kept(long seed, Path contract, String language) {
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
        return new RandomRules(seed, read, Targets.named(language)).keep(RULES, false);
    }

    private void carries(Generated generated, RandomService random) throws Exception {
        GeneratedEnds ends = new GeneratedEnds(generated);
        PlannedService service = generated.plan().services().get(0);
        for (PlannedService.Port port : service.ports()) {
            boolean soap12 = port.xmlName().equals("P12");
            try (AutoCloseable server = ends.serve(port.type())) {
                Object client = ends.client(port.type(), service, port, peer.address(), false);
                String address = GeneratedEnds.address(server);
                for (RandomService.Operation operation : random.operations()) {
                    String about = port.xmlName() + " " + operation;
                    PlannedOperation api = GeneratedEnds.operation(port.type(), ends.called(port, operation.name()));
                    String request = random.request(operation, soap12);
                    ends.forget();
                    answer(operation.isOneWay() ? null : random.answer(operation, soap12));
                    post(address, request, soap12, operation.action());
                    assertThat(ends.seen()).as("%s takes %s", about, request).isNotNull();
                    Object result = ends.call(port.type(), api, client, ends.seen());
                    judge(request, operation, about);
                    ends.results().put(api.method(), result);
                    HttpResponse<String> came = post(address, request, soap12, operation.action());
                    assertThat(came.statusCode()).as(about).isEqualTo(operation.isOneWay() ? 202 : 200);
                    if (!operation.isOneWay()) {
                        same(came.body(), answer, about);
                    }
                    for (String fault : random.faults(operation, soap12)) {
                        answer(fault);
                        ends.results().put(api.method(), thrown(ends, port, api, client));
                        came = post(address, request, soap12, operation.action());
                        assertThat(came.statusCode()).as(fault).isEqualTo(status(fault, soap12));
                        same(came.body(), fault, about);
                    }
                    ends.results().clear();
                }
            }
        }
    }

    private static Throwable thrown(GeneratedEnds ends, PlannedService.Port port, PlannedOperation api, Object client)
            throws Exception {
        try {
            ends.call(port.type(), api, client, ends.seen());
            throw new AssertionError("no fault");
        } catch (InvocationTargetException e) {
            return e.getCause();
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {11, 12, 13, 14})
    void generatedCSharpCarriesThem(long seed, @TempDir Path folder) throws Exception {
        CSharp.assumed();
        RandomService random = new RandomService(seed);
        Path compiled = Files.createDirectories(folder.resolve("compiled"));
        carries(CSharp.service(random.layOut(folder), compiled), compiled, random);
    }

    @ParameterizedTest
    @ValueSource(longs = {31, 32})
    void generatedCSharpCarriesThemAsRulesWantIt(long seed, @TempDir Path folder) throws Exception {
        CSharp.assumed();
        RandomService random = new RandomService(seed);
        Path contract = random.layOut(folder);
        Path compiled = Files.createDirectories(folder.resolve("compiled"));
        RandomRules.Kept kept = kept(seed, contract, "csharp");
        try {
            carries(CSharp.service(contract, kept.rules(), compiled), compiled, random);
        } catch (Exception | AssertionError e) {
            throw new AssertionError(kept.text(), e);
        }
    }

    private void carries(PlannedService service, Path compiled, RandomService random) throws Exception {
        List<List<String>> stops = new ArrayList<>();
        for (PlannedService.Port port : service.ports()) {
            stops.add(CSharp.stop(service, port, "/" + port.xmlName(), peer.address()));
        }
        try (CSharp.Program relay = CSharp.relay(compiled, stops)) {
            for (String port : List.of("P11", "P12")) {
                boolean soap12 = port.equals("P12");
                for (RandomService.Operation operation : random.operations()) {
                    String about = port + " " + operation;
                    String request = random.request(operation, soap12);
                    answer(operation.isOneWay() ? null : random.answer(operation, soap12));
                    HttpResponse<String> came = post(relay.address("/" + port), request, soap12, operation.action());
                    judge(request, operation, about + " " + came.body());
                    assertThat(came.statusCode()).as(about).isEqualTo(operation.isOneWay() ? 202 : 200);
                    if (!operation.isOneWay()) {
                        same(came.body(), answer, about);
                    }
                    for (String fault : random.faults(operation, soap12)) {
                        answer(fault);
                        came = post(relay.address("/" + port), request, soap12, operation.action());
                        assertThat(came.statusCode()).as(fault).isEqualTo(status(fault, soap12));
                        same(came.body(), fault, about);
                    }
                }
            }
            assertThat(relay.said()).isEmpty();
        }
    }
}
