package org.protypos.maven;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Real builds with the plugin as it was just built, in folders with blanks and letters beyond ASCII. */
class BuildsIT {
    private static final String DESK = "<contract><document>src/main/contract/desk.wsdl</document></contract>";
    private static final String DRY = "target/generated-sources/protypos/";

    private static final String CALLER = """
            package office;

            import example.lanternbay.harbour.desk.HarbourDesk;
            import example.lanternbay.harbour.desk.HarbourDeskClient;
            import example.lanternbay.harbour.desk.HarbourOffice;

            public class Caller {
                public static HarbourDesk desk(String address) {
                    return HarbourDeskClient.connect(HarbourOffice.DESK, with -> with.address(address));
                }
            }
            """;

    @TempDir
    private Path home;

    private Build build;

    @BeforeAll
    static void stage() throws IOException {
        Build.stage();
    }

    @BeforeEach
    void begin() throws IOException {
        build = new Build(Files.createDirectories(home.resolve("Hafen büro 港")));
    }

    private FileTime time(String file) throws IOException {
        return Files.getLastModifiedTime(build.file(file));
    }

    @Test
    void aClientIsGeneratedCompiledAndLeftAloneWhenNothingHasChanged() throws Exception {
        build.example("harbour/contract", "src/main/contract")
                .pom("generate", DESK + "<produce>types,client</produce>", "")
                .write("src/main/java/office/Caller.java", CALLER);
        assertThat(build.run("compile").good().log()).contains(" files written, 0 removed, 0 unchanged");
        assertThat(build.file("target/classes/office/Caller.class")).exists();
        assertThat(build.file(DRY + "example/lanternbay/harbour/desk/HarbourDeskEndpoint.java"))
                .doesNotExist();
        FileTime source = time(DRY + "example/lanternbay/harbour/desk/HarbourDesk.java");
        FileTime compiled = time("target/classes/example/lanternbay/harbour/desk/HarbourDesk.class");
        assertThat(build.run("-o", "compile").good().log())
                .contains("nothing has changed")
                .contains("Nothing to compile");
        assertThat(time(DRY + "example/lanternbay/harbour/desk/HarbourDesk.java"))
                .isEqualTo(source);
        assertThat(time("target/classes/example/lanternbay/harbour/desk/HarbourDesk.class"))
                .isEqualTo(compiled);
        assertThat(build.run("-o", "-q", "compile").good().log().replaceAll("\u001b\\[[0-9;]*m", ""))
                .isEmpty();
    }

    @Test
    void aServerBeginsWithAScaffold() throws Exception {
        build.example("harbour/contract", "src/main/contract")
                .pom(
                        "generate check",
                        DESK
                                + "<produce>types,server</produce><scaffold>src/main/java</scaffold><package>bay.desk</package>",
                        "");
        assertThat(build.run("verify").good().log())
                .contains("begun for you")
                .contains("everything is as it would be generated");
        Path begun = build.file("src/main/java/bay/desk/HarbourDeskImpl.java");
        Files.writeString(begun, Files.readString(begun).replace("public class", "// mine\npublic class"));
        assertThat(build.run("-o", "compile").good().log()).doesNotContain("begun for you");
        assertThat(begun).content().contains("// mine");
    }

    @Test
    void contractsOfSeveralExecutionsHaveAFolderEach() throws Exception {
        String another =
                "</configuration></execution><execution><id>papers</id><goals><goal>generate</goal><goal>check</goal></goals>"
                        + "<configuration><contract>src/main/papers/papers.wsdl</contract>";
        build.example("harbour/contract", "src/main/contract")
                .example("papers", "src/main/papers")
                .pom("generate check", DESK + another, "")
                .write("src/main/java/office/Caller.java", CALLER);
        assertThat(build.run("verify").good().log()).contains("everything is as it would be generated");
        assertThat(build.file("target/generated-sources/protypos-desk/example/lanternbay/harbour/desk"))
                .exists();
        assertThat(build.file("target/classes/example/lanternbay/papers/CabinetClient.class"))
                .exists();
        assertThat(build.file("target/classes/office/Caller.class")).exists();

        String same = "<into>target/same</into>";
        build.pom("generate", DESK + same + another + same, "");
        assertThat(build.run("-o", "compile").bad().log())
                .contains(
                        "has what this build has generated from src/main/contract/desk.wsdl: src/main/papers/papers.wsdl wants"
                                + " an <into> of its own");
    }

