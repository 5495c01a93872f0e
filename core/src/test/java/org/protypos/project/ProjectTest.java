package org.protypos.project;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.naming.GivenNames;
import org.protypos.source.DocumentGatherer;
import org.protypos.source.Documents;

/** Projects on disk: what is wrong with their files, and where documents go. */
class ProjectTest {
    private static final String SCHEMA =
            "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" targetNamespace=\"urn:%1$s\" xmlns:t=\"urn:%1$s\">%2$s</xs:schema>";

    private static Documents gather(Path entry, Path catalog) {
        Documents documents = DocumentGatherer.gather(List.of(entry.toString()), catalog);
        Contract contract = ContractReader.read(documents);
        assertThat(contract.isSound()).as("%s", contract.findings()).isTrue();
        return documents;
    }

    private static List<String> told(Project project) {
        return project.findings().stream()
                .map(finding -> finding.place().line() + " " + finding.message() + " | " + finding.cure())
                .toList();
    }

    @Test
    void everyMistakeInAProjectFileIsTold(@TempDir Path root) throws IOException {
        Files.writeString(root.resolve("protypos.yaml"), """
                contract: none
                contracts:
                  "desk 2":
                    package: bay
                  tide:
                    folder: ../elsewhere
                    pakage: bay
                    produce: [types, clients]
                    server: tomcat
                    rules: {a: b}
                  pier: wooden
                  open:
                """);
        assertThat(told(Project.read(root)))
                .containsExactly(
                        "1 \"contract\" is no key of a project file | use contracts",
                        "3 \"desk 2\" is no name for a contract | use letters, digits, dots and hyphens",
                        "5 \"../elsewhere\" leads out of the project | write a path inside the project, with slashes",
                        "7 \"pakage\" is no key of a contract | the nearest is package",
                        "8 \"clients\" is no value for produce | use types, client, server",
                        "9 \"tomcat\" is no value for server | use jdk, servlet",
                        "10 the value of rules is no text | write it as text or a list",
                        "11 what is said of a contract is a map | write keys such as \"package:\" below its name");
        Files.writeString(root.resolve("protypos.yaml"), "contracts: {desk: [");
        assertThat(told(Project.read(root))).anyMatch(text -> text.contains("not well-formed"));
    }

    @Test
    void documentsKeepTheirLayoutAndLeadToEachOther(@TempDir Path home) throws IOException {
        Path origin = Files.createDirectories(home.resolve("origin/deep/con"));
        Files.writeString(
                origin.resolve("entry.xsd"),
                SCHEMA.formatted(
                        "entry",
                        "<xs:import namespace=\"urn:a\" schemaLocation=\"../other/A b.xsd\"/>"
                                + "<xs:import namespace=\"urn:b\" schemaLocation=\"http://pier.lanternbay.example/b.xsd\"/>"
                                + "<xs:import namespace=\"urn:c\"/>"
                                + "<xs:element name=\"e\"><xs:complexType><xs:sequence><xs:element xmlns:a=\"urn:a\" ref=\"a:a\"/>"
                                + "<xs:element xmlns:b=\"urn:b\" ref=\"b:b\"/><xs:element xmlns:c=\"urn:c\" ref=\"c:c\"/></xs:sequence></xs:complexType></xs:element>"));
        Path other = Files.createDirectories(home.resolve("origin/deep/other"));
        for (String name : List.of("a", "b", "c")) {
            Files.writeString(
                    other.resolve(name.equals("a") ? "A b.xsd" : name + ".xsd"),
                    SCHEMA.formatted(name, "<xs:element name=\"" + name + "\" type=\"xs:string\"/>"));
        }
        Path catalog = Files.writeString(home.resolve("origin/catalog.xml"), """
                <catalog xmlns="urn:oasis:names:tc:entity:xmlns:xml:catalog">
                  <uri name="http://pier.lanternbay.example/b.xsd" uri="deep/other/b.xsd"/>
                  <uri name="urn:c" uri="deep/other/c.xsd"/>
                </catalog>
                """);
        Path root = Files.createDirectory(home.resolve("project"));
        Documents documents = gather(origin.resolve("entry.xsd"), catalog);
        List<String> copies = Adoption.adopt(
                Project.read(root),
                "pier",
                List.of(origin.resolve("entry.xsd").toString()),
                catalog.toString(),
                documents,
                "generated",
                List.of());
        assertThat(copies)
                .containsExactly(
                        "contracts/pier/_con/entry.xsd",
                        "contracts/pier/other/A_b.xsd",
                        "contracts/pier/other/b.xsd",
                        "contracts/pier/other/c.xsd");
        Project project = Project.around(root.resolve("contracts/pier"));
        ProjectContract pier = project.contracts().get("pier");
        Documents pinned = project.documents(pier);
        assertThat(pinned.findings()).isEmpty();
        assertThat(pinned.all()).hasSize(4);
        assertThat(ContractReader.read(pinned).isSound()).isTrue();
        assertThat(project.drifted(pier)).isEmpty();
        Files.writeString(root.resolve("contracts/pier/other/c.xsd"), "changed");
        assertThat(project.drifted(pier)).containsExactly("contracts/pier/other/c.xsd");
        assertThat(project.pinned("pier").documents().get(0).references())
                .containsOnlyKeys("../other/A b.xsd", "http://pier.lanternbay.example/b.xsd", "urn:c");
        assertThat(Files.readString(root.resolve("contracts/pier/protypos.lock.json")))
                .doesNotContain(home.toString())
                .contains("../origin/deep/con/entry.xsd");
    }

