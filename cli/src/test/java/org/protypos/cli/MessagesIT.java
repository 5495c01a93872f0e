package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Samples are made up and put to the proof by the built program. */
class MessagesIT {
    @TempDir
    private Path folder;

    private BuiltProgram program;

    @BeforeEach
    void layOut() throws Exception {
        program = new BuiltProgram(folder);
        program.example();
    }

    @Test
    void samplesOfAllElementsSurvive() throws Exception {
        assertThat(program.run("sample", "desk.wsdl", "--all", "--full", "--into", "samples")
                        .out())
                .isEqualTo("""
                        11 messages written into samples
                        next: protypos proof desk.wsdl --message samples
                        """);
        program.run("sample", "desk.wsdl", "--operation", "requestBerth", "--into", "envelopes");
        BuiltProgram.Run proof = program.run("proof", "desk.wsdl", "--message", "samples", "--message", "envelopes");
        assertThat(proof.status()).isZero();
        assertThat(proof.out()).endsWith("13 of 13 messages survived\n").contains("envelopes/requestBerth-answer.xml");
        Files.writeString(folder.resolve("samples/pass.xml"), "<pass/>");
        BuiltProgram.Run again = program.run("sample", "desk.wsdl", "--all", "--full", "--into", "samples");
        assertThat(again.status()).isEqualTo(1);
        assertThat(again.err()).contains("samples/pass.xml is already there with other content");
        assertThat(folder.resolve("samples/pass.xml")).hasContent("<pass/>");
    }

    @Test
    void nextStepFitsWhatIsServed() throws Exception {
        Path contract = Path.of("../core/src/test/resources/proof/quay.wsdl").toAbsolutePath();
        Files.writeString(
                folder.resolve("quay.wsdl"),
                Files.readString(contract)
                        .replace(
                                "binding name=\"Calls\"",
                                "binding name=\"Unserved\" type=\"q:Encoded\"><soap:binding"
                                        + " transport=\"http://schemas.xmlsoap.org/soap/http\"/><operation name=\"moveAll\"><soap:operation/>"
                                        + "<input><soap:body use=\"literal\"/></input><output><soap:body use=\"literal\"/></output>"
                                        + "</operation></binding><binding name=\"Calls\""));
        assertThat(program.run("sample", "quay.wsdl", "--operation", "moveAll", "--into", "all")
                        .out())
                .endsWith("next: protypos proof quay.wsdl --message all\n");
        assertThat(folder.resolve("all/moveAll-request.xml")).content().contains("encodingStyle");
        assertThat(program.run("proof", "quay.wsdl", "--message", "all").out()).isEqualTo("""
                          all/moveAll-answer.xml   survived
                          all/moveAll-request.xml  survived
                        2 of 2 messages survived
                        """);
        Files.createDirectory(folder.resolve("pairs"));
        Files.copy(folder.resolve("all/moveAll-request.xml"), folder.resolve("pairs/moveAll.request.xml"));
        Files.copy(folder.resolve("all/moveAll-answer.xml"), folder.resolve("pairs/moveAll.response.xml"));
        BuiltProgram.Run drafted = program.run("draft", "--pairs", "pairs", "--into", "drafted");
        assertThat(drafted.err()).contains("[examples-encoded]").doesNotContain("encoding.xsd");
        assertThat(drafted.out()).contains("quay.wsdl", "quay.xsd").doesNotContain("encoding.xsd");
        assertThat(program.run("sample", "quay.wsdl", "--operation", "ask", "--into", "fields")
                        .out())
                .endsWith("next: protypos call quay.wsdl ask --input fields/ask-request.xml\n");
    }

    @Test
    void schemasAreInferredFromMessagesAndTakeThem() throws Exception {
        program.run("sample", "desk.wsdl", "--operation", "*", "--into", "messages", "--full");
        BuiltProgram.Run inferred = program.run("infer", "messages", "--into", "drawn");
        assertThat(inferred.status()).isZero();
        assertThat(inferred.out())
                .startsWith("2 schemas from 9 documents written into drawn\n  desk.xsd     10 elements")
                .contains("decided on little:\n")
                .endsWith(
                        "next: protypos show drawn/desk.xsd; what shall be otherwise goes into drawn/decisions.yaml\n");
        assertThat(program.run("proof", "drawn/desk.xsd", "--message", "messages")
                        .out())
                .endsWith("9 of 9 messages survived\n");
        String decisions = Files.readString(folder.resolve("drawn/decisions.yaml"));
        assertThat(decisions).contains("#  - at: berth/depthInMetres\n#    type: decimal");
        Files.writeString(
                folder.resolve("drawn/decisions.yaml"),
                decisions.replace(
                        "#  - at: berth/depthInMetres\n#    type: decimal",
                        "  - at: berth/depthInMetres\n    type: double"));
        assertThat(program.run("infer", "messages", "--into", "drawn").err())
                .contains("drawn/desk.xsd is already there with other content");
        assertThat(program.run("infer", "messages", "--into", "drawn", "--overwrite")
                        .status())
                .isZero();
        assertThat(folder.resolve("drawn/desk.xsd")).content().contains("name=\"depthInMetres\" type=\"xs:double\"");
    }

