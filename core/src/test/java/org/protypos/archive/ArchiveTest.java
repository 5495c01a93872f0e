package org.protypos.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.module.ModuleFinder;
import java.lang.module.ModuleReference;
import java.net.URI;
import java.net.URL;
import java.net.URLClassLoader;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipFile;
import javax.tools.ToolProvider;
import org.apache.catalina.Context;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.startup.Tomcat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.target.Targets;
import org.protypos.target.classes.ClassApi;

/** Archives are the same whenever they are made, are what they claim to be, and run where they are deployed. */
@Isolated("counts the threads that are left")
class ArchiveTest {
    private static final Path EXAMPLE = Path.of("../examples/harbour");

    @TempDir
    private Path folder;

    private static CodeArchive archive(boolean embedded, List<Path> with) {
        GeneratedCode code = Generator.of(
                        List.of(EXAMPLE.resolve("contract/desk.wsdl").toString()))
                .generate(
                        new Order("", Path.of("none"), null, Targets.standard().products(), embedded));
        assertThat(code.isRefused()).isFalse();
        return CodeArchive.of(code, ToolProvider.getSystemJavaCompiler(), with);
    }

    private static List<String> told(List<Finding> findings) {
        return findings.stream()
                .map(finding -> finding.code() + " " + finding.message())
                .toList();
    }

    private static String entry(Path archive, String name) throws IOException {
        try (ZipFile zip = new ZipFile(archive.toFile())) {
            return new String(zip.getInputStream(zip.getEntry(name)).readAllBytes());
        }
    }

    @Test
    void aJarIsAModuleWithItsSourcesAndItsPom() throws Exception {
        Path jar = folder.resolve("desk-1.2.jar");
        assertThat(archive(true, List.of()).jar(jar)).isEmpty();
        byte[] once = Files.readAllBytes(jar);
        byte[] sources = Files.readAllBytes(folder.resolve("desk-1.2-sources.jar"));
        assertThat(archive(true, List.of()).jar(jar)).isEmpty();
        assertThat(Files.readAllBytes(jar)).isEqualTo(once);
        assertThat(Files.readAllBytes(folder.resolve("desk-1.2-sources.jar"))).isEqualTo(sources);
        Files.delete(folder.resolve("desk-1.2-sources.jar"));
        assertThat(ModuleFinder.of(folder).findAll())
                .extracting((ModuleReference module) -> module.descriptor().name())
                .containsExactly("example.lanternbay.harbour.desk");
        String pom = "META-INF/maven/example.lanternbay.harbour.desk/desk/pom.xml";
        assertThat(entry(jar, pom)).contains("<version>1.2</version>").doesNotContain("protypos-runtime");
        assertThat(archive(false, List.of()).jar(jar)).isEmpty();
        assertThat(entry(jar, pom)).contains("<artifactId>protypos-runtime</artifactId>");
        try (ZipFile zip = new ZipFile(jar.toFile())) {
            assertThat(zip.stream().map(Object::toString)).noneMatch(name -> name.contains("runtime/"));
        }
    }

    @Test
    void whatIsMissingForAnArchiveIsToldAndNothingIsWritten() throws Exception {
        Path war = folder.resolve("office.war");
        assertThat(told(archive(true, List.of()).war(war)))
                .containsExactly("no-implementation there is no public class with a constructor without parameters that"
                        + " implements example.lanternbay.harbour.desk.HarbourDesk");
        GeneratedCode types = Generator.of(List.of("../examples/harbour/contract/vessels.xsd"))
                .generate(Order.into(folder.resolve("none")));
        assertThat(told(CodeArchive.of(types, ToolProvider.getSystemJavaCompiler(), List.of())
                                .war(war))
                        .get(0))
                .contains("nothing-served");
        Path broken = Files.createDirectories(folder.resolve("src"));
        Files.writeString(
                broken.resolve("Broken.java"), "public class Broken {\n    Strin name;\n    int x = \"y\";\n}\n");
        List<Finding> findings = archive(true, List.of(broken)).war(war);
        assertThat(findings)
                .extracting(finding ->
                        finding.place().line() + ":" + finding.place().column() + " " + finding.code())
                .containsExactly("2:5 does-not-compile", "3:13 does-not-compile");
        assertThat(findings.get(0).place().document())
                .isEqualTo(broken.resolve("Broken.java").toString());
        assertThat(war).doesNotExist();
    }