    @Test
    void archivesAreUnpackedAndFilesOfOthersStay(@TempDir Path home) throws IOException {
        Path archive = home.resolve("bay.zip");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(archive))) {
            zip.putNextEntry(new ZipEntry("in/bay.xsd"));
            zip.write(SCHEMA.formatted("bay", "<xs:element name=\"bay\" type=\"xs:string\"/>")
                    .getBytes(StandardCharsets.UTF_8));
        }
        Path root = Files.createDirectory(home.resolve("project"));
        Files.writeString(
                root.resolve("protypos.yaml"), "# mine\ncontracts: # all of them\n  other:\n    into: x # here\n");
        Files.writeString(root.resolve("notes.txt"), "mine");
        Adoption.adopt(
                Project.read(root),
                "bay",
                List.of(archive.toString()),
                null,
                gather(archive, null),
                "generated",
                List.of());
        assertThat(Files.readString(root.resolve("protypos.yaml")))
                .startsWith("# mine\ncontracts: # all of them\n  bay:\n    into: generated\n")
                .endsWith("\n  other:\n    into: x # here\n");
        assertThat(root.resolve("notes.txt")).hasContent("mine");
        Project project = Project.read(root);
        assertThat(project.contracts()).containsOnlyKeys("bay", "other");
        assertThat(project.documents(project.contracts().get("other")).findings())
                .extracting(finding -> finding.code())
                .containsExactly("not-adopted");
        assertThat(project.documents(project.contracts().get("bay")).all()).hasSize(1);
    }

    /** Names go into the lock file and come out, whatever characters are in them. */
    @Test
    void namesAreRemembered(@TempDir Path home) throws IOException {
        Path origin = Files.writeString(
                home.resolve("bay.xsd"), SCHEMA.formatted("bay", "<xs:element name=\"bay\" type=\"xs:string\"/>"));
        Path root = Files.createDirectory(home.resolve("project"));
        Adoption.adopt(
                Project.read(root),
                "bay",
                List.of(origin.toString()),
                null,
                gather(origin, null),
                "generated",
                List.of());
        GivenNames names = new GivenNames(
                "csharp",
                Map.of(
                        "bay", Map.of("~{urn:bay}T='{x} \"y\" {urn:bay}'", "X", "{urn:a b}\u65e5", "\u65e5"),
                        "bay.T", Map.of("~{urn:bay}T/{}e", "E", "plain", "Plain")));
        Files.writeString(root.resolve(Project.FILE), """
                contracts:
                  bay:
                    also:
                      csharp: {package: Bay, into: cs}
                """);
        GivenNames inJava = new GivenNames("java", Map.of("bay", Map.of("~{urn:bay}T", "T")));
        Project.read(root).remember(Map.of("bay", List.of(inJava, names)));
        Project again = Project.read(root);
        assertThat(again.pinned("bay").names().in("csharp").byScope()).isEqualTo(names.byScope());
        assertThat(again.pinned("bay").names().in("java").byScope()).isEqualTo(inJava.byScope());
        assertThat(again.isRenamed("bay", List.of(names))).isFalse();
        assertThat(again.isRenamed("bay", List.of(inJava, names))).isFalse();
        assertThat(again.isRenamed("bay", List.of(new GivenNames("java", Map.of("bay", Map.of("~{urn:bay}T", "U"))))))
                .isTrue();
        ProjectContract csharp = again.contracts().get("bay").editions().get(1);
        assertThat(csharp.language() + " " + csharp.packageName() + " " + csharp.into() + " " + csharp.folder())
                .isEqualTo("csharp Bay cs contracts/bay");
        Path lock = root.resolve("contracts/bay/protypos.lock.json");
        Object before = Files.getLastModifiedTime(lock);
        again.remember(Map.of("bay", List.of(names)));
        assertThat(Files.getLastModifiedTime(lock)).isEqualTo(before);
        String alone = Files.readString(lock);
        Files.writeString(root.resolve(Project.FILE), "contracts:\n  bay:\n    language: csharp\n");
        Project.read(root).remember(Map.of("bay", List.of(names)));
        assertThat(alone).contains("\"also\"");
        assertThat(Files.readString(lock)).contains("\"language\" : \"csharp\"").doesNotContain("\"also\"");
        assertThat(Project.read(root).pinned("bay").names().in("csharp").byScope())
                .isEqualTo(names.byScope());
    }
}