    @Test
    void aContractIsDraftedFromASketch() throws Exception {
        assertThat(program.run("draft", "--begin", "fog.yaml").out())
                .endsWith("next: change it, then protypos draft fog.yaml --into contract\n");
        BuiltProgram.Run drafted = program.run("draft", "fog.yaml", "--into", "contract");
        assertThat(drafted.status()).isZero();
        assertThat(drafted.out()).isEqualTo("""
                2 files written into contract
                  fog-signal.wsdl  2 operations, 1 port
                  fog-signal.xsd   schema
                next: protypos stand-in contract/fog-signal.wsdl
                """);
        assertThat(program.run("check", "contract/fog-signal.wsdl").status()).isZero();
        Files.writeString(
                folder.resolve("fog.yaml"),
                Files.readString(folder.resolve("fog.yaml"))
                        .replace("kind: Kind", "kind: Kin")
                        .replace("faults: noPower", "faults: noPowre"));
        BuiltProgram.Run wrong = program.run("draft", "fog.yaml", "--into", "contract");
        assertThat(wrong.status()).isEqualTo(1);
        assertThat(wrong.err())
                .contains(
                        "there is no type Kin",
                        "cure: perhaps Kind",
                        "there is no element noPowre",
                        "2 errors: nothing was drafted");
        assertThat(program.run("draft", "fog.yaml").err()).contains("where shall the contract go? add --into DIR");
        BuiltProgram.Run added =
                program.run("draft", "contract/fog-signal.wsdl", "--operation", "stop()", "--into", "other");
        assertThat(added.status()).isEqualTo(2);
        assertThat(added.err()).contains("a contract gets more in its own text");
    }

    @Test
    void aContractIsDraftedFromExamplesWhichAStandInAnswersWith() throws Exception {
        String pairs = Path.of("../examples/fog/pairs").toAbsolutePath().toString();
        assertThat(program.run("draft", "--pairs", pairs, "--into", "contract", "--name", "FogPost")
                        .out())
                .isEqualTo("""
                4 files written into contract
                  hearing.wsdl    2 operations, 1 port
                  hearing.xsd     schema
                  answers.yaml    the examples, for a stand-in
                  decisions.yaml  what shall be otherwise
                next: protypos stand-in contract/hearing.wsdl --answers contract/answers.yaml
                """);
        Path said = folder.resolve("said.txt");
        Process standIn = program.begin(
                said, "stand-in", "contract/hearing.wsdl", "--answers", "contract/answers.yaml", "--port", "0");
        try {
            while (!Files.readString(said).contains("next: ")) {
                assertThat(standIn.isAlive()).isTrue();
                Thread.sleep(50);
            }
            String address = Files.readString(said).strip().split("\\s+")[1];
            String[] call = {"call", "contract/hearing.wsdl", "hearSignal", "--address", address};
            assertThat(program.run(with(call, "from=north mole", "at=2026-11-03T08:00:00Z"))
                            .out())
                    .contains("heard", "true", "62.5", "dB");
            assertThat(program.run(with(call, "from=outer buoy")).out())
                    .startsWith("fault: nobody hears anything in this wind")
                    .contains("beaufort");
        } finally {
            standIn.destroyForcibly();
        }
    }

    private static String[] with(String[] command, String... more) {
        return Stream.concat(Stream.of(command), Stream.of(more)).toArray(String[]::new);
    }

    @Test
    void anEnvelopeThatKeepsNoProfileIsTold() throws Exception {
        program.run("sample", "desk.wsdl", "--operation", "castOff", "--into", "messages");
        Path message = folder.resolve("messages/castOff-request.xml");
        assertThat(program.run("proof", "desk.wsdl", "--message", "messages", "--profile")
                        .status())
                .isZero();
        Files.writeString(
                message,
                Files.readString(message)
                        .replace(":Envelope>", ":Envelope><!-- -->")
                        .replaceFirst("(</(\\w+):Body>)", "$1<$2:Late/>"));
        BuiltProgram.Run told = program.run("proof", "desk.wsdl", "--message", "messages", "--profile");
        assertThat(told.status()).isEqualTo(1);
        assertThat(told.out()).contains("R1011: an element stands behind the body: Late");
        assertThat(program.run("check", "desk.wsdl", "--profile", "basic-1.1", "--profile", "basic-2.0")
                        .status())
                .isZero();
        assertThat(program.run("check", "desk.wsdl", "--profile", "basic-3").err())
                .contains(
                        "there is no profile basic-3; the profiles are basic-1.1, basic-1.2, basic-2.0, attachments-1.0");
    }

