package org.protypos.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is handed out, unpacked and run. */
class DistributionIT {
    private static final String VERSION = System.getProperty("protypos.version");

    @TempDir
    private Path folder;

    private Path home;

    @BeforeEach
    void unpack() throws Exception {
        assumeThat(Path.of("/bin/sh")).exists();
        Path into = Files.createDirectories(folder.resolve("Hafen büro"));
        run(
                Map.of(),
                "tar",
                "xzf",
                Path.of("target/protypos-" + VERSION + ".tar.gz")
                        .toAbsolutePath()
                        .toString(),
                "-C",
                into.toString());
        home = into.resolve("protypos-" + VERSION);
    }

    private String run(Map<String, String> environment, String... command) throws IOException, InterruptedException {
        Path out = folder.resolve("out.txt");
        ProcessBuilder builder = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(out.toFile());
        builder.environment().keySet().removeAll(List.of("HOME", "XDG_CACHE_HOME", "PROTYPOS_JAVA_FLAGS"));
        builder.environment().put("JAVA_HOME", System.getProperty("java.home"));
        builder.environment().putAll(environment);
        Process process = builder.start();
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).isTrue();
        assertThat(process.exitValue()).as(Files.readString(out)).isEqualTo(environment.containsKey("fails") ? 3 : 0);
        return Files.readString(out);
    }

    private String program(Map<String, String> environment, String... arguments) throws Exception {
        List<String> command =
                new ArrayList<>(List.of(home.resolve("bin/protypos").toString()));
        command.addAll(List.of(arguments));
        return run(environment, command.toArray(String[]::new));
    }

    @Test
    void itRunsWhereItIsUnpackedAndKeepsItsArchiveInTheCache() throws Exception {
        Map<String, String> cache =
                Map.of("XDG_CACHE_HOME", folder.resolve("cache of mine").toString());
        List<Path> before = files(home);
        assertThat(program(cache, "--version"))
                .startsWith("protypos " + VERSION + "\n")
                .contains("runs from " + home.toRealPath().resolve("lib/protypos.jar"));
        List<Path> kept = files(folder.resolve("cache of mine/protypos")).stream()
                .filter(file -> file.toString().endsWith(".jsa"))
                .toList();
        assertThat(kept).hasSize(1);
        assertThat(Files.size(kept.get(0))).isGreaterThan(1 << 20);
        String shown = program(
                cache,
                "show",
                home.resolve("examples/harbour/contract/desk.wsdl").toString());
        assertThat(shown).contains("interface HarbourDesk");
        assertThat(files(home)).isEqualTo(before);
        assertThat(files(folder.resolve("cache of mine/protypos")))
                .contains(kept.get(0))
                .hasSize(2);
    }

    @Test
    void itRunsWithoutAFolderOfTheUser() throws Exception {
        assertThat(program(Map.of(), "--version")).startsWith("protypos " + VERSION);
        assertThat(program(Map.of("XDG_CACHE_HOME", "/dev/null/x"), "--version"))
                .startsWith("protypos " + VERSION);
    }

    /** Containers often say nothing of letters; names of files have them all the same. */
    @Test
    void filesAreCalledAsTheirContractsHaveItInEveryPlace() throws Exception {
        Path contract = folder.resolve("Hafen büro/größe.xsd");
        Files.writeString(contract, """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="Länge" type="Größe"/>
                  <xs:complexType name="Größe"><xs:attribute name="maß" type="xs:int"/></xs:complexType>
                </xs:schema>
                """);
        Map<String, String> place = Map.of("LC_ALL", "C", "XDG_CACHE_HOME", folder.toString());
        program(
                place,
                "generate",
                contract.toString(),
                "--into",
                folder.resolve("generated").toString());
        assertThat(files(folder.resolve("generated")))
                .anyMatch(file -> file.getFileName().toString().equals("Größe.java"));
        assertThat(program(place, "sample", contract.toString(), "--element", "Länge"))
                .contains("<Länge/>");
    }

    @Test
    void withoutAJavaItSaysWhatIsMissing() throws Exception {
        assertThat(program(Map.of("JAVA_HOME", "/nowhere", "fails", ""), "--version"))
                .isEqualTo(
                        "protypos: there is no Java: install a JDK of version 17 or later, or let JAVA_HOME name one\n");
    }

    @Test
    void theArchiveHasManualCompletionAndSchemasOfAllCommands() throws Exception {
        String help = program(Map.of(), "help");
        List<String> commands = help.substring(help.indexOf("Commands:"))
                .lines()
                .skip(1)
                .takeWhile(line -> !line.isBlank())
                .filter(line -> line.startsWith("  ") && !line.startsWith("   "))
                .map(line -> line.strip().split(" +")[0])
                .toList();
        assertThat(commands).contains("generate", "stand-in").hasSizeGreaterThan(12);
        for (String command : commands) {
            assertThat(home.resolve("share/man/man1/protypos-" + command + ".1"))
                    .content()
                    .contains("SYNOPSIS");
            assertThat(home.resolve("share/completion/protypos.bash")).content().contains(command);
        }
        for (String name : List.of("project", "rules", "answers", "show", "compare")) {
            assertThat(home.resolve("share/schema/" + name + ".schema.json"))
                    .hasContent(program(Map.of(), "schema", name));
        }
        assertThat(home.resolve("bin/protypos.cmd")).content().contains("\r\n").contains("org.protypos.cli.Main");
        assertThat(home.resolve("LICENSE")).isRegularFile();
    }

    @Test
    void theDebianPackageHoldsTheSameProgram() throws Exception {
        assumeThat(Path.of("/usr/bin/dpkg-deb")).exists();
        Path deb = Path.of("target/protypos_" + VERSION + "_all.deb").toAbsolutePath();
        Path root = folder.resolve("root");
        run(Map.of(), "dpkg-deb", "-x", deb.toString(), root.toString());
        assertThat(run(Map.of(), "dpkg-deb", "-f", deb.toString(), "Version")).isEqualTo(VERSION + "\n");
        assertThat(run(Map.of(), root.resolve("usr/bin/protypos").toString(), "--version"))
                .startsWith("protypos " + VERSION);
        assertThat(root.resolve("usr/share/protypos/lib/protypos.jar"))
                .hasSameBinaryContentAs(home.resolve("lib/protypos.jar"));
    }

    /** A contract that takes two seconds to come, asked for at a terminal. */
    @Test
    void whatTakesLongIsToldOnOneLineOfATerminalAndIsGoneAtTheEnd() throws Exception {
        assumeThat(Path.of("/usr/bin/script")).exists();
        byte[] schema = Files.readAllBytes(home.resolve("examples/harbour/contract/vessels.xsd"));
        HttpServer slow = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        slow.createContext("/", exchange -> {
            try {
                Thread.sleep(2_000);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            exchange.sendResponseHeaders(200, schema.length);
            exchange.getResponseBody().write(schema);
            exchange.close();
        });
        slow.start();
        try {
            String address = "http://127.0.0.1:" + slow.getAddress().getPort() + "/vessels.xsd";
            String command = "'" + home.resolve("bin/protypos") + "' check " + address;
            String told = run(Map.of("TERM", "xterm"), "/usr/bin/script", "-qec", command, "/dev/null");
            assertThat(told).contains("\r\u001b[Kfetching " + address + ", 1 s");
            assertThat(told.substring(told.lastIndexOf("\r\u001b[K") + 4))
                    .doesNotContain("fetching")
                    .contains("no findings in 1 document");
            for (String quiet : List.of("TERM=dumb " + command, command + " 2>/dev/null", command + " --json")) {
                assertThat(run(Map.of("TERM", "xterm"), "/usr/bin/script", "-qec", quiet, "/dev/null"))
                        .as(quiet)
                        .doesNotContain("fetching", "\u001b[K");
            }
        } finally {
            slow.stop(0);
        }
    }

    private static List<Path> files(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile).sorted().toList();
        }
    }
}
