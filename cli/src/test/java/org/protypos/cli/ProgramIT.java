package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The built program, run as its users run it, on files in a folder. */
class ProgramIT {
    @TempDir
    private Path folder;

    private BuiltProgram.Run run(String... arguments) throws IOException, InterruptedException {
        return new BuiltProgram(folder).run(arguments);
    }

    private void example() throws IOException {
        new BuiltProgram(folder).example();
    }

    @Test
    void showTellsWhatAContractOffers() throws Exception {
        example();
        BuiltProgram.Run run = run("show", "desk.wsdl");
        assertThat(run.status()).isZero();
        assertThat(run.err()).isEmpty();
        assertThat(run.out()).isEqualTo("""
                        documents
                          desk.wsdl    WSDL    http://lanternbay.example/harbour/desk
                          desk.xsd     schema  http://lanternbay.example/harbour/desk
                          vessels.xsd  schema  http://lanternbay.example/harbour/vessels

                        service HarbourOffice
                          DESK         SOAP 1.1  http://office.lanternbay.example/desk    HarbourDesk (default)
                          SOAP12_DESK  SOAP 1.2  http://office.lanternbay.example/desk12  HarbourDesk

                        interface HarbourDesk  example.lanternbay.harbour.desk
                          BerthOffer requestBerth(Vessel vessel, XmlDateTime arrival, XmlDuration stay, List<Need> need) throws NoBerthFreeFault
                          List<Berth> listBerths(BigDecimal deepEnoughFor)
                          Vessel findVessel(String callSign)
                          PayDuesResult payDues(String callSign, Money amount, Pass pass)
                            result PayDuesResult(long receiptNumber, XmlDate paidOn)
                            header pass in
                          void castOff(int berthNumber)
                            one-way

                        types
                          18 classes and 2 enumerations in example.lanternbay.harbour.desk, example.lanternbay.harbour.vessels

                        next: protypos generate desk.wsdl --into generated
                        """);
    }

    @Test
    void jsonIsOneDocumentAndNothingElse() throws Exception {
        example();
        JsonNode show = json(run("show", "desk.wsdl", "--json"));
        assertThat(show.at("/documents/0/sha256").asText()).hasSize(64);
        assertThat(show.at("/services/0/ports/1/protocol").asText()).isEqualTo("SOAP 1.2");
        assertThat(show.at("/interfaces/0/operations/3/headers/0").asText())
                .isEqualTo("{http://lanternbay.example/harbour/desk}pass");
        assertThat(show.at("/interfaces/0/operations/0/faults/0").asText()).isEqualTo("NoBerthFreeFault");
        JsonNode check = json(run("check", "desk.wsdl", "--json"));
        assertThat(check.get("sound").asBoolean()).isTrue();
        assertThat(check.get("findings")).isEmpty();
        JsonNode generate = json(run("generate", "desk.wsdl", "--json", "--package", "harbour"));
        assertThat(generate.get("added")).hasSizeGreaterThan(50);
        assertThat(folder.resolve("generated/harbour/HarbourDeskClient.java")).exists();
        JsonNode broken = json(run("generate", "nowhere.wsdl", "--json"));
        assertThat(broken.at("/findings/0/code").asText()).isEqualTo("document-unreachable");
    }

