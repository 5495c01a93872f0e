package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.target.Targets;

/** The built program in another language than Java. */
class LanguageIT {
    @TempDir
    private Path folder;

    private BuiltProgram program;

    @BeforeEach
    void example() throws IOException {
        program = new BuiltProgram(folder);
        program.example();
    }

    private BuiltProgram.Run run(String... arguments) throws IOException, InterruptedException {
        return program.run(arguments);
    }

    /** Skips a test where C# cannot be compiled; in continuous integration that fails. */
    private static void assumeCompiler() {
        boolean there = Targets.named("csharp").toolchain().missing() == null;
        if (System.getenv("CI") != null) {
            assertThat(there).as("mcs and mono, which .ci/run installs").isTrue();
        }
        assumeTrue(there, "no C# compiler here");
    }

    private List<String> files(String where, String ending) throws IOException {
        try (Stream<Path> files = Files.walk(folder.resolve(where))) {
            return files.map(Path::toString)
                    .filter(path -> path.endsWith(ending))
                    .toList();
        }
    }

    private void language(String name) throws IOException {
        Path file = folder.resolve("protypos.yaml");
        Files.writeString(
                file,
                Files.readString(file)
                        .replaceFirst("(?m)^    language: .*\n", "")
                        .replace("  desk:\n", "  desk:\n    language: " + name + "\n"));
    }

    /** The platform chooses the order of its unordered collections anew for each run. */
    @Test
    void theSameContractGivesTheSameCodeAtAnyTime() throws Exception {
        for (String language : List.of("java", "csharp", "cobol")) {
            Set<String> made = new HashSet<>();
            for (int i = 0; i < 5; i++) {
                String into = language + i;
                assertThat(run("generate", "desk.wsdl", "--language", language, "--into", into)
                                .status())
                        .isZero();
                made.add(Files.readString(folder.resolve(into).resolve("protypos.lock.json")));
            }
            assertThat(made).as(language).hasSize(1);
        }
        Set<String> trees = new HashSet<>();
        for (int i = 0; i < 5; i++) {
            trees.add(run("show", "desk.wsdl", "--tree").out());
        }
        assertThat(trees).hasSize(1);
    }

    @Test
    void theDemoRunsInCSharp() throws Exception {
        assumeCompiler();
        BuiltProgram.Run run = run("demo", "--language", "csharp", "--into", "bay");
        assertThat(run.err()).isEmpty();
        assertThat(run.status()).isZero();
        assertThat(run.out())
                .contains("--language csharp", "no warning")
                .contains("berth 7 from 2027-05-09T14:30:00+02:00 for 432.000 LBC")
                .contains("no berth is free for a draught of 15.0 m; waiting: 2")
                .endsWith("next: protypos show YOUR-CONTRACT\n");
    }

    private static Path assumeDotnet() {
        Path dotnet = Stream.of(System.getenv("PATH").split(File.pathSeparator))
                .map(place -> Path.of(place, "dotnet"))
                .filter(Files::isExecutable)
                .findFirst()
                .orElse(null);
        assumeTrue(dotnet != null, "no SDK of .NET here: .ci/run gets one");
        return dotnet;
    }

