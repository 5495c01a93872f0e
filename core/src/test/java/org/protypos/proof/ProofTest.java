package org.protypos.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.sample.Samples;
import org.protypos.target.Targets;
import org.protypos.target.Toolchain;
import org.protypos.testing.CSharp;
import org.protypos.wire.WireBinding;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;

/**
 * Messages of which the elements do not tell what they are: bodies of a type, answers of calls, the SOAP encoding, documents without an
 * envelope. Code of each language must have read what it writes again, not have handed it on.
 */
class ProofTest {
    private static final Path QUAY = Path.of("src/test/resources/proof/quay.wsdl");

    private static final String ENVELOPE = """
            <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/" xmlns:q="urn:lantern:quay" xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance" xmlns:enc="http://schemas.xmlsoap.org/soap/encoding/">
              %s
            </s:Envelope>
            """;

    /** By name: what is right, and what no type may read. */
    private static final Map<String, String> MESSAGES = new LinkedHashMap<>();

    static {
        MESSAGES.put("pass", """
                <s:Header><q:pass><q:holder>Ada</q:holder><q:level>007</q:level></q:pass></s:Header>
                <s:Body><q:ship>Aurora</q:ship><q:tons>12</q:tons></s:Body>""");
        MESSAGES.put("of a type", "<s:Body><q:ship>Aurora</q:ship><q:tons>+7</q:tons></s:Body>");
        MESSAGES.put("fault", """
                <s:Body><s:Fault><faultcode>s:Client</faultcode><faultstring>no</faultstring><detail>
                <q:refused><q:ship>Aurora</q:ship><q:tons>7</q:tons></q:refused></detail></s:Fault></s:Body>""");
        MESSAGES.put("called otherwise", """
                <s:Body><q:moveReply><place><q:berth>9</q:berth><q:depth>07</q:depth></place></q:moveReply></s:Body>""");
        MESSAGES.put("referred to", """
                <s:Body s:encodingStyle="http://schemas.xmlsoap.org/soap/encoding/">
                  <q:moveAll><orders href="#all"/><urgent xsi:type="xs:int">7</urgent></q:moveAll>
                  <all id="all" xsi:type="enc:Array" enc:arrayType="q:Order[2]"><item href="#one"/><item href="#one"/></all>
                  <one id="one" xsi:type="q:Order"><q:ship>Aurora</q:ship><q:tons>12</q:tons></one>
                </s:Body>""");
    }

    private PlannedContract planned;

    private record Given(String name, String text) implements Proof.Message {
        @Override
        public byte[] bytes() {
            return text.getBytes(StandardCharsets.UTF_8);
        }
    }

    private void plan(String language) {
        plan(language, QUAY);
    }

    private void plan(String language, Path contract) {
        if (language.equals("csharp")) {
            CSharp.assumed();
        }
        planned = Generator.of(List.of(contract.toString()))
                .target(Targets.named(language))
                .plan();
        assertThat(planned.isSound()).isTrue();
    }

    private List<String> proved(List<Given> messages) throws IOException {
        return new Proof(planned.contract(), planned.withoutForeignClasses())
                .of(messages).stream()
                        .filter(result -> result.status() != ProofResult.Status.SURVIVED)
                        .map(result -> result.message() + ": "
                                + result.details().stream().map(Deviation::came).toList())
                        .toList();
    }

