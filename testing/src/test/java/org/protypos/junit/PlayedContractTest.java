package org.protypos.junit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import java.io.IOException;
import java.io.StringWriter;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.StandardLocation;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.platform.testkit.engine.EngineTestKit;
import org.junit.platform.testkit.engine.Event;
import org.junit.platform.testkit.engine.Events;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;

/** Tests that use the extension, run by JUnit itself: those that are to pass pass, and those that are to fail fail. */
class PlayedContractTest {
    private static final String DESK = "../examples/harbour/contract/desk.wsdl";
    private static final String PACKAGE = "example.lanternbay.office.";

    private static final String CARELESS = """
            package example.lanternbay.office;

            import java.net.URI;
            import java.net.http.HttpClient;
            import java.net.http.HttpRequest;
            import java.net.http.HttpResponse;
            import java.time.Duration;
            import org.junit.jupiter.api.Test;
            import org.junit.jupiter.api.extension.RegisterExtension;
            import org.protypos.junit.PlayedContract;

            class CarelessTest {
                @RegisterExtension
                final PlayedContract office = PlayedContract.of("../examples/harbour/contract/desk.wsdl");

                private int send(String body) throws Exception {
                    String envelope = "<e:Envelope xmlns:e='http://schemas.xmlsoap.org/soap/envelope/'><e:Body>"
                            + body.replace("/>", " xmlns='http://lanternbay.example/harbour/desk'/>") + "</e:Body></e:Envelope>";
                    return HttpClient.newHttpClient().send(
                            HttpRequest.newBuilder(URI.create(office.address()))
                                    .header("Content-Type", "text/xml; charset=utf-8")
                                    .header("SOAPAction", "")
                                    .POST(HttpRequest.BodyPublishers.ofString(envelope)).build(),
                            HttpResponse.BodyHandlers.discarding()).statusCode();
                }

                @Test
                void sendsWhatIsNotInTheContract() throws Exception {
                    send("<findVessel/>");
                }

                @Test
                void sendsWhatIsNotInTheContractAndMeansTo() throws Exception {
                    office.tolerant();
                    send("<findVessel/>");
                    if (office.single("findVessel").deviations().size() != 1) {
                        throw new AssertionError("no deviation");
                    }
                }

                @Test
                void sendsNothingThoughItShould() {
                    office.single("castOff");
                }

                @Test
                void sendsTwiceThoughOnceIsEnough() throws Exception {
                    send("<listBerths/>");
                    send("<listBerths/>");
                    office.single("listBerths");
                }

                @Test
                void asksForAnOperationThatIsMisspelt() {
                    office.received("listBerth");
                }

                @Test
                void tellsAnAnswerThatIsNotInTheContract() {
                    office.when("payDues").answerJson("{\\"receiptNumber\\": \\"none\\"}");
                }

                @Test
                void asksForAPortThatIsMisspelt() {
                    office.address("Desc");
                }
            }
            """;

    private static final String SHARING = """
            package example.lanternbay.office;

            import org.junit.jupiter.api.Test;
            import org.junit.jupiter.api.extension.RegisterExtension;
            import org.protypos.junit.PlayedContract;

            class SharingTest {
                @RegisterExtension
                static final PlayedContract OFFICE = PlayedContract.of("../examples/harbour/contract/desk.wsdl");

                @Test
                void sharesItsService() {}
            }
            """;

    @TempDir
    private static Path folder;

    private static ClassLoader loader;