    @Test
    void whatHttpBroughtIsProvedAndItsFieldsAreJudged() throws Exception {
        program.run("sample", "desk.wsdl", "--operation", "castOff", "--into", "messages");
        String envelope = Files.readString(folder.resolve("messages/castOff-request.xml"));
        String head = "POST /desk HTTP/1.1\r\nContent-Type: text/xml; charset=utf-8\r\nSOAPAction: \"%s\"\r\n\r\n";
        Path file = folder.resolve("wire/castOff.http");
        Files.createDirectories(file.getParent());
        Files.writeString(file, head.formatted("http://lanternbay.example/harbour/desk/castOff") + envelope);
        assertThat(program.run("proof", "desk.wsdl", "--message", "wire", "--profile")
                        .out())
                .isEqualTo("1 of 1 message survived\n");
        Files.writeString(
                file, head.formatted("sail") + envelope.replaceFirst("berthNumber>[0-9]+<", "berthNumber>x<"));
        BuiltProgram.Run told = program.run("proof", "desk.wsdl", "--message", "wire", "--profile");
        assertThat(told.status()).isEqualTo(1);
        assertThat(told.out())
                .contains(
                        "wire/castOff.http:3:1: error: R2744: SOAPAction is not that of the binding: \"sail\", not ",
                        "invalid: \"x\" is no int");
        Files.writeString(file, "HTTP/1.1 202 Accepted\n\n");
        assertThat(program.run("proof", "desk.wsdl", "--message", "wire").out())
                .isEqualTo("nothing to prove: the messages carry nothing\n");
        Files.writeString(file, "HTTP/1.1 200 OK\nContent-Encoding: br\n\n?");
        assertThat(program.run("proof", "desk.wsdl", "--message", "wire").err())
                .contains("wire/castOff.http:1:1: error: it is packed with \"br\"");
    }

    /** Puts the corrections that a proof proposes into a file, as a user would. */
    private String proposed(String printed) throws IOException {
        Files.writeString(
                folder.resolve("lies.yaml"),
                printed.substring(printed.indexOf("  prefixes:"), printed.indexOf("next: "))
                        .replaceAll("(?m)^  ", ""));
        return "lies.yaml";
    }

    @Test
    void aMessageThatIsNotAsTheContractSaysIsToldWithBothPlaces() throws Exception {
        Files.writeString(folder.resolve("late.xml"), """
                <e:Envelope xmlns:e="http://schemas.xmlsoap.org/soap/envelope/"><e:Body>
                  <payDues xmlns="http://lanternbay.example/harbour/desk">
                    <callSign>lb7</callSign>
                    <amount currency="EUR">12,50</amount>
                  </payDues>
                </e:Body></e:Envelope>
                """);
        BuiltProgram.Run proof = program.run("proof", "desk.wsdl", "--message", "late.xml");
        assertThat(proof.status()).isEqualTo(1);
        assertThat(proof.out()).isEqualTo("""
                        late.xml:3:5: invalid: "lb7" does not match [A-Z0-9]{4,7} [value]
                          3 | <callSign>lb7</callSign>
                            | ^
                          at: /Envelope/Body/payDues/callSign
                          expected: a value of type CallSign
                          contract: vessels.xsd:67:7

                        late.xml:4:5: invalid: "12,50" is no decimal [value]
                          4 | <amount currency="EUR">12,50</amount>
                            | ^
                          at: /Envelope/Body/payDues/amount
                          expected: a value of type Money
                          contract: desk.xsd:62:9

                        0 of 1 message survived, 1 not as the contract says

                        If the messages are right and the contract is not, these corrections make 1 of 1 message fit:

                          prefixes:
                            vessels: "http://lanternbay.example/harbour/vessels"
                            desk: "http://lanternbay.example/harbour/desk"
                          rules:
                            # changes messages of findVessel, payDues, requestBerth
                            - on: "~vessels:CallSign"
                              pattern: null
                              because: "late.xml:3:5 has 'lb7' in callSign"
                            # changes messages of payDues, requestBerth
                            - on: "~desk:Money"
                              base: "xs:string"
                              because: "late.xml:4:5 has '12,50' in amount"

                        next: put them into a file, and give it to every command with --rules FILE
                        """);
        assertThat(program.run("proof", "desk.wsdl", "--message", "late.xml", "--rules", proposed(proof.out()))
                        .out())
                .isEqualTo("1 of 1 message survived\n");
        JsonNode json = new ObjectMapper()
                .readTree(program.run("proof", "desk.wsdl", "--message", "late.xml", "--json")
                        .out());
        assertThat(json.get("invalid").asInt()).isEqualTo(1);
        assertThat(json.get("fitWhenCorrected").asInt()).isEqualTo(1);
        assertThat(json.at("/corrections/1/base").asText()).isEqualTo("{http://www.w3.org/2001/XMLSchema}string");
        assertThat(json.at("/results/0/status").asText()).isEqualTo("invalid");
        assertThat(json.at("/results/0/details/0/contract/document").asText()).isEqualTo("vessels.xsd");
    }