    @Test
    void portsThatContractsPutAtOnePathOrNoneGetPathsOfTheirOwn() throws Exception {
        Path contract = folder.resolve("tide.wsdl");
        String tide = Files.readString(Path.of("../examples/tide/tide.wsdl"));
        assertThat(tide).contains("http://tide.lanternbay.example/gauge", "http://tide.lanternbay.example/log");
        for (String[] addresses : new String[][] {
            {"http://x/one", "http://x/one", "/one", "/Log"},
            {"TO-BE-REPLACED", "http://x/", "/Gauge", "/Log"},
            {"http://x/a%20b/*", "http://x/log/", "/Gauge", "/log"}
        }) {
            Files.writeString(
                    contract,
                    tide.replace("http://tide.lanternbay.example/gauge", addresses[0])
                            .replace("http://tide.lanternbay.example/log", addresses[1]));
            GeneratedCode code = Generator.of(List.of(contract.toString())).generate(Order.into(Path.of("none")));
            assertThat(told(code.findings()).stream().filter(line -> line.contains("error")))
                    .isEmpty();
            String descriptor = new Deployment(((ClassApi) code.planned().code()).plan()).descriptor();
            assertThat(descriptor)
                    .contains("<url-pattern>" + addresses[2] + "/*</url-pattern>")
                    .contains("<url-pattern>" + addresses[3] + "/*</url-pattern>");
        }
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void anArchiveIsDeployedCalledAndGoneWithoutATrace(boolean embedded) throws Exception {
        Path war = folder.resolve("office.war");
        assertThat(told(archive(embedded, List.of(implementation(embedded))).war(war)))
                .isEmpty();
        Set<String> threads = threads();
        Set<Path> temporary = temporary();
        Tomcat tomcat = new Tomcat();
        tomcat.setBaseDir(folder.resolve("container").toString());
        Files.createDirectories(folder.resolve("container/webapps"));
        tomcat.setPort(0);
        tomcat.getConnector().setProperty("address", "127.0.0.1");
        tomcat.setAddDefaultWebXmlToWebapp(false);
        tomcat.start();
        Set<String> idle = threads();
        Context context = tomcat.addWebapp("/office", war.toAbsolutePath().toString());
        assertThat(context.getState().isAvailable()).isTrue();
        String address = "http://127.0.0.1:" + tomcat.getConnector().getLocalPort() + "/office";
        for (String path : List.of("/desk", "/desk12")) {
            HttpResponse<String> wsdl = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(address + path + "?wsdl"))
                                    .build(),
                            HttpResponse.BodyHandlers.ofString());
            assertThat(wsdl.statusCode()).isEqualTo(200);
            assertThat(wsdl.body()).contains(address + path);
        }
        assertThat(called(address)).isEqualTo("berths at desk, berths at desk12");

        tomcat.getHost().removeChild(context);
        context.destroy();
        System.gc();
        assertThat(((StandardHost) tomcat.getHost()).findReloadedContextMemoryLeaks())
                .isEmpty();
        assertThat(threads()).isSubsetOf(idle);
        tomcat.stop();
        tomcat.destroy();
        assertThat(temporary()).isSubsetOf(temporary);
        assertThat(threads()).isSubsetOf(threads);
    }

    /** The implementation of the example, for the runtime that it is to run with. */
    private Path implementation(boolean embedded) throws IOException {
        Path desk = EXAMPLE.resolve("src/example/lanternbay/office/LanternBayDesk.java");
        Path copy = Files.createDirectories(folder.resolve("implementation")).resolve("LanternBayDesk.java");
        Files.writeString(
                copy,
                Files.readString(desk)
                        .replace(
                                "example.lanternbay.harbour.desk.runtime.",
                                embedded ? "example.lanternbay.harbour.desk.runtime." : "org.protypos.runtime."));
        return copy.getParent();
    }

    /** Calls with a generated client that was handed on as a jar. */
    private String called(String address) throws Exception {
        Path sources = Files.createDirectories(folder.resolve("caller"));
        Files.writeString(sources.resolve("Caller.java"), """
                import example.lanternbay.harbour.desk.HarbourDesk;
                import example.lanternbay.harbour.desk.HarbourDeskClient;
                import example.lanternbay.harbour.desk.HarbourOffice;
                import java.math.BigDecimal;

                public class Caller {
                    public static String call(String address) throws Exception {
                        HarbourDesk desk = HarbourDeskClient.connect(HarbourOffice.DESK, with -> with.address(address + "/desk"));
                        HarbourDesk other = HarbourDeskClient.connect(
                                HarbourOffice.SOAP12_DESK, with -> with.address(address + "/desk12"));
                        return (desk.listBerths(BigDecimal.ONE).isEmpty() ? "nothing" : "berths") + " at desk, "
                                + (other.listBerths(BigDecimal.ONE).isEmpty() ? "nothing" : "berths") + " at desk12";
                    }
                }
                """);
        Path both = folder.resolve("both.jar");
        assertThat(told(archive(true, List.of(sources)).jar(both))).isEmpty();
        URL[] path = {both.toUri().toURL()};
        try (URLClassLoader loader = new URLClassLoader(path, ClassLoader.getPlatformClassLoader())) {
            return (String)
                    loader.loadClass("Caller").getMethod("call", String.class).invoke(null, address);
        }
    }

    private static Set<String> threads() {
        return Thread.getAllStackTraces().keySet().stream()
                .map(Thread::getName)
                .filter(name -> !name.matches("HttpClient.*|Keep-Alive.*|Catalina-utility.*|http-nio-.*-exec-.*"))
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static Set<Path> temporary() throws IOException {
        try (Stream<Path> found = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return found.filter(path -> path.getFileName().toString().contains("protypos"))
                    .collect(Collectors.toSet());
        }
    }
}
