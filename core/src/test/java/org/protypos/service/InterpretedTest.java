package org.protypos.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.PrivateKey;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.draft.ContractDraft;
import org.protypos.draft.SketchReader;
import org.protypos.exchange.call.CalledOperation;
import org.protypos.exchange.call.Caller;
import org.protypos.exchange.standin.Answers;
import org.protypos.exchange.standin.StandIn;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.sample.Samples;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.security.UsernameToken;
import org.protypos.runtime.security.XmlSignature;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedOperation;
import org.protypos.target.classes.PlannedService;
import org.protypos.testing.Generated;
import org.protypos.testing.GeneratedEnds;
import org.protypos.testing.Sections;

/** Calls made of the contract alone meet generated servers, and generated clients meet a stand-in, whatever carries them. */
class InterpretedTest {
    private static final InetSocketAddress ANY = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

    @TempDir
    private Path folder;

    private Generated generated;
    private GeneratedEnds ends;
    private ContractCheck check;

    private void generate(String contract) throws Exception {
        generated = Generated.from(Path.of(contract), folder, null);
        ends = new GeneratedEnds(generated);
        check = new ContractCheck(generated.contract());
    }

    private PlannedService service(CalledOperation called) {
        return generated.plan().services().stream()
                .filter(one -> one.xmlName().equals(called.service().name()))
                .findFirst()
                .orElseThrow();
    }

    private PlannedService.Port port(CalledOperation called) {
        return service(called).ports().stream()
                .filter(one -> one.xmlName().equals(called.port().name()))
                .findFirst()
                .orElseThrow();
    }

    private PlannedOperation operation(CalledOperation called) {
        return GeneratedEnds.operation(port(called).type(), called);
    }

    private String sample(CalledOperation called) {
        return new Samples(generated.contract(), check.vocabulary(), true).message(called.request());
    }

    /** What was drafted from a sketch is generated, compiled, served and called like any other contract. */
    @ParameterizedTest
    @ValueSource(strings = {"sections", "rpc", "http"})
    void draftedContractsCarryMessages(String sketch) throws Exception {
        Findings findings = new Findings();
        String text = Sections.of(Path.of("src/test/resources/draft/cases", sketch + ".txt"))
                .get("sketch.yaml");
        Map<String, String> texts =
                ContractDraft.of(SketchReader.read(new SourceText(sketch, text), findings), true, findings);
        Path drafted = Files.createDirectory(folder.resolve("drafted"));
        for (Map.Entry<String, String> document : texts.entrySet()) {
            Files.writeString(drafted.resolve(document.getKey()), document.getValue());
        }
        whateverCarriesThemMessagesArriveWhole(
                drafted.resolve(texts.keySet().iterator().next()).toString());
    }