    @BeforeAll
    static void compile() throws IOException {
        Path sources = folder.resolve("sources");
        assertThat(Generator.of(List.of(DESK))
                        .generate(Order.into(sources))
                        .written(false, false)
                        .isRefused())
                .isFalse();
        Path own = Files.createDirectories(sources.resolve(PACKAGE.replace('.', '/')));
        Files.copy(
                Path.of("src/test/resources/example/lanternbay/office/BookingTest.java"),
                own.resolve("BookingTest.java"));
        Files.writeString(own.resolve("CarelessTest.java"), CARELESS);
        Files.writeString(own.resolve("SharingTest.java"), SHARING);
        Path classes = Files.createDirectories(folder.resolve("classes"));
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        StringWriter messages = new StringWriter();
        try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, null);
                Stream<Path> found = Files.walk(sources)) {
            manager.setLocationFromPaths(StandardLocation.CLASS_OUTPUT, List.of(classes));
            List<Path> files =
                    found.filter(file -> file.toString().endsWith(".java")).toList();
            String path = System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"));
            compiler.getTask(
                            messages,
                            manager,
                            null,
                            List.of("-proc:none", "-cp", path),
                            null,
                            manager.getJavaFileObjectsFromPaths(files))
                    .call();
        }
        assertThat(messages.toString()).isEmpty();
        loader = new URLClassLoader(new URL[] {classes.toUri().toURL()}, PlayedContractTest.class.getClassLoader());
    }

    private static Events run(String name, boolean parallel) throws ClassNotFoundException {
        return EngineTestKit.engine("junit-jupiter")
                .configurationParameter("junit.jupiter.execution.parallel.enabled", String.valueOf(parallel))
                .configurationParameter("junit.jupiter.execution.parallel.mode.default", "concurrent")
                .selectors(selectClass(loader.loadClass(PACKAGE + name)))
                .execute()
                .testEvents();
    }

    @Test
    void theTestsOfTheDemoPassAlsoSideBySide() throws Exception {
        for (boolean parallel : new boolean[] {false, true}) {
            Events events = run("BookingTest", parallel);
            assertThat(failures(events)).isEmpty();
            events.assertStatistics(statistics -> statistics.started(4).succeeded(4));
        }
    }

    @Test
    void testsFailForWhatTheContractDoesNotSayAndForCallsThatAreMissing() throws Exception {
        Map<String, String> failures = failures(run("CarelessTest", true));
        assertThat(failures)
                .containsOnlyKeys(
                        "sendsWhatIsNotInTheContract",
                        "sendsNothingThoughItShould",
                        "sendsTwiceThoughOnceIsEnough",
                        "asksForAnOperationThatIsMisspelt",
                        "tellsAnAnswerThatIsNotInTheContract",
                        "asksForAPortThatIsMisspelt");
        assertThat(failures.get("sendsWhatIsNotInTheContract"))
                .contains("what was asked is not what the contract says", "findVessel", "callSign");
        assertThat(failures.get("sendsNothingThoughItShould"))
                .contains("castOff was to be called once, and was called never; nothing was called");
        assertThat(failures.get("sendsTwiceThoughOnceIsEnough"))
                .contains("was called 2 times; called were listBerths, listBerths");
        assertThat(failures.get("asksForAnOperationThatIsMisspelt")).contains("did you mean listBerths?");
        assertThat(failures.get("asksForAPortThatIsMisspelt")).contains("did you mean Desk?");
        assertThat(failures.get("tellsAnAnswerThatIsNotInTheContract")).contains("receiptNumber", "none");
    }

    @Test
    void theTestOfTheDemoIsTheOneInTheDocumentation() throws IOException {
        String test = Files.readString(Path.of("src/test/resources/example/lanternbay/office/BookingTest.java"));
        String shown = test.substring(test.indexOf("class BookingTest"))
                .lines()
                .map(line -> line.isBlank() ? "" : "    " + line)
                .collect(Collectors.joining("\n"));
        assertThat(Path.of("../docs/testing.md")).content().contains(shown);
    }

    @Test
    void aServiceIsNotShared() throws Exception {
        List<String> told = new ArrayList<>();
        EngineTestKit.engine("junit-jupiter")
                .selectors(selectClass(loader.loadClass(PACKAGE + "SharingTest")))
                .execute()
                .allEvents()
                .failed()
                .stream()
                .forEach(event -> told.add(message(event)));
        assertThat(told).singleElement().asString().contains("each test has a service of its own");
    }

    private static Map<String, String> failures(Events events) {
        Map<String, String> failures = new TreeMap<>();
        events.failed().stream()
                .forEach(event ->
                        failures.put(event.getTestDescriptor().getDisplayName().replace("()", ""), message(event)));
        return failures;
    }

    private static String message(Event event) {
        return event.getRequiredPayload(org.junit.platform.engine.TestExecutionResult.class)
                .getThrowable()
                .map(Throwable::toString)
                .orElse("");
    }
}
