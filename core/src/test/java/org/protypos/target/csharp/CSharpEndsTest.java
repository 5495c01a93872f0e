package org.protypos.target.csharp;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.InvocationTargetException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.generator.GeneratedCode;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.Infoset;

/**
 * Every operation of a contract through C#: a C# server that hands each call to a C# client stands between ends of another make. What
 * comes out of it must be what went in.
 */
class CSharpEndsTest {
    private static final InetSocketAddress ANY = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

    @TempDir
    private Path folder;

    private Generated generated;
    private GeneratedCode csharp;
    private ContractCheck check;

    @BeforeAll
    static void needsCompiler() {
        CSharp.assumed();
    }

    private void generate(String contract) throws Exception {
        generated = Generated.from(Path.of(contract), Files.createDirectories(folder.resolve("java")), null);
        csharp = CSharp.library(Path.of(contract), null, Files.createDirectories(folder.resolve("csharp")));
        check = new ContractCheck(generated.contract());
    }

    private static PlannedService.Port port(List<PlannedService> services, CalledOperation called) {
        return service(services, called).ports().stream()
                .filter(one -> one.xmlName().equals(called.port().name()))
                .findFirst()
                .orElseThrow();
    }

    private static PlannedService service(List<PlannedService> services, CalledOperation called) {
        return services.stream()
                .filter(one -> one.xmlName().equals(called.service().name()))
                .findFirst()
                .orElseThrow();
    }

    /** What the relay needs to know to stand at a path and to call an address. */
    private List<String> stop(CalledOperation called, String path, String target) {
        List<PlannedService> services =
                ((ClassApi) csharp.planned().code()).plan().services();
        return CSharp.stop(service(services, called), port(services, called), path, target);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/tide/tide.wsdl",
                "../examples/tables/tables.wsdl",
                "../examples/papers/papers.wsdl",
                "src/test/resources/carried/carried.wsdl",
                "src/test/resources/wire/crossing.wsdl",
                "src/test/resources/gauge/gauge.wsdl",
                "src/test/resources/bodies/bodies.wsdl",
                "src/test/resources/blocks/blocks.wsdl",
                "src/test/resources/encoded/dues.wsdl",
                "src/test/resources/wire/ways.wsdl"
            })
    void messagesComeOutAsTheyWentIn(String contract) throws Exception {
        generate(contract);
        List<StandIn.Seen> seen = new ArrayList<>();
        List<CalledOperation> all = CalledOperation.of(generated.contract());
        try (StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, seen::add)) {
            Map<String, List<String>> stops = new LinkedHashMap<>();
            for (CalledOperation called : all) {
                String path = "/" + called.port().name();
                stops.put(path, stop(called, path, standIn.addresses().get(called.port())));
            }
            try (CSharp.Program relay = CSharp.relay(folder.resolve("csharp"), stops.values())) {
                for (CalledOperation called : all) {
                    call(
                            called,
                            standIn.addresses().get(called.port()),
                            relay.address("/" + called.port().name()));
                }
                assertThat(relay.said()).isEmpty();
            }
        }
        assertThat(seen).isNotEmpty();
        assertThat(seen.stream().filter(one -> !one.isSound()).map(StandIn.Seen::deviations))
                .isEmpty();
    }

    private void call(CalledOperation called, String played, String relayed) throws Exception {
        String what = called.port().name() + " " + called.operation().name();
        Map<String, Attachment> attached = new LinkedHashMap<>();
        called.request()
                .attachments()
                .forEach(part -> attached.put(
                        part.name(),
                        Attachment.of(("of " + part.name()).getBytes(StandardCharsets.UTF_8), "image/png")));
        String request = new Samples(generated.contract(), check.vocabulary(), true).message(called.request());
        Caller.Answer direct = new Caller(called, check, with -> with.address(played)).call(request, attached);
        Caller.Answer through = new Caller(called, check, with -> with.address(relayed)).call(request, attached);
        assertThat(direct.failure()).as(what).isNull();
        assertThat(through.failure()).as(what).isNull();
        assertThat(through.fault()).as(what).isNull();
        assertThat(content(called, through)).as(what).isEqualTo(content(called, direct));
        assertThat(through.attached()).as(what).isEqualTo(direct.attached());
    }

    private String content(CalledOperation called, Caller.Answer answer) {
        if (answer.root() == null) {
            return "";
        }
        assertThat(new OperationCheck(called.carried(), check)
                        .answer(answer.root())
                        .deviations())
                .isEmpty();
        StringBuilder content = new StringBuilder();
        EnvelopeParts.body(answer.root(), called.answer())
                .forEach(part -> content.append(Infoset.of(MessageText.compact(part))));
        // Prefixes are declared around what is compared, and white space around a number says nothing.
        return content.toString()
                .replaceAll("([=\"])(\\{[^}]*\\}|\\w+:)(?=\\w)", "$1")
                .replaceAll("\\s+", "");
    }

    /** Generated Java at both sides: its server must see what its client gave, and its client what its server answered. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/tide/tide.wsdl",
                "../examples/papers/papers.wsdl",
                "src/test/resources/gauge/gauge.wsdl",
                "src/test/resources/bodies/bodies.wsdl",
                "src/test/resources/blocks/blocks.wsdl",
                "src/test/resources/encoded/dues.wsdl",
                "src/test/resources/wire/ways.wsdl"
            })
    void valuesComeOutAsTheyWentIn(String contract) throws Exception {
        generate(contract);
        GeneratedEnds ends = new GeneratedEnds(generated);
        List<PlannedService> services = generated.plan().services();
        List<String> wrong = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, one -> {})) {
            for (CalledOperation called : CalledOperation.of(generated.contract())) {
                PlannedService.Port port = port(services, called);
                PlannedOperation api = GeneratedEnds.operation(port.type(), called);
                if (port.type().isHttp() || !called.request().attachments().isEmpty()) {
                    continue;
                }
                String what = called.port().name() + " " + api.method();
                String request = new Samples(generated.contract(), check.vocabulary(), true).message(called.request());
                ends.results().clear();
                try (AutoCloseable server = ends.serve(port.type());
                        CSharp.Program relay = CSharp.relay(
                                folder.resolve("csharp"), List.of(stop(called, "/x", GeneratedEnds.address(server))))) {
                    String address = GeneratedEnds.address(server);
                    new Caller(called, check, with -> with.address(address)).call(request);
                    Object[] wanted = ends.seen();
                    assertThat(wanted).as(what + " was not reached").isNotNull();
                    String played = standIn.addresses().get(called.port());
                    Object result = ends.call(
                            port.type(),
                            api,
                            ends.client(port.type(), service(services, called), port, played, false),
                            wanted);
                    ends.results().put(api.method(), result);
                    ends.forget();
                    Object client =
                            ends.client(port.type(), service(services, called), port, relay.address("/x"), false);
                    Object again = ends.call(port.type(), api, client, wanted);
                    if (!Arrays.deepEquals(wanted, ends.seen()) || !Objects.deepEquals(result, again)) {
                        wrong.add(what + ": " + Arrays.deepToString(wanted) + " became "
                                + Arrays.deepToString(ends.seen()) + "; " + result + " became " + again);
                    }
                } catch (InvocationTargetException e) {
                    wrong.add(what + ": " + e.getCause());
                }
            }
        }
        assertThat(wrong).isEmpty();
    }
}
