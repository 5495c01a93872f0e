package org.protypos.testing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumSet;
import java.util.List;
import java.util.stream.Stream;
import org.protypos.binding.Rules;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.target.Product;
import org.protypos.target.Targets;
import org.protypos.target.Toolchain;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedInterface;
import org.protypos.target.classes.PlannedService;

/** A C# compiler and what runs the result, where there are such: in continuous integration they must be. */
public final class CSharp {
    private static final Path RUNTIME = Path.of("../runtime/src/main/csharp");
    private static final List<String> LIBRARIES = List.of(
            "-r:System.Core", "-r:System.Numerics", "-r:System.Xml", "-r:System.Xml.Linq", "-r:System.Net.Http");

    /** As strict as the compiler can be, in a version of the language that older tools understand too. */
    private static final List<String> STRICT =
            List.of("-langversion:7.2", "-warn:4", "-warnaserror", "-debug-", "-codepage:utf8");

    private CSharp() {}

    /** Skips a test where there is no compiler; in continuous integration its absence fails. */
    public static void assumed() {
        Toolchain toolchain = Targets.named("csharp").toolchain();
        boolean there = toolchain.missing() == null && toolchain.compiles().startsWith("mcs");
        if (System.getenv("CI") != null) {
            assertThat(there).as("mcs and mono, which .ci/run installs").isTrue();
        }
        assumeTrue(there, "no C# compiler here: apt-get install mono-mcs mono-runtime");
    }

    /** The runtime as a library, compiled once. */
    public static synchronized Path runtime() throws IOException {
        Path library = Path.of("target/csharp/Protypos.Runtime.dll");
        if (!Files.exists(library) || isOlder(library)) {
            Files.createDirectories(library.getParent());
            compile(sources(RUNTIME), "library", library, List.of());
        }
        return library;
    }

