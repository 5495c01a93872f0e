package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.sun.net.httpserver.HttpServer;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
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
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Services tried by the built program, at a stand-in that the built program is too. */
class CallIT {
    @TempDir
    private Path folder;

    private BuiltProgram program;
    private Process standIn;
    private BufferedReader seen;
    private String address;
    private String page;

    @BeforeEach
    void serve() throws IOException {
        program = new BuiltProgram(folder);
        program.example();
        standIn = start("--port", "0");
        seen = new BufferedReader(new InputStreamReader(standIn.getInputStream(), StandardCharsets.UTF_8));
        address = seen.readLine().strip().split(" +")[1];
        assertThat(seen.readLine()).contains("Soap12Desk");
        page = seen.readLine().strip().split(" +")[1];
        assertThat(seen.readLine())
                .isEqualTo("next: open the page, or protypos call desk.wsdl OPERATION --address " + address
                        + "; Ctrl-C ends");
    }

    private Process start(String... options) throws IOException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-jar",
                Path.of("target/protypos.jar").toAbsolutePath().toString(),
                "stand-in",
                "desk.wsdl"));
        command.addAll(List.of(options));
        return new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
    }

    @AfterEach
    void end() {
        standIn.destroyForcibly();
    }

    @Test
    void plainValuesMakeACall() throws Exception {
        BuiltProgram.Run run = program.run(
                "call",
                "desk.wsdl",
                "requestBerth",
                "--address",
                address,
                "vessel.@xsi:type=Ferry",
                "vessel.@callSign=LB4F",
                "vessel.name=Aurora",
                "vessel.lengthInMetres=38.5",
                "vessel.draughtInMetres=2.9",
                "vessel.passengers=180",
                "vessel.line=Gull Island",
                "arrival=2027-05-09T14:30:00Z",
                "stay=P2D",
                "need[0]=water",
                "need[1]=pilot");
        assertThat(run.err()).isEmpty();
        assertThat(run.status()).isZero();
        assertThat(run.out()).isEqualTo("""
                  requestBerthResponse
                    offer
                      berth
                        number          1
                        quay            quay
                        depthInMetres   12.5
                      from              2027-05-09T12:00:00Z
                      dues              12.5
                        @currency       EUR
                """);
        assertThat(seen.readLine()).isEqualTo("requestBerth: as the contract says");
    }

    @Test
    void theBuiltProgramHasThePage() throws Exception {
        HttpClient browser = HttpClient.newHttpClient();
        for (String name : List.of("", "stand-in/page.js", "stand-in/operation?operation=0")) {
            HttpResponse<String> got = browser.send(
                    HttpRequest.newBuilder(URI.create(page + name)).build(), HttpResponse.BodyHandlers.ofString());
            assertThat(got.statusCode()).as(name).isEqualTo(200);
        }
    }

    /** What its files say is played as they say it now; what is wrong in them is told, and what was played goes on. */
    @Test
    void aStandInGoesOnWithItsFiles() throws Exception {
        HttpClient browser = HttpClient.newHttpClient();
        HttpRequest read =
                HttpRequest.newBuilder(URI.create(page + "stand-in/read")).build();
        assertThat(browser.send(read, HttpResponse.BodyHandlers.ofString()).body())
                .contains("depthInMetres");
        Path schema = folder.resolve("desk.xsd");
        String before = Files.readString(schema);
        Files.writeString(schema, before.replace("depthInMetres", "depthInFathoms"));
        assertThat(seen.readLine()).isEqualTo("desk.xsd: changed, and is played as it is now");
        assertThat(browser.send(read, HttpResponse.BodyHandlers.ofString()).body())
                .contains("depthInFathoms");
        BuiltProgram.Run run = program.run("call", "desk.wsdl", "listBerths", "--address", address);
        assertThat(run.out()).contains("depthInFathoms");
        assertThat(seen.readLine()).isEqualTo("listBerths: as the contract says");
        Files.writeString(schema, before.replaceFirst("</xs:schema>", ""));
        assertThat(seen.readLine()).contains(": error: ");
        String line = seen.readLine();
        while (!line.startsWith("error:")) {
            line = seen.readLine();
        }
        assertThat(line).endsWith("what was played before goes on");
        Files.delete(schema);
        line = seen.readLine();
        while (!line.startsWith("error:")) {
            line = seen.readLine();
        }
        assertThat(line).endsWith("what was played before goes on");
        assertThat(browser.send(read, HttpResponse.BodyHandlers.ofString()).body())
                .contains("depthInFathoms");
    }

    @Test
    void jsonGoesInAndComesOut() throws Exception {
        Files.writeString(folder.resolve("dues.json"), """
                {"#header": {"pass": {"holder": "Ada", "validUntil": "2027-05-09"}},
                 "amount": {"@currency": "LBC", "#text": 12.50}, "callSign": "LB4F"}
                """);
        BuiltProgram.Run run = program.run(
                "call", "desk.wsdl", "payDues", "--address", address, "--input", "dues.json", "--json", "--wire");
        assertThat(run.status()).isZero();
        JsonNode json = new ObjectMapper().readTree(run.out());
        assertThat(json.at("/body/payDuesResponse/receiptNumber").isNumber()).isTrue();
        assertThat(json.get("deviations").asInt()).isZero();
        assertThat(run.err()).contains(">       <desk:amount currency=\"LBC\">12.50</desk:amount>");
    }

    /** Blocks may stand in a header several times (Web Services Addressing 1.0, section 3.2), and share their local name. */
    @Test
    void whatIsThereSeveralTimesIsInAnArray() throws Exception {
        String answer = """
                <e:Envelope xmlns:e="http://schemas.xmlsoap.org/soap/envelope/" xmlns:w="http://www.w3.org/2005/08/addressing">
                  <e:Header><w:RelatesTo>urn:1</w:RelatesTo><tide xmlns="urn:a">low</tide>
                    <w:RelatesTo>urn:2</w:RelatesTo><tide xmlns="urn:b">high</tide></e:Header>
                  <e:Body><listBerthsResponse xmlns="http://lanternbay.example/harbour/desk"/></e:Body>
                </e:Envelope>
                """;
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            exchange.getRequestBody().readAllBytes();
            exchange.getResponseHeaders().set("Content-Type", "text/xml");
            byte[] bytes = answer.getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(200, bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        server.start();
        try {
            String there = "http://localhost:" + server.getAddress().getPort() + "/";
            BuiltProgram.Run run = program.run("call", "desk.wsdl", "listBerths", "--address", there, "--json");
            assertThat(run.status()).isZero();
            assertThat(new ObjectMapper().readTree(run.out()).get("header"))
                    .hasToString(
                            "{\"RelatesTo\":[\"urn:1\",\"urn:2\"],\"{urn:a}tide\":\"low\",\"{urn:b}tide\":\"high\"}");
        } finally {
            server.stop(0);
        }
    }

    @Test
    void keptCallsAreMadeAgain() throws Exception {
        BuiltProgram.Run first = program.run(
                "call",
                "desk.wsdl",
                "castOff",
                "berthNumber=4",
                "--address",
                address,
                "--header",
                "Authorization: Bearer s3cret",
                "--header",
                "X-Quay: north",
                "--save",
                "leave",
                "--wire");
        assertThat(first.status()).isZero();
        assertThat(first.err())
                .contains("> Authorization: ***", "> X-Quay: north", "again: protypos call --saved leave")
                .contains("not kept: the header Authorization")
                .doesNotContain("s3cret");
        assertThat(folder.resolve("calls/leave.yaml")).content().isEqualTo("""
                contract: desk.wsdl
                operation: castOff
                address: %s
                headers:
                - "X-Quay: north"
                values:
                - berthNumber=4
                """.formatted(address));
        assertThat(seen.readLine()).isEqualTo("castOff: as the contract says");
        assertThat(program.run("call", "--saved", "leave", "berthNumber=many").err())
                .contains("many");
        assertThat(program.run("call", "--saved", "leaf").err()).contains("there is leave");
        BuiltProgram.Run five = program.run("call", "--saved", "leave", "berthNumber=5", "--repeat", "5");
        assertThat(five.status()).isZero();
        for (int i = 0; i < 5; i++) {
            assertThat(seen.readLine()).isEqualTo("castOff: as the contract says");
        }
        assertThat(five.out()).contains("calls    5: 5 answered as the contract says", "answers  all the same");
        BuiltProgram.Run again = program.run("call", "desk.wsdl", "castOff", "berthNumber=4", "--save", "leave");
        assertThat(again.err()).contains("is there already");
    }

    /** Of operations of one name that is called which takes the values, or which is named by its message or its action. */
    @Test
    void operationsOfOneNameAreToldApart() throws Exception {
        String lock = Path.of("../core/src/test/resources/wire/lock.wsdl")
                .toAbsolutePath()
                .toString();
        String nobody = "http://127.0.0.1:1/";
        for (String name : List.of("count", "countMany", "urn:many")) {
            BuiltProgram.Run run =
                    program.run("call", lock, name, "number=3", "kind={urn:k}barge", "--address", nobody, "--wire");
            assertThat(run.status()).as(run.err()).isEqualTo(3);
            assertThat(run.err()).contains("SOAPAction: \"urn:many\"", "<number>3</number>", "xmlns:q1=\"urn:k\"");
        }
        assertThat(program.run("call", lock, "count", "size=3", "--address", nobody)
                        .err())
                .contains("none of the operations called count takes", "countOne (craft), countMany (number, kind)");
    }

    /** A contract that lies is corrected for calls, samples and comparisons too, and a kept call keeps the correction. */
    @Test
    void correctionsHoldForWhateverReadsTheContract() throws Exception {
        Files.copy(Path.of("../core/src/test/resources/wire/lock.wsdl"), folder.resolve("lock.wsdl"));
        Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {l: "urn:lock"}
                rules:
                  - on: "l:pass/l:ship"
                    occurs: 0..1
                    because: a raft has no name
                """);
        String nobody = "http://127.0.0.1:1/";
        assertThat(program.run("call", "lock.wsdl", "pass", "--address", nobody).status())
                .isEqualTo(1);
        BuiltProgram.Run raft = program.run(
                "call", "lock.wsdl", "pass", "--address", nobody, "--rules", "rules.yaml", "--save", "raft");
        assertThat(raft.status()).as(raft.err()).isEqualTo(3);
        assertThat(folder.resolve("calls/raft.yaml")).content().contains("rules:", "- rules.yaml");
        assertThat(program.run("call", "--saved", "raft").status()).isEqualTo(3);
        assertThat(program.run("sample", "lock.wsdl", "--operation", "pass", "--rules", "rules.yaml")
                        .out())
                .contains("pass")
                .doesNotContain("ship");
        assertThat(program.run("compare", "lock.wsdl", "lock.wsdl", "--rules", "rules.yaml")
                        .out())
                .isEqualTo("no differences\n");
        Files.writeString(folder.resolve("rules.yaml"), "rules: {on: 1}\n");
        assertThat(program.run("sample", "lock.wsdl", "--operation", "pass", "--rules", "rules.yaml")
                        .status())
                .isEqualTo(1);
    }

    @Test
    void attachmentsAndWhoCallsTravelWithTheMessage() throws Exception {
        String papers =
                Path.of("../examples/papers/papers.wsdl").toAbsolutePath().toString();
        Files.copy(Path.of(papers), folder.resolve("papers.wsdl"));
        Files.writeString(folder.resolve("photo.png"), "a photo");
        Files.writeString(folder.resolve("crew.txt"), "Ada, Finn");
        Process room = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-jar",
                        Path.of("target/protypos.jar").toAbsolutePath().toString(),
                        "stand-in",
                        papers,
                        "--port",
                        "0")
                .redirectErrorStream(true)
                .start();
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(room.getInputStream(), StandardCharsets.UTF_8))) {
            lines.readLine();
            String pouch = lines.readLine().strip().split(" +")[1];
            lines.readLine();
            lines.readLine();
            assertThat(program.run("call", "papers.wsdl", "send", "callSign=LB4F", "--attach", "photo=photo.png")
                            .err())
                    .contains("the part crew list is missing", "--attach \"crew list=FILE\"", "nothing was sent");
            BuiltProgram.Run sent = program.run(
                    "call",
                    "papers.wsdl",
                    "send",
                    "callSign=LB4F",
                    "--attach",
                    "photo=photo.png",
                    "--attach",
                    "crew list=crew.txt",
                    "--address",
                    pouch,
                    "--save",
                    "pouch",
                    "--json");
            assertThat(sent.status()).as(sent.err()).isZero();
            JsonNode json = new ObjectMapper().readTree(sent.out());
            assertThat(json.at("/attached/receipt/type").asText()).isEqualTo("application/pdf");
            assertThat(lines.readLine()).isEqualTo("send: as the contract says");
            assertThat(folder.resolve("calls/pouch.yaml"))
                    .content()
                    .contains("- \"photo=photo.png\"".replace("\"", ""), "crew list=crew.txt");
            BuiltProgram.Run again = program.run("call", "--saved", "pouch", "--wire");
            assertThat(again.status()).as(again.err()).isZero();
            assertThat(again.err()).contains("multipart/related", "< HTTP 200");
            assertThat(program.run("call", "papers.wsdl", "file", "--security", "digest")
                            .err())
                    .contains("PROTYPOS_USER and PROTYPOS_PASSWORD say who calls");
            assertThat(program.run("call", "papers.wsdl", "file", "--sign", "crew.txt")
                            .err())
                    .contains("crew.txt cannot be opened");
        } finally {
            room.destroyForcibly();
        }
    }

    @Test
    void answersAreRecordedOnTheirWay() throws Exception {
        Process between = start("--port", "0", "--forward", address, "--record", "told.yaml");
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(between.getInputStream(), StandardCharsets.UTF_8))) {
            String at = lines.readLine().strip().split(" +")[1];
            BuiltProgram.Run run = program.run("call", "desk.wsdl", "listBerths", "deepEnoughFor=2.5", "--address", at);
            assertThat(run.status()).isZero();
            assertThat(folder.resolve("told.yaml")).content().contains("""
                      listBerths:
                      - when:
                          deepEnoughFor: "2.5"
                        whole: true
                        answer:
                          berth:
                    """);
        } finally {
            between.destroyForcibly();
        }
        assertThat(seen.readLine()).isEqualTo("listBerths: as the contract says");
        assertThat(program.run("stand-in", "desk.wsdl", "--forward", address, "--record", "told.yaml")
                        .err())
                .contains("told.yaml is there already");
    }

    @Test
    void shellsCompleteWhatIsThere() throws Exception {
        assertThat(program.run("adopt", "desk.wsdl", "--name", "desk").status()).isZero();
        Files.createDirectories(folder.resolve("calls"));
        Files.writeString(folder.resolve("calls/leave.yaml"), "contract: desk\noperation: castOff\n");
        Files.writeString(folder.resolve("calls/$(touch harm).yaml"), "");
        String jar = Path.of("target/protypos.jar").toAbsolutePath().toString();
        String script = "protypos() { '" + Path.of(System.getProperty("java.home"), "bin", "java") + "' -jar '" + jar
                + "' \"$@\"; }\n" + program.run("completion", "bash").out() + """
                words() { COMP_WORDS=("$@"); COMP_CWORD=$(($# - 1)); _protypos; echo "${COMPREPLY[@]}"; }
                words protypos ca
                words protypos call d
                words protypos call desk re
                words protypos call desk castOff --re
                words protypos call --saved ''
                """;
        Process shell = new ProcessBuilder("bash", "-c", script)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        assertThat(new String(shell.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .isEqualTo("call\ndesk\nrequestBerth\n--record-in --record-out --repeat\nleave\n");
        assertThat(folder.resolve("harm")).doesNotExist();
    }

    @Test
    void whatIsWrongIsNamedBeforeAnythingIsSent() throws Exception {
        BuiltProgram.Run run =
                program.run("call", "desk.wsdl", "payDues", "callSign=lb", "amuont=3", "--address", address);
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.err()).contains("there is no amuont").contains("cure: perhaps amount");
        BuiltProgram.Run values = program.run("call", "desk.wsdl", "payDues", "callSign=lb", "--address", address);
        assertThat(values.err()).isEqualTo("""
                  callSign  "lb" does not match [A-Z0-9]{4,7}; wanted is a value of type CallSign
                  amount    is missing
                error: the request is not as the contract says: nothing was sent
                  protypos call desk.wsdl lists what operations take
                """);
        assertThat(program.run("call", "desk.wsdl").out())
                .contains("\ncastOff\n  berthNumber=    a whole number\n")
                .endsWith("next: protypos call desk.wsdl requestBerth NAME=VALUE …\n");
        assertThat(program.run("call", "desk.wsdl", "castOf").err()).contains("did you mean castOff?");
        assertThat(program.run("call", "desk.wsdl", "castOff", "berthNumber=1", "--address", "http://127.0.0.1:1/")
                        .status())
                .isEqualTo(3);
    }
}