    @Test
    void typesForTestsAloneGoThere() throws Exception {
        build.example("harbour/contract", "src/main/contract")
                .pom("generate-test", "<contract>src/main/contract/vessels.xsd</contract><produce>types</produce>", "")
                .write(
                        "src/test/java/office/Uses.java",
                        "package office; class Uses { example.lanternbay.harbour.vessels.Ferry ferry; }");
        build.run("test-compile").good();
        assertThat(build.file("target/generated-test-sources/protypos/example/lanternbay/harbour/vessels/Ferry.java"))
                .exists();
        assertThat(build.file("target/classes/example")).doesNotExist();
    }

    @Test
    void aBrokenContractFailsWithAllItsPlaces() throws Exception {
        build.example("mistakes", "src/main/contract")
                .pom("generate", "<contract>src/main/contract/pilots.wsdl</contract>", "");
        String log = build.run("compile").bad().log();
        String file = build.file("src/main/contract/pilots.wsdl").toRealPath().toString();
        assertThat(log.lines().filter(line -> line.startsWith("[ERROR] " + file + ":")))
                .hasSizeGreaterThan(2)
                .allMatch(line -> line.substring(line.indexOf(".wsdl:")).matches("\\.wsdl:\\d+:\\d+: .* \\[[a-z-]+]"));
        assertThat(log).contains("errors: nothing was generated");
        assertThat(build.file("target/generated-sources")).doesNotExist();
    }

    @Test
    void aProjectIsAdoptedCheckedComparedAndRefreshed() throws Exception {
        build.example("harbour/contract", "published").pom("generate check", "", "");
        build.run(
                        "org.protypos:protypos-maven-plugin:adopt",
                        "-Dprotypos.contract=published/desk.wsdl",
                        "-Dprotypos.name=desk")
                .good();
        assertThat(build.file("protypos.yaml")).content().contains("# yaml-language-server: $schema=.protypos/project");
        // The names of the components are new, and belong under version control.
        assertThat(build.run("verify").bad().log()).contains("contracts/desk/protypos.lock.json: names that are new");
        assertThat(build.run("-o", "verify").good().log()).contains("everything is as it would be generated");
        FileTime source = time(DRY + "example/lanternbay/harbour/desk/HarbourDesk.java");
        assertThat(build.run("-o", "compile").good().log()).contains("nothing has changed", "Nothing to compile");
        assertThat(time(DRY + "example/lanternbay/harbour/desk/HarbourDesk.java"))
                .isEqualTo(source);
        String goal = "org.protypos:protypos-maven-plugin:" + Build.VERSION + ":";
        build.example("harbour/next", "published");
        assertThat(build.run("-o", goal + "compare", "-Dprotypos.old=published/desk.wsdl", "-Dprotypos.failOn=breaking")
                        .bad()
                        .log())
                .contains("breaks existing", "desk changed in a way that breaks somebody");
        assertThat(build.run("-o", goal + "refresh").bad().log()).contains("-Dprotypos.accept=breaking takes them");
        assertThat(build.run("-o", goal + "refresh", "-Dprotypos.accept=breaking")
                        .good()
                        .log())
                .contains("desk: taken");
        Path pinned = build.file("contracts/desk/desk.xsd");
        Files.writeString(pinned, Files.readString(pinned).replace("number", "nummer"));
        assertThat(build.run("-o", "verify").bad().log()).contains("changed contracts/desk/desk.xsd");
    }

    @Test
    void parametersAndProjectFileDoNotContradictInSilence() throws Exception {
        build.example("harbour/contract", "contracts/desk")
                .pom("generate", "<package>bay.desk</package><produce>types</produce>", "")
                .write("protypos.yaml", "contracts:\n  desk:\n    package: other\n");
        assertThat(build.run("compile").bad().log()).contains("package, produce are set in the build, and ");
    }