    /** Plain HTTP of every form, attachments, optimized content and addressing. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/tables/tables.wsdl",
                "../examples/papers/papers.wsdl",
                "src/test/resources/blocks/blocks.wsdl",
                "src/test/resources/carried/carried.wsdl",
                "src/test/resources/wire/crossing.wsdl",
                "src/test/resources/wire/ways.wsdl"
            })
    void whateverCarriesThemMessagesArriveWhole(String contract) throws Exception {
        generate(contract);
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, seen::add)) {
            for (CalledOperation called : CalledOperation.of(generated.contract())) {
                PlannedInterface type = port(called).type();
                PlannedOperation api = operation(called);
                String what = called.port().name() + " " + api.method();
                Map<String, Attachment> attached = new LinkedHashMap<>();
                called.request()
                        .attachments()
                        .forEach(part -> attached.put(
                                part.name(),
                                Attachment.of(("of " + part.name()).getBytes(StandardCharsets.UTF_8), "image/png")));
                String request = sample(called);
                String played = standIn.addresses().get(called.port());
                Caller.Answer fromStandIn =
                        new Caller(called, check, with -> with.address(played)).call(request, attached);
                assertThat(fromStandIn.failure()).as(what).isNull();
                try (AutoCloseable server = ends.serve(type)) {
                    String address = GeneratedEnds.address(server);
                    UnaryOperator<org.protypos.runtime.soap.SoapSettings> there = with -> with.address(address);
                    new Caller(called, check, there).call(request, attached);
                    Object[] wanted = ends.seen();
                    assertThat(wanted).as(what + " was not reached").isNotNull();
                    Object result = ends.call(
                            type, api, ends.client(type, service(called), port(called), played, true), wanted);
                    ends.results().put(api.method(), result);
                    ends.forget();
                    Caller.Answer answer = new Caller(called, check, there).call(request, attached);
                    assertThat(answer.failure()).as(what).isNull();
                    assertThat(answer.fault()).as(what).isNull();
                    assertThat(Arrays.deepEquals(ends.seen(), wanted)).as(what).isTrue();
                    assertThat(content(called, answer)).as(what).isEqualTo(content(called, fromStandIn));
                    assertThat(answer.attached()).as(what).isEqualTo(fromStandIn.attached());
                    ends.results().clear();
                }
            }
        }
        assertThat(seen).isNotEmpty().allMatch(StandIn.Seen::isSound);
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
        EnvelopeParts.body(answer.root(), called.answer()).forEach(part -> content.append(MessageText.compact(part)));
        String plain = content.toString().replaceAll(">\\s+<", "><").replaceAll("xmlns:\\w+=\"[^\"]*\"|\\w+:", "");
        return Pattern.compile("(?:\\s+\\w+=\"[^\"]*\")+")
                .matcher(plain)
                .replaceAll(attributes -> Stream.of(attributes.group().strip().split("(?<=\")\\s+"))
                        .sorted()
                        .collect(Collectors.joining()))
                .replaceAll("\\s", "");
    }

    /** Content of some size leaves the message where a policy asks for that, both ways, and addressing headers are there. */
    @Test
    void policiesAreKept() throws Exception {
        generate("../examples/papers/papers.wsdl");
        CalledOperation file = CalledOperation.of(generated.contract()).get(0);
        String large = "QUJD".repeat(2_000);
        String request = sample(file).replaceFirst("(scan[^>]*>)[^<]*<", "$1" + large + "<");
        List<StandIn.Seen> seen = new ArrayList<>();
        try (StandIn standIn = StandIn.serve(generated.contract(), ANY, Answers.NONE, seen::add)) {
            String address = standIn.addresses().get(file.port());
            Caller.Answer answer = new Caller(file, check, with -> with.address(address)).call(request);
            assertThat(answer.failure()).isNull();
            assertThat(answer.sent()).doesNotContain(large).contains("Include", "cid:", "addressing", "MessageID");
            assertThat(answer.call().headers().get("Content-Type"))
                    .startsWith("multipart/related")
                    .contains("application/xop+xml");
            assertThat(answer.text()).contains("http://lanternbay.example/papers/filed", "RelatesTo");
        }
        assertThat(seen).hasSize(1).allMatch(StandIn.Seen::isSound);
        assertThat(seen.get(0).request()).contains("cid:");
    }

    /** Who calls is shown in the header, and the message is signed over that, when the settings say so. */
    @Test
    void securityHeadersComeFromTheSettings() throws Exception {
        generate("../examples/harbour/contract/desk.wsdl");
        CalledOperation list = CalledOperation.of(generated.contract()).get(1);
        UnaryOperator<String> passwords = name -> name.equals("ada") ? "secret" : null;
        Object names = ends.runtime("security.UsernameCheck")
                .getMethod("of", UnaryOperator.class)
                .invoke(null, passwords);
        try (AutoCloseable server = ends.serve(port(list).type(), names)) {
            String address = GeneratedEnds.address(server);
            Caller.Answer known = new Caller(list, check, with -> with.address(address)
                            .soapHeader(UsernameToken.digest("ada", "secret")))
                    .call(sample(list));
            assertThat(known.fault()).as(known.text()).isNull();
            assertThat(known.sent()).contains("UsernameToken", "PasswordDigest").doesNotContain("secret<");
            Caller.Answer unknown = new Caller(
                            list, check, with -> with.address(address).soapHeader(UsernameToken.text("ada", "guessed")))
                    .call(sample(list));
            assertThat(unknown.fault().fault().reason()).contains("user name or the password is wrong");
        }
        Path file = folder.resolve("ada.p12");
        Process tool = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "keytool")
                                .toString(),
                        "-genkeypair",
                        "-alias",
                        "ada",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=Ada",
                        "-keystore",
                        file.toString(),
                        "-storepass",
                        "changeit")
                .redirectErrorStream(true)
                .start();
        tool.getInputStream().readAllBytes();
        assertThat(tool.waitFor()).isZero();
        KeyStore keys = KeyStore.getInstance(file.toFile(), "changeit".toCharArray());
        X509Certificate certificate = (X509Certificate) keys.getCertificate("ada");
        Object trusting = ends.runtime("security.XmlSignature")
                .getMethod("trustingOnly", Collection.class)
                .invoke(null, List.of(certificate));
        XmlSignature signature =
                XmlSignature.by((PrivateKey) keys.getKey("ada", "changeit".toCharArray()), certificate);
        try (AutoCloseable server = ends.serve(port(list).type(), trusting)) {
            String address = GeneratedEnds.address(server);
            Caller.Answer signed =
                    new Caller(list, check, with -> with.address(address).interceptor(signature)).call(sample(list));
            assertThat(signed.fault()).as(signed.text()).isNull();
            assertThat(signed.sent()).contains("SignatureValue");
            Caller.Answer bare = new Caller(list, check, with -> with.address(address)).call(sample(list));
            assertThat(bare.fault().fault().reason()).contains("sign");
        }
    }
}