    private static String dotnet(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("dotnet"));
        command.addAll(List.of(arguments));
        ProcessBuilder program = new ProcessBuilder(command).redirectErrorStream(true);
        program.environment().put("DOTNET_SYSTEM_GLOBALIZATION_INVARIANT", "1");
        program.environment().put("DOTNET_CLI_TELEMETRY_OPTOUT", "1");
        Process process = program.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isZero();
        return said.strip();
    }

    /** The project file that is begun finds the generated sources, wherever both lie. */
    @Test
    void theProjectThatIsBegunBuilds() throws Exception {
        assumeDotnet();
        String[] version = dotnet("--version").split("\\.");
        String framework = (Integer.parseInt(version[0]) < 5 ? "netcoreapp" : "net") + version[0] + "." + version[1];
        for (List<String> folders :
                List.of(List.of("gen (1); 50% & more", "app"), List.of("around", "around/inside/app"))) {
            String into = folders.get(0);
            assertThat(run(
                                    "generate",
                                    "desk.wsdl",
                                    "--language",
                                    "csharp",
                                    "--into",
                                    into,
                                    "--scaffold",
                                    folders.get(1))
                            .status())
                    .isZero();
            Path file = folder.resolve(folders.get(1)).resolve("Example.Lanternbay.Harbour.Desk.csproj");
            // The standard's libraries would have to be fetched; the platform's are there.
            Files.writeString(file, Files.readString(file).replace("netstandard2.0", framework));
            String said = dotnet("build", file.toString(), "-nologo", "-nodeReuse:false", "-verbosity:quiet");
            assertThat(said).as("%s", folders).contains("0 Warning(s)");
        }
    }

    /** Whoever has the SDK of .NET and nothing else: warnings are errors there too, and the same calls come to the same. */
    @Test
    void theDemoAndProofsRunOnDotnet() throws Exception {
        Path dotnet = assumeDotnet();
        Path only = Files.createDirectory(folder.resolve("path"));
        Files.createSymbolicLink(only.resolve("dotnet"), dotnet.toRealPath());
        String into = "bay (1); 50% & more";
        BuiltProgram.Run demo = program.run(only.toString(), List.of("demo", "--language", "csharp", "--into", into));
        assertThat(demo.err()).isEmpty();
        assertThat(demo.status()).isZero();
        assertThat(demo.out())
                .contains("$ dotnet build -warnaserror", "no warning", "$ dotnet visit.dll")
                .contains("no berth is free for a draught of 15.0 m; waiting: 2");
        assertThat(run("sample", "desk.wsdl", "--all", "--full", "--into", "samples")
                        .status())
                .isZero();
        BuiltProgram.Run proof = program.run(
                only.toString(), List.of("proof", "desk.wsdl", "--message", "samples", "--language", "csharp"));
        assertThat(proof.out()).contains("11 of 11 messages survived");

        Files.delete(only.resolve("dotnet"));
        BuiltProgram.Run nothing = program.run(only.toString(), List.of("demo", "--language", "csharp"));
        assertThat(nothing.status()).isEqualTo(3);
        assertThat(nothing.err())
                .contains("neither the SDK of .NET nor mono is on the PATH", "apt-get install mono-mcs");

        // Of Debian's packages somebody has the compiler and the runtime alone.
        for (String command : List.of("mcs", "mono")) {
            Path script = Files.writeString(
                    only.resolve(command),
                    "#!/bin/sh\necho \"error CS0006: Metadata file \\`System.Xml.Linq' could not be found\"\nexit 1\n");
            assertThat(script.toFile().setExecutable(true)).isTrue();
        }
        BuiltProgram.Run half = program.run(
                only.toString(), List.of("proof", "desk.wsdl", "--message", "samples", "--language", "csharp"));
        assertThat(half.status()).isEqualTo(3);
        assertThat(half.err())
                .startsWith("error: mcs does not find its libraries System.Xml.Linq; get them")
                .doesNotContain("mistake");
    }

    /** What the language's rules and correct messages are is seen by types that were really compiled and run. */
    @Test
    void messagesAreProvedInCSharp() throws Exception {
        assumeCompiler();
        assertThat(run("sample", "desk.wsdl", "--all", "--full", "--into", "samples")
                        .status())
                .isZero();
        BuiltProgram.Run java = run("proof", "desk.wsdl", "--message", "samples", "--json");
        BuiltProgram.Run sharp = run("proof", "desk.wsdl", "--message", "samples", "--json", "--language", "csharp");
        assertThat(sharp.status()).isZero();
        assertThat(sharp.out()).isEqualTo(java.out()).contains("\"survived\"");
    }

    @Test
    void aProjectKeepsToItsLanguage() throws Exception {
        assertThat(run("adopt", "desk.wsdl", "--name", "desk").status()).isZero();
        assertThat(run("generate").status()).isZero();
        assertThat(files("generated", ".java")).hasSize(136);
        BuiltProgram.Run other = run("generate", "--language", "csharp");
        assertThat(other.status()).isEqualTo(2);
        assertThat(other.err()).contains("the language of desk stands in protypos.yaml");
        assertThat(run("show", "desk", "--language", "csharp").out())
                .contains("interface IHarbourDesk", "Vessel FindVessel(string callSign)");

        // Another language has names of its own; those of the one before are gone with its code.
        language("csharp");
        assertThat(run("generate", "--check").status()).isEqualTo(4);
        BuiltProgram.Run generated = run("generate");
        assertThat(generated.err()).isEmpty();
        assertThat(generated.out()).contains("136 removed", ".HarbourDeskClient\n");
        assertThat(files("generated", ".java")).isEmpty();
        assertThat(files("generated", "HarbourDeskClient.cs")).hasSize(1);
        assertThat(run("generate", "--check").status()).isZero();
        assertThat(run("show", "desk").out()).contains("interface IHarbourDesk");
        assertThat(Files.readString(folder.resolve("contracts/desk/protypos.lock.json")))
                .contains("\"language\" : \"csharp\"");
        assertThat(run("check", "desk").out()).contains("no findings");

        // Names stay when the contract changes, in this language too.
        Path schema = folder.resolve("desk.xsd");
        Files.writeString(
                schema,
                Files.readString(schema)
                        .replace("</xs:schema>", "<xs:element name='Berth' type='xs:int'/></xs:schema>"));
        assertThat(run("refresh").status()).isZero();
        assertThat(run("generate", "--check").status()).isZero();
        assertThat(files("generated", "/Berth.cs")).hasSize(1);
    }

    @Test
    void whatALanguageHasNotIsSaid() throws Exception {
        BuiltProgram.Run servlet =
                run("generate", "desk.wsdl", "--language", "csharp", "--server", "servlet", "--json");
        assertThat(servlet.status()).isEqualTo(1);
        assertThat(servlet.out()).contains("\"language-lacks\"", "in C# there is no code for servlet containers");
        BuiltProgram.Run jar = run("generate", "desk.wsdl", "--language", "csharp", "--jar", "desk.jar");
        assertThat(jar.status()).isEqualTo(1);
        assertThat(folder.resolve("desk.jar")).doesNotExist();
        BuiltProgram.Run unknown = run("show", "desk.wsdl", "--language", "klingon");
        assertThat(unknown.status()).isEqualTo(2);
        assertThat(unknown.err()).contains("there is no language klingon; the languages are cobol, csharp, java");
        BuiltProgram.Run name = run("generate", "desk.wsdl", "--language", "csharp", "--package", "Bay.class");
        assertThat(name.err()).contains("\"Bay.class\" is no package name in C#");
    }

    /** What callers have to do is told in the words of their language. */
    @Test
    void comparisonsSpeakTheLanguage() throws Exception {
        Path before = Files.createDirectory(folder.resolve("before"));
        new BuiltProgram(before).example();
        Path schema = folder.resolve("desk.xsd");
        Files.writeString(schema, Files.readString(schema).replace("name=\"receiptNumber\"", "name=\"receipt-no\""));
        BuiltProgram.Run run = run("compare", "before/desk.wsdl", "desk.wsdl", "--language", "csharp");
        assertThat(run.out()).contains("breaks: client code, server code", "      name: ReceiptNumber");
    }
}
