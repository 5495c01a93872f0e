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
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The life of a contract in a project, by the built program. */
class ProjectIT {
    @TempDir
    private Path home;

    private Path project;
    private Path origin;
    private BuiltProgram program;

    @BeforeEach
    void makeFolders() throws IOException {
        project = Files.createDirectory(home.resolve("project"));
        origin = Files.createDirectory(home.resolve("origin"));
        new BuiltProgram(origin).example();
        program = new BuiltProgram(project);
    }

    private void edit(Path file, String from, String to) throws IOException {
        String text = Files.readString(file);
        assertThat(text).contains(from);
        Files.writeString(file, text.replace(from, to));
    }

    private void schema(String from, String to) throws IOException {
        edit(origin.resolve("desk.xsd"), from, to);
    }

    private Map<String, String> content() throws IOException {
        Map<String, String> content = new TreeMap<>();
        try (Stream<Path> files = Files.walk(project)) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                content.put(project.relativize(file).toString().replace('\\', '/'), Files.readString(file));
            }
        }
        return content;
    }

    @Test
    void aContractFromTheNetworkWorksOffLineAndByName() throws Exception {
        Map<String, String> documents = new TreeMap<>();
        documents.put(
                "wsdl",
                Files.readString(origin.resolve("desk.wsdl"))
                        .replace("schemaLocation=\"desk.xsd\"", "schemaLocation=\"?xsd=1\""));
        documents.put(
                "xsd=1",
                Files.readString(origin.resolve("desk.xsd"))
                        .replace("schemaLocation=\"vessels.xsd\"", "schemaLocation=\"/other/Vessels.svc?xsd=2\""));
        documents.put("xsd=2", Files.readString(origin.resolve("vessels.xsd")));
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            byte[] bytes = documents.get(exchange.getRequestURI().getQuery()).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", "text/xml");
            exchange.sendResponseHeaders(200, bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        server.start();
        String address = "http://127.0.0.1:" + server.getAddress().getPort() + "/Desk.svc?wsdl";
        BuiltProgram.Run adopted = program.run("adopt", address, "--name", "desk");
        server.stop(0);
        assertThat(adopted.err()).isEmpty();
        assertThat(adopted.out()).isEqualTo("""
                desk: 3 documents pinned
                  contracts/desk/Desk.wsdl
                  contracts/desk/Desk.svc-xsd_1.xsd
                  contracts/desk/other/Vessels.svc-xsd_2.xsd
                it offers 5 operations and 10 types
                next: protypos show desk, or look at protypos.yaml and type protypos generate
                """);
        assertThat(Files.readString(project.resolve("contracts/desk/Desk.wsdl")))
                .isEqualTo(documents.get("wsdl"));
        assertThat(program.run("show", "desk").out()).contains("18 classes and 2 enumerations");
        assertThat(program.run("sample", "desk", "--operation", "castOff").status())
                .isZero();
        BuiltProgram.Run refresh = program.run("refresh", "desk");
        assertThat(refresh.status()).isEqualTo(3);
        assertThat(refresh.err()).contains("desk was left as it was");
        assertThat(program.run("generate").out()).startsWith("desk: 136 files written into generated\n");
        Path moved = home.resolve("elsewhere");
        Files.move(project, moved);
        BuiltProgram there = new BuiltProgram(moved);
        assertThat(there.run("generate", "--check").out()).isEqualTo("everything is as it would be generated\n");
        assertThat(Files.readString(moved.resolve("contracts/desk/protypos.lock.json")))
                .doesNotContain(home.toString());
        assertThat(program(moved.resolve("contracts/desk"))
                        .run("generate", "--check")
                        .status())
                .isZero();
    }

    private static BuiltProgram program(Path folder) {
        return new BuiltProgram(folder);
    }

    @Test
    void changesAreToldAndTakenAndNoLineIsLost() throws Exception {
        program.run("adopt", "../origin/desk.wsdl");
        edit(project.resolve("protypos.yaml"), "    # scaffold: src/main/java", "    scaffold: own # mine");
        program.run("generate");
        Path own = project.resolve("own/example/lanternbay/harbour/desk/HarbourDeskImpl.java");
        edit(own, "throw CallRefusedException.notImplemented(\"castOff is not implemented\");", "// I do nothing");
        String mine = Files.readString(own);
        assertThat(program.run("refresh").out()).isEqualTo("desk: unchanged\n");

        schema(
                "<xs:element name=\"quay\" type=\"xs:string\"/>",
                "<xs:element name=\"quay\" type=\"xs:string\"/><xs:element name=\"lit\" type=\"xs:boolean\" minOccurs=\"0\"/>");
        Map<String, String> before = content();
        BuiltProgram.Run dry = program.run("refresh", "--dry-run");
        assertThat(dry.out())
                .contains("+ element ~desk:Berth/desk:lit is new (occurs 0..1, type xs:boolean)")
                .endsWith("next: protypos refresh desk\n");
        BuiltProgram.Run refused = program.run("refresh");
        assertThat(refused.status()).isEqualTo(4);
        assertThat(refused.err()).contains("add --accept breaking");
        assertThat(content()).isEqualTo(before);
        BuiltProgram.Run taken = program.run("refresh", "--accept", "breaking");
        assertThat(taken.status()).isZero();
        assertThat(taken.out()).endsWith("desk: 0 files new, 2 changed, 0 removed in generated\n");
        Map<String, String> after = content();
        assertThat(after.keySet()).isEqualTo(before.keySet());
        after.entrySet().removeIf(file -> file.getValue().equals(before.get(file.getKey())));
        assertThat(after.keySet())
                .containsExactly(
                        "contracts/desk/desk.xsd",
                        "contracts/desk/protypos.lock.json",
                        "generated/example/lanternbay/harbour/desk/Berth.java",
                        "generated/example/lanternbay/harbour/desk/PublishedContract.java",
                        "generated/protypos.lock.json");

        edit(
                origin.resolve("desk.wsdl"),
                "<wsdl:operation name=\"castOff\">\n      <wsdl:doc",
                "<wsdl:operation name=\"moor\"><wsdl:input message=\"d:castOffInput\"/></wsdl:operation><wsdl:operation name=\"castOff\">\n      <wsdl:doc");
        edit(
                origin.resolve("desk.wsdl"),
                "<wsdl:operation name=\"castOff\">\n      <soap:",
                "<wsdl:operation name=\"moor\"><soap:operation soapAction=\"urn:moor\"/><wsdl:input><soap:body use=\"literal\"/></wsdl:input></wsdl:operation><wsdl:operation name=\"castOff\">\n      <soap:");
        program.run("refresh", "--accept", "breaking");
        BuiltProgram.Run again = program.run("generate");
        assertThat(again.out())
                .contains("HarbourDeskImpl.java lacks moor; to be pasted:")
                .contains("public void moor(CastOff castOff) {");
        assertThat(Files.readString(own)).isEqualTo(mine);
        assertThat(Files.readString(project.resolve("protypos.yaml"))).contains("scaffold: own # mine");

        Files.writeString(origin.resolve("desk.xsd"), "<html>please log in</html>");
        Map<String, String> good = content();
        assertThat(program.run("refresh", "--accept", "breaking").status()).isEqualTo(1);
        assertThat(content()).isEqualTo(good);
    }

    @Test
    void driftAndEditsAreNamed() throws Exception {
        program.run("adopt", "../origin/desk.wsdl");
        program.run("generate");
        Path berth = project.resolve("generated/example/lanternbay/harbour/desk/Berth.java");
        edit(berth, "* A place at a quay.", "* A place at my quay.");
        Files.delete(project.resolve("generated/example/lanternbay/harbour/desk/Need.java"));
        edit(project.resolve("contracts/desk/vessels.xsd"), "floats", "swims");
        BuiltProgram.Run check = program.run("generate", "--check");
        assertThat(check.status()).isEqualTo(4);
        assertThat(check.out()).isEqualTo("""
                  changed  contracts/desk/vessels.xsd
                  changed  generated/example/lanternbay/harbour/desk/PublishedContract.java
                  changed  generated/example/lanternbay/harbour/vessels/Vessel.java
                  edited   generated/example/lanternbay/harbour/desk/Berth.java
                  missing  generated/example/lanternbay/harbour/desk/Need.java
                5 things have drifted apart; next: protypos generate
                """);
        Map<String, String> before = content();
        BuiltProgram.Run generate = program.run("generate");
        assertThat(generate.status()).isEqualTo(1);
        assertThat(generate.err()).contains("-  * A place at a quay.", "+  * A place at my quay.", "add --overwrite");
        assertThat(content()).isEqualTo(before);
        assertThat(program.run("generate", "--overwrite").status()).isZero();
        JsonNode json = new ObjectMapper()
                .readTree(program.run("generate", "--check", "--json").out());
        assertThat(json.get("drift").toString()).isEqualTo("[\"changed contracts/desk/vessels.xsd\"]");
    }

    /** Two contracts in one folder share what is the same, and what one needs the other does not remove. */
    @Test
    void contractsShareAFolder() throws Exception {
        program.run("adopt", "../origin/desk.wsdl");
        program.run("adopt", "../origin/vessels.xsd", "--name", "vessels");
        edit(
                project.resolve("protypos.yaml"),
                "  vessels:\n    into: generated\n",
                "  vessels:\n    into: generated\n    runtime: library\n");
        edit(
                project.resolve("protypos.yaml"),
                "  desk:\n    into: generated\n",
                "  desk:\n    into: generated\n    runtime: library\n");
        BuiltProgram.Run both = program.run("generate");
        assertThat(both.err()).isEmpty();
        assertThat(both.status()).isZero();
        assertThat(program.run("generate", "--check").status()).isZero();
        edit(
                project.resolve("protypos.yaml"),
                "  vessels:\n    into: generated\n",
                "  vessels:\n    into: elsewhere\n");
        program.run("generate", "vessels");
        assertThat(project.resolve("elsewhere/example/lanternbay/harbour/vessels/Ferry.java"))
                .exists();
        assertThat(project.resolve("generated/example/lanternbay/harbour/vessels/Ferry.java"))
                .exists();
    }

    /** What is abandoned takes nothing with it that another contract or somebody needs. */
    @Test
    void anAbandonedContractLeavesWhatIsNotItsOwn() throws Exception {
        program.run("adopt", "../origin/vessels.xsd", "--name", "vessels");
        edit(
                project.resolve("protypos.yaml"),
                "  vessels:\n    into: generated\n",
                "  vessels:\n    into: generated\n    runtime: library\n");
        program.run("generate");
        Map<String, String> before = content();
        program.run("adopt", "../origin/desk.wsdl");
        edit(
                project.resolve("protypos.yaml"),
                "  desk:\n    into: generated\n",
                "  desk:\n    into: generated\n    runtime: library\n");
        program.run("generate");
        Path berth = project.resolve("generated/example/lanternbay/harbour/desk/Berth.java");
        Files.writeString(berth, "// mine\n", StandardOpenOption.APPEND);
        Files.writeString(berth.resolveSibling("Mine.java"), "// mine too\n");
        BuiltProgram.Run abandoned = program.run("abandon", "desk");
        assertThat(abandoned.status()).as(abandoned.err()).isZero();
        assertThat(abandoned.out()).contains(" files removed in generated, 3 documents no longer pinned");
        assertThat(abandoned.err()).contains("Berth.java is no longer generated, but was changed by hand");
        Map<String, String> after = content();
        assertThat(after.remove("generated/example/lanternbay/harbour/desk/Berth.java"))
                .endsWith("// mine\n");
        assertThat(after.remove("generated/example/lanternbay/harbour/desk/Mine.java"))
                .isEqualTo("// mine too\n");
        assertThat(after).isEqualTo(before);
        assertThat(program.run("generate", "--check").status()).isZero();
        assertThat(program.run("abandon", "vessels").status()).isZero();
        assertThat(content().keySet()).noneMatch(path -> path.startsWith("contracts/") || path.endsWith("Ferry.java"));
        assertThat(program.run("abandon", "vessels").status()).isEqualTo(2);
        assertThat(program.run("adopt", "../origin/desk.wsdl").status()).isZero();
    }

    /** Documents that are gone are put back, a lost project file is begun again, and a contract may move. */
    @Test
    void whatAProjectHasLostComesBack() throws Exception {
        program.run("adopt", "../origin/desk.wsdl");
        program.run("generate");
        Map<String, String> clean = content();
        Path pinned = project.resolve("contracts/desk/vessels.xsd");
        Files.delete(pinned);
        BuiltProgram.Run refresh = program.run("refresh");
        assertThat(refresh.status()).as(refresh.err()).isZero();
        assertThat(refresh.out()).startsWith("desk: contracts/desk/vessels.xsd is missing\n");
        assertThat(content()).isEqualTo(clean);
        Files.delete(pinned);
        Files.writeString(origin.resolve("vessels.xsd"), "\n", StandardOpenOption.APPEND);
        assertThat(program.run("refresh").status()).isEqualTo(4);
        assertThat(program.run("refresh", "--accept", "breaking").status()).isZero();
        Files.delete(project.resolve("protypos.yaml"));
        assertThat(program.run("adopt", "../origin/desk.wsdl").status()).isZero();
        assertThat(program.run("generate", "--check").status()).isZero();
        Files.move(origin, origin.resolveSibling("moved"));
        BuiltProgram.Run lost = program.run("refresh");
        assertThat(lost.status()).isEqualTo(3);
        assertThat(lost.err())
                .startsWith("error: ../origin/desk.wsdl: ")
                .endsWith("error: desk was left as it was\n"
                        + "  when it has moved, type: protypos refresh desk --from ADDRESS\n");
        assertThat(program.run("refresh", "desk", "--from", "../moved/desk.wsdl")
                        .out())
                .isEqualTo("desk: unchanged; from now on from ../moved/desk.wsdl\n");
        assertThat(program.run("refresh").out()).isEqualTo("desk: unchanged\n");
        Path lock = project.resolve("contracts/desk/protypos.lock.json");
        String whole = Files.readString(lock);
        Files.writeString(lock, whole.replace("  \"documents\"", "<<<<<<< ours\n  \"documents\""));
        assertThat(program.run("generate").err())
                .startsWith("contracts/desk/protypos.lock.json:7:1: error: the lock file has the marks of a merge")
                .contains("1 error: nothing was written");
        Files.writeString(lock, "{\"version\": 99}");
        assertThat(program.run("show", "desk").err())
                .contains("it is of version 99, and this protypos writes version 1");
    }

    /** Whenever a run is killed, the next one comes to where it would have come. */
    @Test
    void killedRunsLeaveNothingHalfDone() throws Exception {
        program.run("adopt", "../origin/desk.wsdl");
        Map<String, String> adopted = content();
        program.run("generate");
        Map<String, String> clean = content();
        List<String> order = new ArrayList<>(adopted.keySet());
        order.sort(Comparator.comparing(path -> path.startsWith("contracts/") ? "" : path));
        for (int there = 0; there <= order.size(); there++) {
            empty(project);
            StringBuilder list = new StringBuilder();
            for (String path : order) {
                byte[] bytes = adopted.get(path).getBytes(StandardCharsets.UTF_8);
                list.append("- ")
                        .append(HexFormat.of()
                                .formatHex(MessageDigest.getInstance("SHA-256").digest(bytes)))
                        .append(' ')
                        .append(path)
                        .append('\n');
                boolean moved = order.indexOf(path) < there;
                Path file = project.resolve(moved ? path : ".protypos-work/" + path);
                Files.createDirectories(file.getParent());
                Files.write(file, bytes);
            }
            Files.createDirectories(project.resolve(".protypos-work"));
            Files.writeString(project.resolve(".protypos-work/.complete"), list);
            assertThat(program.run("adopt", "../origin/desk.wsdl").status()).isEqualTo(1);
            assertThat(program.run("generate").status()).isZero();
            assertThat(content()).isEqualTo(clean);
        }
        Random chance = new Random(7);
        for (int i = 0; i < 6; i++) {
            empty(project);
            Process process = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-jar",
                            Path.of("target/protypos.jar").toAbsolutePath().toString(),
                            "adopt",
                            "../origin/desk.wsdl")
                    .directory(project.toFile())
                    .redirectErrorStream(true)
                    .redirectOutput(home.resolve("killed.txt").toFile())
                    .start();
            if (!process.waitFor(300 + chance.nextInt(500), TimeUnit.MILLISECONDS)) {
                process.destroyForcibly().waitFor();
            }
            // The next run begins anew, or finds that the killed one had come far enough to be finished.
            assertThat(program.run("adopt", "../origin/desk.wsdl").status()).isBetween(0, 1);
            assertThat(program.run("generate").status()).isZero();
            assertThat(content()).isEqualTo(clean);
        }
    }

    private static void empty(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                if (!file.equals(folder)) {
                    Files.delete(file);
                }
            }
        }
    }

    @Test
    void comparisonsArePrintedForPeopleAndForMachines() throws Exception {
        schema("<xs:element name=\"quay\" type=\"xs:string\"/>", "<xs:element name=\"quayside\" type=\"xs:string\"/>");
        String old = BuiltProgram.EXAMPLE.resolve("desk.wsdl").toString();
        Path page = home.resolve("page.html");
        BuiltProgram.Run run =
                program.run("compare", old, "../origin/desk.wsdl", "--html", page.toString(), "--fail-on", "breaking");
        assertThat(run.status()).isEqualTo(4);
        assertThat(run.out())
                .contains("~ element ~desk:Berth/desk:quay is called quayside now")
                .contains("existing servers may send <quay> in the answer of listBerths; it is refused now")
                .contains("name: Quay")
                .endsWith("1 difference, which breaks something\n");
        assertThat(Files.readString(page))
                .contains(
                        "element ~desk:Berth/desk:quay is called quayside now",
                        "\"n\":\"quayside\"",
                        "default-src 'none'")
                .doesNotContain("src=");
        BuiltProgram.Run server =
                program.run("compare", old, "../origin/desk.wsdl", "--for", "server", "--witness", "shown");
        assertThat(server.out()).contains("(001-quay.xml)").doesNotContain("existing clients");
        assertThat(Files.readString(project.resolve("shown/001-quay.xml")))
                .contains("at /Envelope/Body/listBerthsResponse/berth", "<quay>");
        // The old contract allows what the new one refuses.
        assertThat(program.run("proof", old, "--message", "shown").out()).isEqualTo("1 of 1 message survived\n");
        assertThat(program.run("proof", "../origin/desk.wsdl", "--message", "shown")
                        .out())
                .contains("0 of 1 message survived, 1 not as the contract says");
        JsonNode json = new ObjectMapper()
                .readTree(program.run("compare", old, "../origin/desk.wsdl", "--json")
                        .out());
        assertThat(json.at("/differences/0/breaks").size()).isEqualTo(4);
        assertThat(json.at("/differences/0/evidence").size()).isEqualTo(2);
        assertThat(json.at("/differences/0/evidence/0/witness").asText()).contains("Envelope");
        assertThat(program.run("compare", old, "../origin/desk.wsdl", "--markdown")
                        .out())
                .contains("| breaks | where |");
        assertThat(program.run("compare", old, old, "--fail-on", "any").out()).isEqualTo("no differences\n");
    }
}