    @Test
    void remoteProcedureCallsAreProvedToo() throws Exception {
        String tide =
                BuiltProgram.EXAMPLE.resolve("../../tide/tide.wsdl").normalize().toString();
        program.run("sample", tide, "--operation", "*", "--into", "calls");
        BuiltProgram.Run proof = program.run("proof", tide, "--message", "calls");
        assertThat(proof.out()).endsWith("8 of 8 messages survived\n");
        Path call = folder.resolve("calls/readTide-request.xml");
        Files.writeString(call, Files.readString(call).replaceAll("<mark>.*</mark>", "<mark>x</mark><more/>"));
        BuiltProgram.Run wrong = program.run("proof", tide, "--message", call.toString());
        assertThat(wrong.out()).contains("\"x\" is no int", "<readTide> may not hold <more>");
    }

    @Test
    void onlyWhatIsSelectedIsGenerated() throws Exception {
        BuiltProgram.Run run = program.run(
                "generate", "desk.wsdl", "--operation", "castOff", "--port", "SOAP12_DESK", "--into", "code");
        assertThat(run.status()).isZero();
        Path desk = folder.resolve("code/example/lanternbay/harbour/desk");
        assertThat(Files.readString(desk.resolve("HarbourDesk.java")))
                .contains("void castOff(int berthNumber);")
                .doesNotContain("payDues");
        assertThat(Files.readString(desk.resolve("HarbourOffice.java")))
                .contains("SOAP12_DESK")
                .doesNotContain(" DESK");
        assertThat(desk.resolve("CastOff.java")).exists();
        assertThat(desk.resolve("PayDues.java")).doesNotExist();
        assertThat(folder.resolve("code/example/lanternbay/harbour/vessels")).doesNotExist();
        BuiltProgram.Run none = program.run("generate", "desk.wsdl", "--operation", "castof*", "--port", "Dock");
        assertThat(none.status()).isEqualTo(2);
        assertThat(none.err()).startsWith("error: --port: the contract has no port Dock; it has Desk, Soap12Desk");
    }

    @Test
    void whatCannotBeFoundIsNamed() throws Exception {
        BuiltProgram.Run misspelt = program.run("sample", "desk.wsdl", "--element", "pas");
        assertThat(misspelt.status()).isEqualTo(2);
        assertThat(misspelt.err()).startsWith("error: --element: the contract has no element pas; did you mean pass?");
        BuiltProgram.Run nothing = program.run("sample", "desk.wsdl");
        assertThat(nothing.status()).isEqualTo(2);
        assertThat(nothing.err()).contains("--operation: requestBerth, listBerths, findVessel, payDues, castOff");
        Files.writeString(
                folder.resolve("units.xsd"),
                "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'><xs:complexType name='Unit'/></xs:schema>");
        for (List<String> asked : List.of(List.of("--all", "--into", "units"), List.<String>of())) {
            BuiltProgram.Run empty = program.run(Stream.concat(Stream.of("sample", "units.xsd"), asked.stream())
                    .toArray(String[]::new));
            assertThat(empty.status()).isEqualTo(2);
            assertThat(empty.err())
                    .startsWith("error: the contract has no element that a message could begin with, and no operation");
        }
        BuiltProgram.Run missing = program.run("proof", "desk.wsdl", "--message", "nowhere.xml");
        assertThat(missing.status()).isEqualTo(2);
        assertThat(missing.err()).startsWith("error: --message: there is no file nowhere.xml");
    }