    @Test
    void contractsOfSeveralModulesShareTypesInAParallelBuild() throws Exception {
        build.write("pom.xml", """
                <project xmlns="http://maven.apache.org/POM/4.0.0">
                  <modelVersion>4.0.0</modelVersion>
                  <groupId>example.lanternbay</groupId>
                  <artifactId>all</artifactId>
                  <version>1</version>
                  <packaging>pom</packaging>
                  <modules><module>vessels</module><module>desk</module><module>tide</module></modules>
                </project>
                """)
                .example("harbour/contract", "published")
                .example("tide", "published")
                .pom(
                        "vessels/pom.xml",
                        "generate",
                        "<contract>../published/vessels.xsd</contract><runtime>library</runtime>",
                        runtime())
                .pom(
                        "desk/pom.xml",
                        "generate",
                        "<contract>../published/desk.wsdl</contract><runtime>library</runtime><rules>shared.yaml</rules>",
                        "<dependencies><dependency><groupId>example.lanternbay</groupId><artifactId>vessels</artifactId>"
                                + "<version>1</version></dependency></dependencies>")
                .write("desk/shared.yaml", """
                        prefixes: {v: "http://lanternbay.example/harbour/vessels"}
                        rules:
                          - {on: "~v:Vessel", existing: example.lanternbay.harbour.vessels.Vessel}
                          - {on: "~v:Tanker", existing: example.lanternbay.harbour.vessels.Tanker}
                          - {on: "~v:Ferry", existing: example.lanternbay.harbour.vessels.Ferry}
                          - {on: "~v:Yacht", existing: example.lanternbay.harbour.vessels.Yacht}
                        """)
                .pom("tide/pom.xml", "generate", "<contract>../published/tide.wsdl</contract>", "");
        build.run("-T2", "compile").good();
        assertThat(build.file("tide/target/classes/example")).exists();
    }

    private static String runtime() {
        return "<dependencies><dependency><groupId>org.protypos</groupId><artifactId>protypos-runtime</artifactId><version>"
                + Build.VERSION + "</version></dependency></dependencies>";
    }

    @Test
    void aContractIsReadFromAnArtifactAndPlayedWhileTestsRun() throws Exception {
        Path jar = home.resolve("papers.jar");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(jar))) {
            for (String name : new String[] {"desk.wsdl", "desk.xsd", "vessels.xsd"}) {
                zip.putNextEntry(new ZipEntry("wsdl/" + name));
                Files.copy(Path.of("../examples/harbour/contract/" + name), zip);
            }
        }
        Build.install(jar, "example/lanternbay", "papers", "3", "jar");
        build.pom(
                        "generate stand-in stand-in-stop",
                        "<artifact>example.lanternbay:papers:3!/wsdl/desk.wsdl</artifact>",
                        "")
                .write("src/main/java/office/Caller.java", CALLER);
        assertThat(build.run("compile").good().log()).contains(" files written");
        build.example("harbour/contract", "contract")
                .pom("generate stand-in stand-in-stop", "<contract>contract/desk.wsdl</contract>", """
                        <dependencies>
                          <dependency>
                            <groupId>org.junit.jupiter</groupId>
                            <artifactId>junit-jupiter</artifactId>
                            <version>5.13.4</version>
                            <scope>test</scope>
                          </dependency>
                        </dependencies>
                        """)
                .write("src/test/java/office/CallerIT.java", """
                        package office;

                        import static org.junit.jupiter.api.Assertions.assertFalse;

                        import org.junit.jupiter.api.Test;

                        class CallerIT {
                            @Test
                            void calls() throws Exception {
                                assertFalse(Caller.desk(System.getProperty("desk"))
                                        .listBerths(java.math.BigDecimal.ONE)
                                        .isEmpty());
                            }
                        }
                        """);
        assertThat(build.run("verify").good().log())
                .contains("Desk is played at http://", "Tests run: 1, Failures: 0", "the stand-in has ended");
    }
}