    private static boolean isOlder(Path library) throws IOException {
        long made = Files.getLastModifiedTime(library).toMillis();
        return sources(RUNTIME).stream().anyMatch(source -> {
            try {
                return Files.getLastModifiedTime(source).toMillis() > made;
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    /** All C# sources in a folder. */
    public static List<Path> sources(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(file -> file.toString().endsWith(".cs"))
                    .sorted()
                    .toList();
        }
    }

    /** Compiles sources without a warning. */
    public static void compile(List<Path> sources, String kind, Path into, List<Path> references) throws IOException {
        List<String> command = new ArrayList<>(List.of("mcs"));
        command.addAll(STRICT);
        command.addAll(LIBRARIES);
        references.forEach(reference -> command.add("-r:" + reference));
        command.add("-target:" + kind);
        command.add("-out:" + into);
        if (kind.equals("library")) {
            // Comments are looked at too when they are written out.
            command.add("-doc:" + into + ".xml");
        }
        Path list = Files.createTempFile("sources", ".rsp");
        Files.write(list, sources.stream().map(source -> "\"" + source + "\"").toList());
        command.add("@" + list);
        String said = run(command, Path.of("."));
        Files.delete(list);
        assertThat(said).as("messages of the compiler").isEmpty();
    }

    /** A program in a place with another calendar and another decimal point, which nothing that is written may follow. */
    private static ProcessBuilder elsewhere(List<String> command) {
        ProcessBuilder program = new ProcessBuilder(command);
        program.environment().put("LC_ALL", "ps_AF.UTF-8");
        return program;
    }

    /** Runs a program to its end and gives what it says. */
    public static String run(List<String> command, Path folder) throws IOException {
        Process process = elsewhere(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        try {
            int status = process.waitFor();
            return status == 0 || !said.isEmpty() ? said : "status " + status;
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Generates types and ends of a contract that use the runtime as a library, and compiles them into one. */
    public static GeneratedCode library(Path contract, Rules rules, Path folder) throws IOException {
        Generator generator = Generator.of(List.of(contract.toString())).target(Targets.named("csharp"));
        if (rules != null) {
            generator.rules(rules);
        }
        Path sources = folder.resolve("sources");
        EnumSet<Product> products = EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
        GeneratedCode code = generator
                .generate(new Order("", sources, null, products, false))
                .written(false, false);
        assertThat(code.isRefused()).as("findings %s", code.findings()).isFalse();
        compile(sources(sources), "library", folder.resolve("contract.dll"), List.of(runtime()));
        return code;
    }

    /** Makes a {@link #library} of a contract, and gives the first service in it. */
    public static PlannedService service(Path contract, Path folder) throws IOException {
        return service(contract, null, folder);
    }

    /** Makes a {@link #library} of a contract as rules want it, and gives the first service in it. */
    public static PlannedService service(Path contract, Rules rules, Path folder) throws IOException {
        ClassApi api = (ClassApi) library(contract, rules, folder).planned().code();
        return api.plan().services().get(0);
    }

    /** A running C# program. */
    public static final class Program implements AutoCloseable {
        private final Process process;
        private final int port;
        private final Path said;
        private final BufferedReader out;

        private Program(Process process, int port, Path said) {
            this.process = process;
            this.out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
            this.port = port;
            this.said = said;
        }

        /** Where it listens. */
        public String address(String path) {
            return "http://127.0.0.1:" + port + path;
        }

        /** What it says of failures. */
        public String said() throws IOException {
            return Files.readString(said);
        }

        /** The next line that it prints. */
        private String line() throws IOException {
            return out.readLine();
        }

        /** What it answers to a line. */
        public String answer(String line) throws IOException {
            process.getOutputStream().write((line + "\n").getBytes(StandardCharsets.UTF_8));
            process.getOutputStream().flush();
            return line();
        }

        @Override
        public void close() throws IOException {
            process.getOutputStream().close();
            process.destroy();
        }
    }

    /**
     * What a relay needs to know of a port.
     *
     * @param path where it is served
     * @param target the address that is called
     */
    public static List<String> stop(PlannedService service, PlannedService.Port port, String path, String target) {
        PlannedInterface type = port.type();
        String space = type.packageName() + ".";
        return List.of(
                path,
                space + type.endpoint(),
                space + type.client(),
                service.packageName() + "." + service.name(),
                port.constant(),
                target);
    }

    /**
     * Starts a server that hands each call to a client.
     *
     * @param folder where the contract has been compiled
     * @param stops a {@link #stop} for each port
     */
    public static Program relay(Path folder, Collection<List<String>> stops) throws IOException {
        Path program = folder.resolve("Relay.exe");
        if (!Files.exists(program)) {
            Files.copy(runtime(), folder.resolve("Protypos.Runtime.dll"));
            compile(List.of(Path.of("src/test/csharp/Relay.cs")), "exe", program, List.of(runtime()));
        }
        List<String> arguments = new ArrayList<>();
        stops.forEach(arguments::addAll);
        return begin(program, List.of(folder.resolve("contract.dll").toString()), arguments);
    }

    /** Starts the harbour office of the example, which also calls whatever address it is given. */
    public static Program office(Path folder) throws IOException {
        Path sources = folder.resolve("office");
        EnumSet<Product> products = EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
        Path example = Path.of("../examples/harbour");
        GeneratedCode code = Generator.of(
                        List.of(example.resolve("contract/desk.wsdl").toString()))
                .target(Targets.named("csharp"))
                .generate(new Order("", sources, null, products, true))
                .written(false, false);
        assertThat(code.isRefused()).as("findings %s", code.findings()).isFalse();
        List<Path> all = new ArrayList<>(sources(sources));
        all.add(example.resolve("csharp/LanternBayDesk.cs"));
        all.add(Path.of("src/test/csharp/Office.cs"));
        Path program = folder.resolve("Office.exe");
        compile(all, "exe", program, List.of());
        return begin(program, List.of(), List.of());
    }

    private static Program begin(Path program, List<String> before, List<String> after) throws IOException {
        int port;
        try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        List<String> command = new ArrayList<>(List.of("mono", program.toString()));
        command.addAll(before);
        command.add(String.valueOf(port));
        command.addAll(after);
        Path said = Files.createTempFile(program.toAbsolutePath().getParent(), "said", ".txt");
        Process process = elsewhere(command).redirectError(said.toFile()).start();
        Program begun = new Program(process, port, said);
        assertThat(begun.line())
                .as("what the program says: %s", Files.readString(said))
                .isEqualTo("ready");
        return begun;
    }

    /** Has generated types read and write all messages in a folder. */
    public static void roundTrip(GeneratedCode code, Path folder, Path messages) throws IOException {
        Path program = folder.resolve("RoundTrip.exe");
        Files.copy(runtime(), folder.resolve("Protypos.Runtime.dll"));
        List<Path> parts = List.of(Path.of("src/test/csharp/RoundTrip.cs"), Path.of("src/test/csharp/Overlay.cs"));
        compile(parts, "exe", program, List.of(runtime()));
        Plan plan = ((ClassApi) code.planned().code()).plan();
        String registry = plan.rootPackage() + "." + plan.registry();
        String said = run(
                List.of(
                        "mono",
                        program.toString(),
                        folder.resolve("contract.dll").toString(),
                        registry,
                        messages.toString()),
                Path.of("."));
        assertThat(said).isEmpty();
    }
}
