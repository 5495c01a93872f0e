package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What happens to a project over the years: branches, lost and half-merged files, checkouts with other line ends, renamed contracts. */
class ProjectLifeIT {
    private static final String BERTH = "generated/example/lanternbay/harbour/desk/Berth.java";
    private static final String LOCK = "contracts/desk/protypos.lock.json";

    @TempDir
    private Path home;

    private Path project;
    private BuiltProgram program;

    @BeforeEach
    void adopt() throws Exception {
        project = Files.createDirectory(home.resolve("project"));
        program = new BuiltProgram(project);
        Path origin = Files.createDirectory(home.resolve("origin"));
        for (String name : List.of("desk.wsdl", "desk.xsd", "vessels.xsd")) {
            Files.copy(BuiltProgram.EXAMPLE.resolve(name), origin.resolve(name));
        }
        git("init", "-q", "-b", "main");
        assertThat(program.run("adopt", "../origin/desk.wsdl").status()).isZero();
        assertThat(program.run("generate").status()).isZero();
        commit("desk");
    }

    private void git(String... arguments) throws IOException, InterruptedException {
        assertThat(gitStatus(arguments)).as("git %s", List.of(arguments)).isZero();
    }

    private int gitStatus(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                "git", "-c", "user.name=Ada", "-c", "user.email=ada@lanternbay.example", "-c", "core.autocrlf=false"));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command)
                .directory(project.toFile())
                .redirectErrorStream(true)
                .redirectOutput(home.resolve("git.txt").toFile())
                .start();
        assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
        return process.exitValue();
    }

    private void commit(String message) throws IOException, InterruptedException {
        git("add", "-A");
        git("commit", "-q", "-m", message);
    }

    private String text(String path) throws IOException {
        return Files.readString(project.resolve(path));
    }

    private static final String UP_TO_DATE = "everything is as it would be generated\n";

    /** One contract in three languages: names stay in each, and all of it is made, checked, refreshed, renamed and given up together. */
    @Test
    void oneContractIsGeneratedInSeveralLanguages() throws Exception {
        Files.writeString(project.resolve("protypos.yaml"), """
                contracts:
                  desk:
                    also:
                      csharp:
                        package: LanternBay.Desk
                        into: cs
                        rules: cs.yaml
                      cobol:
                        produce: types
                """);
        Files.writeString(project.resolve("cs.yaml"), """
                prefixes: {desk: "http://lanternbay.example/harbour/desk"}
                rules:
                  - on: ~desk:Berth
                    name: Mooring
                """);
        BuiltProgram.Run run = program.run("generate");
        assertThat(run.status()).as(run.err()).isZero();
        assertThat(run.out())
                .contains("desk: nothing has changed: 136 files in generated", "desk csharp: ", "written into cs")
                .contains("desk cobol: ", "written into generated-cobol");
        assertThat(project.resolve("cs/LanternBay/Desk/Mooring.cs")).exists();
        assertThat(project.resolve(BERTH)).exists();
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
        assertThat(program.run("show", "desk", "--language", "csharp").out()).contains("List<Mooring> ListBerths");
        assertThat(program.run("show", "desk").out()).contains("List<Berth> listBerths");

        // All languages are checked, unless one is named.
        Files.writeString(project.resolve("cs.yaml"), """
                prefixes: {desk: "http://lanternbay.example/harbour/desk"}
                rules:
                  - on: ~desk:Nowhere
                    name: Mooring
                """);
        assertThat(program.run("check", "desk").err()
                        + program.run("check", "desk").out())
                .contains("cs.yaml:3");
        assertThat(program.run("check", "desk", "--language", "java").out()).doesNotContain("cs.yaml");

        // A document that is of no project is compared as the project would have it.
        assertThat(program.run(
                                "compare",
                                "desk",
                                home.resolve("origin/desk.wsdl").toString())
                        .out())
                .contains("no differences");

        // What is wrong with the project file is told once, however many languages there are.
        String settings = text("protypos.yaml");
        Files.writeString(project.resolve("protypos.yaml"), settings + "      fortran: {}\n");
        assertThat(program.run("generate").err())
                .containsOnlyOnce("there is no language fortran")
                .contains("1 error:");
        Files.writeString(project.resolve("protypos.yaml"), settings);

        // The rule is gone, and the name stays, for code calls it so.
        Files.writeString(project.resolve("cs.yaml"), "rules: []\n");
        run = program.run("generate", "desk", "--language", "csharp");
        assertThat(run.status()).as(run.err()).isZero();
        assertThat(run.out()).startsWith("desk csharp: ").doesNotContain("cobol");
        assertThat(project.resolve("cs/LanternBay/Desk/Mooring.cs")).exists();
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);

        Path schema = home.resolve("origin/desk.xsd");
        Files.writeString(schema, Files.readString(schema).replace("A place at a quay.", "A place to lie at."));
        run = program.run("refresh", "--accept", "breaking");
        assertThat(run.status()).as(run.err()).isZero();
        assertThat(text("cs/LanternBay/Desk/Mooring.cs")).contains("A place to lie at.");
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);

        String lock = text(LOCK);
        assertThat(lock).contains("\"also\"", "\"cobol\"", "\"csharp\"");
        commit("several");
        Files.delete(project.resolve(LOCK));
        run = program.run("repair", "desk");
        assertThat(run.status()).as(run.out() + run.err()).isZero();
        assertThat(text(LOCK)).isEqualTo(lock);

        // Where not even version control knows, the code does.
        Path copy = Files.createDirectory(home.resolve("copy"));
        try (Stream<Path> all = Files.walk(project)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                String path = project.relativize(file).toString();
                if (!path.startsWith(".git") && !path.equals(LOCK)) {
                    Files.createDirectories(copy.resolve(path).getParent());
                    Files.copy(file, copy.resolve(path));
                }
            }
        }
        run = new BuiltProgram(copy).run("repair", "desk");
        assertThat(run.out()).contains("from the generated code in generated", "from the generated code in cs");
        assertThat(Files.readString(copy.resolve(LOCK))).contains("\"Mooring\"", "\"Berth\"");

        assertThat(program.run("adopt", "--rename", "desk", "--name", "office").status())
                .isZero();
        run = program.run("generate");
        assertThat(run.status()).as(run.err()).isZero();
        run = program.run("abandon", "office");
        assertThat(run.status()).as(run.err()).isZero();
        assertThat(run.out()).contains("files removed in generated,", "files removed in cs,", "in generated-cobol,");
        try (Stream<Path> left = Files.walk(project.resolve("cs"))) {
            assertThat(left.filter(path -> path.toString().endsWith(".cs"))).isEmpty();
        }
    }

    @Test
    void branchesThatAdoptDifferentContractsMerge() throws Exception {
        Path tide = BuiltProgram.EXAMPLE.resolve("../../tide/tide.wsdl").normalize();
        git("checkout", "-q", "-b", "tide");
        assertThat(program.run("adopt", tide.toString(), "--name", "tide").status())
                .isZero();
        commit("tide");
        git("checkout", "-q", "main");
        Path origin = home.resolve("origin/desk.xsd");
        Files.writeString(origin, Files.readString(origin).replace("\"quay\"", "\"quayside\""));
        assertThat(program.run("refresh", "--accept", "breaking").status()).isZero();
        commit("quayside");
        git("merge", "-q", "--no-edit", "tide");
        assertThat(program.run("generate").status()).isZero();
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
        assertThat(text("contracts/desk/.gitattributes")).contains("* -text");
    }

    @Test
    void whatIsLostOrHalfMergedIsFoundAgain() throws Exception {
        String lock = text(LOCK);
        Files.delete(project.resolve(LOCK));
        assertThat(program.run("show", "desk").err()).contains("type: protypos repair desk");
        assertThat(program.run("repair").out()).contains("3 documents from version control (HEAD)", "113 names");
        assertThat(text(LOCK)).isEqualTo(lock);
        assertThat(program.run("repair").out()).isEqualTo("desk: nothing to repair\n");

        String half = lock.replaceFirst(
                "(?m)^( *\"[^\"]*Berth\" : \"Berth\",)$",
                "<<<<<<< ours\n$1\n=======\n$1\n      \"~{x}More\" : \"More\",\n>>>>>>> theirs");
        assertThat(half).contains("<<<<<<<");
        Files.writeString(project.resolve(LOCK), half);
        assertThat(program.run("generate").err()).contains("a merge that nobody has finished", "type: protypos repair");
        assertThat(program.run("repair").out())
                .contains("113 names from our side of the merge", "1 name from their side");
        assertThat(program.run("generate").status()).isZero();

        Files.writeString(project.resolve(LOCK), "{\"version\": 2}");
        assertThat(program.run("generate").err())
                .startsWith(LOCK + ":1:13: error: the lock file cannot be read: it is of version 2");
        Files.delete(project.resolve(LOCK));
        Files.move(project.resolve(".git"), home.resolve("away"));
        BuiltProgram.Run alone = program.run("repair");
        assertThat(alone.out())
                .contains("3 documents as they are in contracts/desk", "7 names of types from the generated code");
        assertThat(alone.err()).contains("protypos refresh desk --from ADDRESS");
        assertThat(program.run("generate").out()).startsWith("desk: nothing has changed: 136 files in generated\n");
        assertThat(program.run("refresh", "desk", "--from", "../origin/desk.wsdl")
                        .out())
                .startsWith("desk: unchanged; from now on from");
    }

    private static String quay(String inBow, String inStern) {
        return """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:quay">
                  <xs:complexType name="Bow"><xs:sequence>ROPE%s</xs:sequence></xs:complexType></xs:element></xs:sequence></xs:complexType>
                  <xs:complexType name="Stern"><xs:sequence>ROPE%s</xs:sequence></xs:complexType></xs:element></xs:sequence></xs:complexType>
                </xs:schema>
                """.formatted(inBow, inStern).replace("ROPE", "<xs:element name='rope'><xs:complexType><xs:sequence>");
    }

    /** Types within others are often called alike, and so are their members: neither is a clash. */
    @Test
    void namesInClassesThatAreCalledAlikeAreTheirOwn() throws Exception {
        String note = "<xs:element name='note' type='xs:string'/><xs:any/>";
        String line = "<xs:element name='line-no' type='xs:string' minOccurs='0'/>";
        String names = "contracts/quay/protypos.lock.json";
        Path origin = home.resolve("origin/quay.xsd");
        Files.writeString(origin, quay(note + line, note));
        assertThat(program.run("adopt", "../origin/quay.xsd").status()).isZero();
        assertThat(program.run("generate").status()).isZero();
        commit("quay");
        String lock = text(names);
        assertThat(lock).contains("\"quay.Bow.Rope\"", "\"quay.Stern.Rope\"");

        Files.delete(project.resolve(names));
        assertThat(program.run("repair", "quay").status()).isZero();
        assertThat(text(names)).isEqualTo(lock);

        // As it was written while classes were told apart by their own names alone.
        ObjectMapper mapper = new ObjectMapper();
        ObjectNode before = (ObjectNode) mapper.readTree(lock);
        ObjectNode scopes = (ObjectNode) before.get("names");
        ObjectNode one = (ObjectNode) scopes.remove("quay.Bow.Rope");
        one.setAll((ObjectNode) scopes.remove("quay.Stern.Rope"));
        one.fieldNames().forEachRemaining(name -> assertThat(name).startsWith("~"));
        for (String name : List.of("line-no", "note")) {
            one.fieldNames().forEachRemaining(designator -> {
                if (designator.endsWith("/" + name)) {
                    one.put(designator, name.equals("note") ? "Remark" : "LineNo");
                }
            });
        }
        scopes.set("quay.Rope", one);
        Files.writeString(
                project.resolve(names), mapper.writerWithDefaultPrettyPrinter().writeValueAsString(before));
        assertThat(program.run("generate", "quay").status()).isZero();
        assertThat(text("generated/quay/Stern.java")).contains("String getRemark()");
        assertThat(text(names)).isEqualTo(lock.replace("\"Note\"", "\"Remark\""));

        Files.writeString(origin, quay(note + line, note + line.replace("line-no", "lineNo")));
        assertThat(program.run("refresh", "quay").status()).isZero();
        assertThat(text("generated/quay/Stern.java")).contains("String getLineNo()");
    }

    @Test
    void generatedFilesAreKnownByWhatIsInThem() throws Exception {
        Files.delete(project.resolve("generated/protypos.lock.json"));
        assertThat(program.run("generate").out()).startsWith("desk: nothing has changed: 136 files in generated\n");
        String berth = text(BERTH);
        Files.writeString(project.resolve(BERTH), berth.replace("\n", "\r\n"));
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
        Files.delete(project.resolve("generated/protypos.lock.json"));
        Files.writeString(project.resolve(BERTH), berth.replace("getQuay", "getPier"));
        BuiltProgram.Run refused = program.run("generate");
        assertThat(refused.status()).isEqualTo(1);
        assertThat(refused.err())
                .contains("-     public String getQuay() {", "nothing tells whether somebody has changed it");
        assertThat(program.run("generate", "--overwrite").status()).isZero();
        assertThat(text(BERTH)).isEqualTo(berth);
        Path ledger = project.resolve("generated/protypos.lock.json");
        Files.writeString(ledger, "<<<<<<< ours\n" + Files.readString(ledger));
        assertThat(program.run("generate").status()).isZero();
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
        Path mine = Files.writeString(project.resolve("generated/example/Mine.java"), "class Mine {}\n");
        assertThat(program.run("generate", "--overwrite").status()).isZero();
        assertThat(mine).hasContent("class Mine {}");
    }

    @Test
    void alteredDocumentsAreToldRestoredOrTaken() throws Exception {
        Path document = project.resolve("contracts/desk/desk.xsd");
        byte[] pinned = Files.readAllBytes(document);
        Files.writeString(document, "<!-- mine -->\n", StandardOpenOption.APPEND);
        BuiltProgram.Run check = program.run("generate", "--check");
        assertThat(check.status()).isEqualTo(4);
        assertThat(check.out()).contains("changed  contracts/desk/desk.xsd");
        assertThat(program.run("repair").err()).contains("is not what was pinned", "--accept documents");
        BuiltProgram.Run restored = program.run("refresh");
        assertThat(restored.out()).contains("desk.xsd was changed", "+ <!-- mine -->");
        assertThat(Files.readAllBytes(document)).isEqualTo(pinned);
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
        Files.writeString(document, "<!-- mine -->\n", StandardOpenOption.APPEND);
        assertThat(program.run("repair", "--accept", "documents").out())
                .contains("contracts/desk/desk.xsd as it is now");
        assertThat(program.run("generate").status()).isZero();
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
    }

    @Test
    void contractsAreRenamedAndForgottenOnesTold() throws Exception {
        assertThat(program.run("adopt", "--rename", "desk", "--name", "office").out())
                .isEqualTo("desk is called office now; next: protypos generate --check\n");
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
        assertThat(project.resolve("contracts/desk")).doesNotExist();
        String settings = text("protypos.yaml");
        Path rules = Files.writeString(
                project.resolve("rules.yaml"),
                "prefixes: {d: \"http://lanternbay.example/harbour/desk\"}\nrules:\n"
                        + "  - {on: \"~d:Need\", values: \"+ 'crane'\", because: seen}\n");
        assertThat(program.run("adopt", "../origin/desk.wsdl", "--name", "other", "--rules", rules.toString())
                        .status())
                .isZero();
        assertThat(text("protypos.yaml")).contains("rules: [\"rules.yaml\"]");
        assertThat(program.run("sample", "other", "--element", "nothing").status())
                .isNotZero();
        Files.writeString(project.resolve("protypos.yaml"), settings);
        assertThat(program.run("generate", "--check").out())
                .contains("contracts/other: pinned, and not in protypos.yaml", "protypos abandon other");
        assertThat(program.run("abandon", "other").status()).isZero();
        assertThat(project.resolve("contracts/other")).doesNotExist();
        assertThat(program.run("generate", "--check").out()).isEqualTo(UP_TO_DATE);
    }

    @Test
    void refreshWritesForMachinesAndReviews() throws Exception {
        Path origin = home.resolve("origin/desk.xsd");
        Files.writeString(origin, Files.readString(origin).replace("\"quay\"", "\"quayside\""));
        Files.writeString(
                project.resolve("rules.yaml"),
                "prefixes: {d: \"http://lanternbay.example/harbour/desk\"}\nrules:\n  - {on: \"~d:Berth/d:quay\", name: Pier}\n");
        Path settings = project.resolve("protypos.yaml");
        Files.writeString(settings, Files.readString(settings).replace("# rules: [rules.yaml]", "rules: [rules.yaml]"));
        BuiltProgram.Run dry = program.run("refresh", "--dry-run");
        assertThat(dry.out()).contains("is called quayside now");
        assertThat(dry.err()).contains("no component is called ~d:Berth/d:quay");
        Files.writeString(
                settings, Files.readString(settings).replace("rules: [rules.yaml]", "produce: [types, client]"));
        String json = program.run("refresh", "--dry-run", "--json").out();
        assertThat(json)
                .contains("\"outcome\" : \"changed\"", "\"old-clients\"")
                .doesNotContain("\"server-code\"");
        assertThat(program.run("refresh", "--dry-run", "--markdown").out()).startsWith("# desk");
        Path page = home.resolve("page.html");
        assertThat(program.run("refresh", "--dry-run", "--html", page.toString())
                        .status())
                .isZero();
        assertThat(new String(Files.readAllBytes(page), StandardCharsets.UTF_8)).contains("quayside");
    }
}