    /** Of a message that cannot be valid there is a sample all the same, and it is said why it is not. */
    @Test
    void messagesThatNothingCanBeAreNamed() throws Exception {
        Files.writeString(folder.resolve("odd.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:soap="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:o="urn:odd" targetNamespace="urn:odd">
                  <types><xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:odd">
                    <xs:complexType name="Mark" abstract="true"/>
                    <xs:element name="mark" type="o:Mark"/>
                    <xs:element name="sign" type="xs:string"/>
                  </xs:schema></types>
                  <message name="ask"><part name="mark" element="o:mark"/></message>
                  <message name="told"><part name="sign" element="o:sign"/></message>
                  <portType name="Odd"><operation name="ask"><input message="o:ask"/><output message="o:told"/></operation>
                    <operation name="tell"><input message="o:told"/><output message="o:ask"/></operation></portType>
                  <binding name="Odd" type="o:Odd"><soap:binding transport="http://schemas.xmlsoap.org/soap/http"/>
                    <operation name="ask"><input><soap:body use="literal"/></input><output><soap:body use="literal"/></output></operation>
                    <operation name="tell"><input><soap:body use="literal"/></input><output><soap:body use="literal"/></output></operation>
                  </binding>
                  <service name="Odd"><port name="Odd" binding="o:Odd"><soap:address location="http://localhost/"/></port></service>
                </definitions>
                """);
        String why =
                " is valid: mark is abstract and nothing may stand in its place, or has to hold another of its kind without end"
                        + " [sample-impossible]";
        BuiltProgram.Run both = program.run("sample", "odd.wsdl", "--operation", "*", "--into", "odd");
        assertThat(both.err())
                .contains(
                        "odd.wsdl:8:41: warning: no request of ask" + why,
                        "odd.wsdl:8:41: warning: no answer of tell" + why);
        assertThat(both.out()).startsWith("4 messages written into odd");
        assertThat(program.run("sample", "odd.wsdl", "--operation", "tell").err())
                .isEmpty();
    }

    /** What would have to refer to something that is no part of it is no message by itself; proof says the same. */
    @Test
    void samplesThatAreNotValidAreNamed() throws Exception {
        Files.writeString(folder.resolve("mooring.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="mooring"><xs:complexType>
                    <xs:attribute name="vessel" type="xs:IDREF" use="required"/>
                  </xs:complexType></xs:element>
                  <xs:element name="harbour"><xs:complexType><xs:sequence>
                    <xs:element name="vessel" minOccurs="0"><xs:complexType>
                      <xs:attribute name="number" type="xs:ID" use="required"/>
                    </xs:complexType></xs:element>
                    <xs:element ref="mooring"/>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        BuiltProgram.Run made = program.run("sample", "mooring.xsd", "--all", "--into", "moorings");
        assertThat(made.err())
                .startsWith(
                        "warning: the sample of mooring is not valid: the IDREF \"vessel\" leads nowhere (at /mooring)")
                .doesNotContain("harbour");
        BuiltProgram.Run proved = program.run("proof", "mooring.xsd", "--message", "moorings");
        assertThat(proved.out()).contains("harbour.xml  survived", "mooring.xml  not as the contract says");
    }

    /** What sample tells as JSON is a message for proof, and what is wrong with one is told with its place. */
    @Test
    void samplesInJsonAreProved() throws Exception {
        BuiltProgram.Run made = program.run("sample", "desk.wsdl", "--operation", "*", "--full", "--json");
        JsonNode samples = new ObjectMapper().readTree(made.out()).get("samples");
        assertThat(samples).hasSizeGreaterThan(4);
        for (JsonNode sample : samples) {
            Files.writeString(folder.resolve("m.json"), sample.get("values").toString());
            BuiltProgram.Run proved = program.run(
                    "proof",
                    "desk.wsdl",
                    "--message",
                    "m.json",
                    "--as",
                    sample.get("operation").asText());
            assertThat(proved.out()).as(sample.toString()).isEqualTo("1 of 1 message survived\n");
        }
        Files.writeString(folder.resolve("m.json"), "{\"berthNumbr\": 4}");
        BuiltProgram.Run wrong = program.run("proof", "desk.wsdl", "--message", "m.json", "--as", "castOff");
        assertThat(wrong.status()).isEqualTo(1);
        assertThat(wrong.err()).contains("m.json:1:", "there is no berthNumbr", "perhaps berthNumber");
        assertThat(program.run("proof", "desk.wsdl", "--message", "m.json", "--as", "castof")
                        .err())
                .contains("did you mean castOff?");
        assertThat(program.run("proof", "desk.wsdl", "--message", "m.json").err())
                .contains("say what the messages in JSON are");
    }
}