    /** What SOAP says of envelopes holds for every message, and no element of a contract makes up for it. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            1.1 | B            |
            1.1 | H B          |
            1.2 | H B          |
            1.1 | B O          |
            1.2 | B O          | <other> stands in the envelope behind the body
            1.1 | B N          | <none> stands in the envelope behind the body
            1.1 | B H          | <Header> stands in the envelope behind the body
            1.1 | B <s:Body/>  | <Body> stands in the envelope behind the body
            1.1 | H H B        | <Header> stands in the envelope before the body
            1.1 | O B          | <other> stands in the envelope before the body
            1.2 | H            | the envelope has no body
            1.1 | H ~ B        | "late" stands in <Envelope>
            1.1 | <s:Header>x</s:Header> B | "x" stands in <Header>
            1.1 | <s:Body>x C</s:Body> | "x" stands in <Body>
            1.1 | <s:Body>C C</s:Body> | <castOff> stands in the body after all that the message has
            1.2 | <s:Body>C <more/></s:Body> | <more> stands in the body after all that the message has
            """)
    void envelopesAreJudgedToo(String version, String parts, String told) throws Exception {
        Path desk = Path.of("../examples/harbour/contract/desk.wsdl");
        plan("java", desk);
        ContractCheck check = new ContractCheck(planned.contract());
        String castOff = new Samples(planned.contract(), check.vocabulary(), false)
                .element(new QName("http://lanternbay.example/harbour/desk", "castOff"));
        String content = parts.replace("~", "late")
                .replaceAll("\\bB\\b", "<s:Body>C</s:Body>")
                .replaceAll("\\bH\\b", "<s:Header/>")
                .replaceAll("\\bO\\b", "<o:other xmlns:o='urn:other'/>")
                .replaceAll("\\bN\\b", "<none/>")
                .replaceAll("\\bC\\b", castOff.replaceFirst("^<\\?[^>]*>", "").strip());
        String namespace = version.equals("1.1") ? EnvelopeParts.SOAP_1_1 : EnvelopeParts.SOAP_1_2;
        String envelope = "<s:Envelope xmlns:s='" + namespace + "'>" + content + "</s:Envelope>";
        assertThat(proved(List.of(new Given("it", envelope))))
                .as(envelope)
                .isEqualTo(told == null ? List.of() : List.of("it: [" + told + "]"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp", "cobol"})
    void samplesOfAllOperationsSurvive(String language) throws Exception {
        plan(language);
        ContractCheck check = new ContractCheck(planned.contract());
        Samples samples = new Samples(planned.contract(), check.vocabulary(), true);
        List<Given> messages = new ArrayList<>();
        for (WireBinding binding : check.wire().bindings()) {
            for (WireOperation operation : binding.operations()) {
                for (WireMessage carried : operation.messages()) {
                    messages.add(new Given(
                            operation.name() + (carried.isAnswer() ? " answer" : ""), samples.message(carried)));
                }
            }
        }
        assertThat(messages).hasSize(10);
        List<String> told =
                new ArrayList<>(List.of("ask: [messages of ask are no documents on the wire: their parts travel"
                        + " one by one, and no type holds them]"));
        if (language.equals("cobol")) {
            // There is no record for what has nothing in it.
            told.add("ping answer: [the generated types refuse it: there is no record for ping]");
        }
        assertThat(proved(messages)).isEqualTo(told);
    }

    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp", "cobol"})
    void messagesSurvive(String language) throws Exception {
        plan(language);
        List<Given> messages = new ArrayList<>();
        MESSAGES.forEach((name, parts) -> messages.add(new Given(name, ENVELOPE.formatted(parts))));
        assertThat(proved(messages)).isEmpty();
    }

    /** In content that is kept as it came, names without a prefix stay in the namespace that they are in. */
    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp"})
    void namesWithoutPrefixKeepTheirNamespaces(String language, @TempDir Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("kinds.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns="urn:kinds" targetNamespace="urn:kinds"
                    elementFormDefault="qualified">
                  <xs:element name="kind" type="xs:QName"/>
                  <xs:element name="berth"><xs:complexType>
                    <xs:sequence><xs:element name="side" form="unqualified"><xs:simpleType><xs:list itemType="xs:QName"/></xs:simpleType>
                      </xs:element></xs:sequence>
                    <xs:attribute name="kind" type="xs:QName"/></xs:complexType></xs:element>
                  <xs:element name="open"><xs:complexType>
                    <xs:sequence><xs:any processContents="lax" maxOccurs="unbounded"/></xs:sequence></xs:complexType></xs:element>
                  <xs:element name="mixed"><xs:complexType mixed="true">
                    <xs:choice maxOccurs="unbounded"><xs:element ref="kind"/><xs:element ref="berth"/></xs:choice></xs:complexType>
                  </xs:element>
                </xs:schema>
                """);
        plan(language, schema);
        String inside = "<kind>quay</kind>%s<berth kind='quay'><side xmlns=''>east west</side></berth>"
                + "<k:berth xmlns='' kind='none' xmlns:k='urn:kinds'><side>none</side></k:berth>";
        assertThat(proved(List.of(
                        new Given("open", "<open xmlns='urn:kinds'>" + inside.formatted("") + "</open>"),
                        new Given("mixed", "<mixed xmlns='urn:kinds'>" + inside.formatted("at") + "</mixed>"))))
                .isEmpty();
    }

    /** Contracts take in the schema of SOAP for its attributes: their messages are what they were. */
    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp", "cobol"})
    void aDeclaredEnvelopeChangesNothing(String language, @TempDir Path folder) throws Exception {
        Files.writeString(folder.resolve("soap.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"
                    targetNamespace="http://schemas.xmlsoap.org/soap/envelope/">
                  <xs:element name="Envelope" type="s:Envelope"/>
                  <xs:complexType name="Envelope"><xs:sequence>
                    <xs:element ref="s:Header" minOccurs="0"/><xs:element ref="s:Body"/>
                  </xs:sequence></xs:complexType>
                  <xs:element name="Header" type="s:Carried"/>
                  <xs:element name="Body" type="s:Carried"/>
                  <xs:complexType name="Carried">
                    <xs:sequence><xs:any namespace="##any" processContents="lax" minOccurs="0" maxOccurs="unbounded"/></xs:sequence>
                    <xs:anyAttribute namespace="##any" processContents="lax"/>
                  </xs:complexType>
                  <xs:attribute name="mustUnderstand" type="xs:boolean"/>
                </xs:schema>
                """);
        Path contract = Files.writeString(
                folder.resolve("quay.wsdl"),
                Files.readString(QUAY)
                        .replaceFirst(
                                "<xs:import ",
                                "<xs:import namespace=\"http://schemas.xmlsoap.org/soap/envelope/\" schemaLocation=\"soap.xsd\"/>$0"));
        plan(language, contract);
        assertThat(planned.contract().schema().elements()).hasSizeGreaterThan(3);
        List<Given> messages = new ArrayList<>();
        MESSAGES.forEach((name, parts) -> messages.add(new Given(name, ENVELOPE.formatted(parts))));
        assertThat(proved(messages)).isEmpty();
        String call = "<s:Body><q:move><order><q:ship>Aurora</q:ship><q:tons>%s</q:tons></order></q:move></s:Body>";
        assertThat(proved(List.of(
                        new Given("right", ENVELOPE.formatted(call.formatted("7"))),
                        new Given("wrong", ENVELOPE.formatted(call.formatted("seven"))))))
                .containsExactly("wrong: [\"seven\" is no int]");
    }

    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp"})
    void envelopesAreReadByTheirTypes(String language) throws Exception {
        plan(language);
        Set<QName> names = Stream.of("pass", "refused", "move", "Order")
                .map(name -> new QName("urn:lantern:quay", name))
                .collect(Collectors.toSet());
        Map<String, String> messages = new LinkedHashMap<>();
        messages.put("pass", MESSAGES.get("pass"));
        messages.put("fault", MESSAGES.get("fault"));
        messages.put("of a type", """
                <s:Body xsi:type="q:Order">
                <q:ship>Aurora</q:ship><q:tons>7</q:tons></s:Body>""");
        messages.put("call", """
                <s:Body>
                <q:move><order><q:ship>Aurora</q:ship><q:tons>7</q:tons></order></q:move></s:Body>""");
        try (Toolchain.Types types = planned.withoutForeignClasses().compiled(names)) {
            for (String name : messages.keySet()) {
                String right = ENVELOPE.formatted(messages.get(name));
                assertThat(types.again(right.getBytes(StandardCharsets.UTF_8))).isNotEmpty();
                String wrong = right.replace("007", "seven").replace(">7<", ">seven<");
                assertThatThrownBy(() -> types.again(wrong.getBytes(StandardCharsets.UTF_8)))
                        .as(name)
                        .isInstanceOfSatisfying(Toolchain.Refused.class, refusal -> {
                            assertThat(refusal).hasMessageContaining("seven");
                            assertThat(refusal.line()).isEqualTo(name.equals("pass") ? 2 : 3);
                            assertThat(refusal.path()).startsWith("/Envelope/");
                        });
            }
        }
    }

    @Test
    void whatIsWrongIsToldOfTheNearestMessage() throws Exception {
        plan("java");
        List<Given> messages = new ArrayList<>();
        MESSAGES.forEach((name, parts) -> messages.add(
                new Given(name, ENVELOPE.formatted(parts.replace("12", "twelve").replace("+7", "")))));
        assertThat(proved(messages))
                .containsExactly(
                        "pass: [\"twelve\" is no int]",
                        "of a type: [\"\" is no int]",
                        "referred to: [the generated types refuse it: \"twelve\" is not a valid int]");
    }
}