    @Test
    void componentsAreShownInFull() throws Exception {
        example();
        JsonNode offer = json(run("show", "desk.wsdl", "~BerthOffer", "--json")).at("/components/0");
        assertThat(offer.at("/structure/0/children/2/type").asText()).isEqualTo("decimal");
        assertThat(offer.at("/usedBy/0/as").asText()).isEqualTo("offer");
        assertThat(offer.at("/operations/0/name").asText()).isEqualTo("requestBerth");
        JsonNode cut = json(run("show", "desk.wsdl", "payDues", "castOff", "--depth", "1", "--json"));
        assertThat(cut.at("/components/0/structure/0/children/0/kind").asText()).isEqualTo("header");
        assertThat(cut.at("/components/1/inCode").asText()).isEqualTo("void castOff(int berthNumber)");
        assertThat(cut.at("/components/1/structure/0/children/0/cut").asBoolean())
                .isFalse();
        JsonNode usages =
                json(run("show", "desk.wsdl", "Vessel", "--usages", "--json")).at("/components/0");
        assertThat(usages.has("structure")).isFalse();
        assertThat(usages.get("usedBy")).hasSize(5);
        assertThat(json(run("show", "desk.wsdl", "--tree", "--json"))
                        .at("/documents/1/leadsTo/0/name")
                        .asText())
                .isEqualTo("vessels.xsd");
        assertThat(run("show", "vessls.xsd", "--tree").err()).contains("vessls.xsd", "document-unreachable");
        Files.writeString(folder.resolve("half.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/">
                  <import namespace="urn:gone" location="gone.wsdl"/>
                  <import namespace="urn:broken" location="broken.wsdl"/>
                </definitions>
                """);
        Files.writeString(folder.resolve("broken.wsdl"), "<definitions");
        BuiltProgram.Run half = run("show", "half.wsdl", "--tree");
        assertThat(half.status()).isEqualTo(1);
        assertThat(half.out()).isEqualTo("half.wsdl\n  import broken.wsdl\n  import gone.wsdl  (not there)\n");
        assertThat(half.err())
                .contains("half.wsdl:2:32: error: the document gone.wsdl", "broken.wsdl:1:13", "malformed-xml");
        JsonNode halves = json(run("show", "half.wsdl", "--tree", "--json"));
        assertThat(halves.at("/documents/0/leadsTo/1/there").asBoolean()).isFalse();
        assertThat(halves.at("/findings")).hasSize(2);
        BuiltProgram.Run missing = run("show", "desk.wsdl", "Berht", "nothing", "Need");
        assertThat(missing.status()).isEqualTo(2);
        assertThat(missing.err()).contains("did you mean Berth?", "nothing called nothing");
        assertThat(run("show", "desk.wsdl", "currency").err())
                .contains("nothing called currency by itself; it is in type:Money");
        assertThat(run("show", "desk.wsdl", "vessls.xsd").err()).contains("vessls.xsd", "document-unreachable");
        assertThat(run("show", "desk.wsdl", "--usages").err()).contains("name what is used");
    }

    /** What somebody wrote into a contract stays text in Markdown, and says nothing to a terminal. */
    @Test
    void markdownIsTextAndNothingElse() throws Exception {
        Files.writeString(folder.resolve("evil.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:complexType name="Evil"><xs:annotation><xs:documentation>
                    &lt;script>alert(1)&lt;/script> [click](javascript:alert(1)) **loud** `code` | cell
                    # heading</xs:documentation></xs:annotation>
                    <xs:sequence><xs:element name="a_b_c" type="xs:int" default="7"/></xs:sequence>
                  </xs:complexType>
                </xs:schema>
                """);
        assertThat(run("show", "evil.xsd", "--markdown").out()).isEqualTo("""
                # Types

                ## type Evil

                \\<script\\>alert(1)\\</script\\> \\[click\\](javascript:alert(1)) \\*\\*loud\\*\\* \\`code\\` \\| cell \\# heading

                - **a\\_b\\_c** `int` 1; 7 when empty

                """);
        example();
        String whole = run("show", "desk.wsdl", "--markdown").out();
        assertThat(whole)
                .contains(
                        "## operation castOff of HarbourDesk",
                        "`void castOff(int berthNumber)`",
                        "Used by element payDues");
    }

    @Test
    void thePageIsOneFile() throws Exception {
        example();
        BuiltProgram.Run run = run("show", "desk.wsdl", "--html", "desk.html");
        assertThat(run.out()).isEqualTo("written to desk.html: open it in a browser\n");
        String page = Files.readString(folder.resolve("desk.html"));
        assertThat(page)
                .contains("HarbourDesk", "REQUEST-BERTH", "A request with what must be")
                .contains("default-src 'none'")
                .doesNotContain(" src=", "<link");
        assertThat(run("show", "desk.wsdl", "--html", "desk.html", "--json").status())
                .isEqualTo(2);
    }

    /** Where a person looks, what is longer than the screen goes through the pager, and lines are as wide as the window. */
    @Test
    void whatIsLongGoesThroughThePager() throws Exception {
        example();
        for (String lines : List.of("8", "90")) {
            ProcessBuilder builder = watched("-Dprotypos.size=" + lines + " 70", "show", "desk.wsdl", "requestBerth");
            builder.environment().put("NO_COLOR", "1");
            builder.environment().put("PAGER", "sed 's/^/> /'");
            Process process = builder.start();
            List<String> said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .toList();
            assertThat(process.waitFor()).isZero();
            assertThat(said).hasSizeGreaterThan(30);
            assertThat(said).allMatch(line -> line.startsWith("> ") == lines.equals("8"));
            assertThat(said).allMatch(line -> line.length() <= 72);
            assertThat(said).contains((lines.equals("8") ? "> " : "") + "          water | shore-power | pilot");
        }
    }

    /** The program as a launcher starts it where a person looks. */
    private ProcessBuilder watched(String property, String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Dprotypos.terminal=true",
                property,
                "-jar",
                Path.of("target/protypos.jar").toAbsolutePath().toString()));
        command.addAll(List.of(arguments));
        return new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
    }

    /** A message that is shown whole may hold what a terminal obeys: where a person looks, it is seen and not obeyed. */
    @Test
    void aTerminalObeysNothingOfAMessage() throws Exception {
        Files.writeString(folder.resolve("evil.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="evil"><xs:simpleType><xs:restriction base="xs:string">
                    <xs:enumeration value="a&#x9b;31mb&#x202e;c"/></xs:restriction></xs:simpleType></xs:element>
                </xs:schema>
                """);
        assertThat(run("sample", "evil.xsd", "--element", "evil").out()).contains("a\u009b31mb\u202ec");
        assertThat(run("draft", "--from", "evil.xsd").out()).contains("a\\u009b31mb\\u202ec");
        for (List<String> command : List.of(
                List.of("sample", "evil.xsd", "--element", "evil"),
                List.of("show", "evil.xsd", "evil", "--json"),
                List.of("show", "evil.xsd", "evil"),
                List.of("evil\u009b31m"))) {
            Process process = watched("-Dprotypos.size=90 90", command.toArray(String[]::new))
                    .start();
            String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(said).as("%s", command).contains("\ufffd31m").doesNotContain("\u009b", "\u202e");
        }
    }

    private static JsonNode json(BuiltProgram.Run run) throws IOException {
        assertThat(run.err()).isEmpty();
        return new ObjectMapper().readTree(run.out());
    }

    @Test
    void checkPrintsFindingsLikeACompiler() throws Exception {
        Files.writeString(folder.resolve("quay.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="quay" type="xs:sting"/>
                \t<xs:include schemaLocation="berths.xsd"/>
                </xs:schema>
                """);
        BuiltProgram.Run run = run("check", "quay.xsd");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.out()).isEqualTo("""
                        quay.xsd:2:27: error: there is no type sting in namespace http://www.w3.org/2001/XMLSchema [unresolved-name]
                          2 | <xs:element name="quay" type="xs:sting"/>
                            |                         ^
                          cure: did you mean string?

                        quay.xsd:3:14: error: the document berths.xsd cannot be read: there is no such file [document-unreachable]
                          3 | <xs:include schemaLocation="berths.xsd"/>
                            |             ^
                          cure: save it there, or map the address to a local copy in a catalog (--catalog)

                        2 errors in 1 document
                        """);
        BuiltProgram.Run refused = run("generate", "quay.xsd");
        assertThat(refused.status()).isEqualTo(1);
        assertThat(refused.err()).contains("quay.xsd:2:27").contains("2 errors: nothing was written");
        assertThat(folder.resolve("generated")).doesNotExist();
    }

    @Test
    void checkTellsWhatAValidatorWouldRefuseAndCodeIsMadeAllTheSame() throws Exception {
        Files.writeString(folder.resolve("tides.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="tides">
                    <xs:complexType>
                      <xs:sequence>
                        <xs:element name="level" type="xs:decimal" minOccurs="0" default="low"/>
                        <xs:any/>
                      </xs:sequence>
                    </xs:complexType>
                  </xs:element>
                </xs:schema>
                """);
        BuiltProgram.Run run = run("check", "tides.xsd");
        assertThat(run.status()).isZero();
        assertThat(run.out()).startsWith("""
                tides.xsd:5:66: warning: a default is no value of its type: "low" is no decimal [value-of-type]
                  5 | <xs:element name="level" type="xs:decimal" minOccurs="0" default="low"/>
                    |                                                          ^
                  cure: write one, or leave it out

                tides.xsd:6:9: warning: <level> may be any element here or the element before (5:9): nothing tells which [content-ambiguous]
                """);
        assertThat(run.out()).contains("2 warnings in 1 document");
        assertThat(run("generate", "tides.xsd").status()).isZero();
        assertThat(run("show", "tides.xsd", "--html", "tides.html").status()).isZero();
        assertThat(folder.resolve("tides.html")).content().contains("nothing tells which");
    }

    @Test
    void generatePreviewsWritesOnceAndLeavesTheRestAlone() throws Exception {
        example();
        BuiltProgram.Run preview = run("generate", "desk.wsdl", "--into", "code", "--preview");
        assertThat(preview.out())
                .contains("  add  example/lanternbay/harbour/desk/Berth.java")
                .contains("would be written");
        assertThat(folder.resolve("code")).doesNotExist();

        BuiltProgram.Run first = run("generate", "desk.wsdl", "--into", "code");
        assertThat(first.status()).isZero();
        assertThat(first.out())
                .startsWith("136 files written into code\n")
                .endsWith("next: compile code and call example.lanternbay.harbour.desk.HarbourDeskClient.connect()\n");
        FileTime old = FileTime.fromMillis(1_000_000_000_000L);
        List<Path> files;
        try (Stream<Path> walk = Files.walk(folder.resolve("code"))) {
            files = walk.filter(Files::isRegularFile).toList();
        }
        for (Path file : files) {
            Files.setLastModifiedTime(file, old);
        }
        BuiltProgram.Run second = run("generate", "desk.wsdl", "--into", "code");
        assertThat(second.out()).startsWith("nothing has changed: 136 files in code\n");
        for (Path file : files) {
            assertThat(Files.getLastModifiedTime(file)).isEqualTo(old);
        }

        BuiltProgram.Run types = run("generate", "desk.wsdl", "--into", "code", "--produce", "types");
        assertThat(types.status()).isZero();
        assertThat(folder.resolve("code/example/lanternbay/harbour/desk/HarbourDeskClient.java"))
                .doesNotExist();
        assertThat(types.out()).doesNotContain("all that was generated");
        assertThat(folder.resolve("code/example/lanternbay/harbour/desk/Berth.java"))
                .exists();

        BuiltProgram.Run another = run("generate", "vessels.xsd", "--into", "code", "--package", "bay.vessels");
        assertThat(another.out()).contains("\nremoved: all that was generated here before; ");
    }

    @Test
    void schemasAloneAndSeveralOfThemGiveTypes() throws Exception {
        example();
        Files.writeString(
                folder.resolve("tides.xsd"),
                "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'><xs:element name='tide' type='xs:int'/></xs:schema>");
        BuiltProgram.Run run = run("generate", "vessels.xsd", "tides.xsd", "--runtime", "library");
        assertThat(run.status()).isZero();
        assertThat(run.out()).startsWith("6 files written into generated");
        assertThat(Files.readString(folder.resolve("generated/example/lanternbay/harbour/vessels/Ferry.java")))
                .contains("import org.protypos.runtime.xml.XmlInput;");
    }

    @Test
    void aContractMayComeFromAServer() throws Exception {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            Path file = BuiltProgram.EXAMPLE.resolve(
                    exchange.getRequestURI().getPath().substring(1));
            byte[] bytes = Files.exists(file)
                    ? Files.readString(file)
                            .replace("vessels.xsd", "http://127.0.0.1:1/gone.xsd")
                            .getBytes(StandardCharsets.UTF_8)
                    : new byte[] {'?'};
            exchange.sendResponseHeaders(Files.exists(file) ? 200 : 404, bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        server.start();
        String base = "http://127.0.0.1:" + server.getAddress().getPort() + "/";
        BuiltProgram.Run run = run("check", base + "desk.wsdl");
        assertThat(run.status()).isEqualTo(1);
        assertThat(run.out())
                .contains(base + "desk.xsd:8:68: warning: the document http://127.0.0.1:1/gone.xsd cannot be read")
                .contains(
                        "desk.xsd:8:68: error: the document that cannot be read is needed for Vessel, CallSign [document-needed]")
                .endsWith("1 error, 1 warning in 2 documents\n");
        Files.writeString(
                folder.resolve("catalog.xml"),
                "<catalog xmlns='urn:oasis:names:tc:entity:xmlns:xml:catalog'><uri name='http://127.0.0.1:1/gone.xsd' uri='"
                        + BuiltProgram.EXAMPLE.resolve("vessels.xsd").toUri() + "'/></catalog>");
        assertThat(run("check", base + "desk.wsdl", "--catalog", "catalog.xml").out())
                .startsWith("no findings in 3 documents");
        BuiltProgram.Run missing = run("check", base + "nothing.wsdl");
        assertThat(missing.status()).isEqualTo(3);
        assertThat(missing.out()).contains("the server answered with HTTP status 404");
        server.stop(0);
        BuiltProgram.Run gone = run("show", base + "desk.wsdl");
        assertThat(gone.status()).isEqualTo(3);
        assertThat(gone.err()).contains("document-unreachable");
    }

    @Test
    void theCommandLineIsExplained() throws Exception {
        example();
        BuiltProgram.Run wrong = run("generate", "--produce", "types,sails", "desk.wsdl");
        assertThat(wrong.status()).isEqualTo(2);
        assertThat(wrong.err()).contains("sails").contains("protypos generate --help");
        assertThat(run("generate", "desk.wsdl", "--produce", "archive").err())
                .startsWith("error: --produce: there is no \"archive\"; use types or client or server\n");
        assertThat(run("show", "desk.wsdl", "--depth", "deep").err()).contains("--depth: \"deep\" is no whole number");
        assertThat(run("generate", "desk.wsdl", "--into", "").err()).contains("--into: the value is empty");
        assertThat(run("check", "desk.wsdl", "").err()).contains("an argument is empty");
        assertThat(run("show", "desk.wsdl", "--json=yes").err()).contains("--json takes no value");
        assertThat(run("bridge", "vessels.xsd", "--files", ".").err()).contains("nothing was carried");
        assertThat(json(run("call", "desk.wsdl", "--json"))
                        .at("/operations/1/values/0/name")
                        .asText())
                .isEqualTo("deepEnoughFor");
        assertThat(json(run("draft", "--begin", "fog.yaml", "--json"))
                        .at("/files/0")
                        .asText())
                .isEqualTo("fog.yaml");
        assertThat(run("sail").status()).isEqualTo(2);
        assertThat(run("generate", "--package", "a-b", "desk.wsdl").status()).isEqualTo(2);
        assertThat(run("check").status()).isEqualTo(2);
        BuiltProgram.Run help = run("generate", "--help");
        assertThat(help.status()).isZero();
        assertThat(help.out()).contains("--into=DIR");
        assertThat(run().out()).contains("demo");
    }

    @Test
    void namesAreChosenByRulesAndTheContractIsCorrected() throws Exception {
        for (String file : new String[] {"customs.wsdl", "names.yaml", "corrections.yaml"}) {
            Files.copy(Path.of("../examples/customs", file), folder.resolve(file));
        }
        BuiltProgram.Run check = run("check", "customs.wsdl", "--rules", "names.yaml", "--suggest", "names.yaml");
        assertThat(check.status()).isZero();
        assertThat(check.out())
                .contains(
                        "FREE_  value ~c:duty='FREE' (customs.wsdl:27:11)  FREE is the name of value ~c:duty='free' (26:11)")
                .contains(
                        "  names.yaml:15:5  ~c:cargo-item/@*                  meets 2, the first ~c:cargo-item/@LOT_NO")
                .endsWith("""
                        no findings, 4 clashes of names in 1 document
                        next: look at names.yaml and give it to other commands with --rules names.yaml
                        """);
        assertThat(folder.resolve("names.yaml")).content().startsWith("# What the customs house calls its things");
        assertThat(run("check", "customs.wsdl", "--rules", "names.yaml", "--json")
                        .out())
                .contains("\"clashes\" : [ ]");
        BuiltProgram.Run corrections =
                run("show", "customs.wsdl", "--rules", "corrections.yaml", "--rules", "names.yaml", "--corrections");
        assertThat(corrections.out())
                .contains("  - type xs:int\n  + type xs:string\n")
                .endsWith("2 corrections\n");
        BuiltProgram.Run generate = run(
                "generate", "customs.wsdl", "--rules", "names.yaml", "--rules", "corrections.yaml", "--into", "code");
        assertThat(generate.status()).isZero();
        assertThat(folder.resolve("code/bay/customs/Cargo.java"))
                .content()
                .contains("public List<BigDecimal> getWeight()")
                .contains("public String getLotNo()");
        Files.writeString(folder.resolve("names.yaml"), "rules:\n  - {on: \"~x:Cargo\", name: Cargo}\n");
        BuiltProgram.Run refused = run("generate", "customs.wsdl", "--rules", "names.yaml", "--into", "other");
        assertThat(refused.status()).isEqualTo(1);
        assertThat(refused.err())
                .startsWith("names.yaml:2:10: error: the prefix x in \"~x:Cargo\" is not declared [rule-selector]")
                .endsWith("error: 1 error: nothing was written\n");
        assertThat(folder.resolve("other")).doesNotExist();
    }

    @Test
    void theDemoRunsFromContractToCall() throws Exception {
        BuiltProgram.Run run = run("demo", "--into", "bay");
        assertThat(run.status()).isZero();
        assertThat(run.err()).isEmpty();
        assertThat(run.out())
                .contains("136 files written into bay/generated")
                .contains("no warning")
                .contains("berth 7 from 2027-05-09T14:30:00+02:00 for 432.000 LBC")
                .contains("no berth is free for a draught of 15.0 m; waiting: 2")
                .contains("Tanker{callSign=LB9T")
                .contains("PayDuesResult[receiptNumber=270451, paidOn=2027-05-09]")
                .endsWith("next: protypos show YOUR-CONTRACT\n");
        assertThat(folder.resolve("bay/compiled/example/lanternbay/office/Visit.class"))
                .exists();
        assertThat(run("demo", "--into", "bay").status()).isEqualTo(2);
    }
}
