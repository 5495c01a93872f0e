package org.protypos.target.csharp;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Toolchain;
import org.protypos.target.ToolchainFolder;
import org.protypos.target.ToolchainProcess;
import org.protypos.target.classes.Plan;
import org.protypos.target.csharp.text.EmbeddedRuntime;

/** The free compiler and runtime {@code mcs} and {@code mono}, from the PATH. */
final class CSharpToolchain implements Toolchain {
    private static final String PACKAGES =
            "mono-mcs mono-runtime libmono-system-core4.0-cil libmono-system-xml-linq4.0-cil libmono-system-numerics4.0-cil"
                    + " libmono-system-net-http4.0-cil";

    /** In a version of the language that old and new compilers understand. */
    private static final List<String> COMPILER =
            List.of("mcs", "-langversion:7.2", "-warn:4", "-warnaserror", "-codepage:utf8", "-debug-");

    private static final List<String> LIBRARIES = List.of(
            "-r:System.Core", "-r:System.Numerics", "-r:System.Xml", "-r:System.Xml.Linq", "-r:System.Net.Http");

    private static final String EXAMPLE = "visit.exe";
    private static final String PROVER = "prover.exe";

    @Override
    public Missing missing() {
        List<String> lacking =
                Stream.of("mcs", "mono").filter(program -> !isOnPath(program)).toList();
        return lacking.isEmpty()
                ? null
                : new Missing(
                        "C# is to be compiled and run, and there is no " + String.join(" and no ", lacking)
                                + " on the PATH",
                        "get them: on Debian and Ubuntu by apt-get install " + PACKAGES
                                + "; elsewhere from the package mono");
    }

    private static boolean isOnPath(String program) {
        String path = System.getenv("PATH");
        return path != null
                && Arrays.stream(path.split(File.pathSeparator))
                        .filter(folder -> !folder.isBlank())
                        .anyMatch(folder -> Files.isExecutable(Path.of(folder, program))
                                || Files.isExecutable(Path.of(folder, program + ".exe"))
                                || Files.isExecutable(Path.of(folder, program + ".bat")));
    }

    @Override
    public List<String> example() {
        return List.of("csharp/LanternBayDesk.cs", "csharp/Visit.cs");
    }

    @Override
    public String compiles() {
        return "mcs -warn:4 -warnaserror";
    }

    @Override
    public String starts() {
        return "mono " + EXAMPLE;
    }

    @Override
    public String compile(List<Path> sources, Path into) throws IOException {
        return compiled(sources, into.resolve(EXAMPLE));
    }

    private static String compiled(List<Path> sources, Path program) throws IOException {
        List<String> arguments = new ArrayList<>(LIBRARIES);
        arguments.add("-target:exe");
        arguments.add("-out:" + quoted(program));
        for (Path folder : sources) {
            try (Stream<Path> files = Files.walk(folder)) {
                files.filter(file -> file.toString().endsWith(".cs"))
                        .map(CSharpToolchain::quoted)
                        .forEach(arguments::add);
            }
        }
        // A command line has room for some sources only.
        Path list = Files.createTempFile("sources", ".rsp");
        try {
            Files.write(list, arguments);
            List<String> command = new ArrayList<>(COMPILER);
            command.add("@" + list);
            StringBuilder said = new StringBuilder();
            try {
                ToolchainProcess.run(command, line -> said.append(line).append('\n'));
            } catch (IOException e) {
                return said.isEmpty() ? e.getMessage() : said.toString().strip();
            }
            return said.toString().strip();
        } finally {
            Files.delete(list);
        }
    }

    private static String quoted(Path path) {
        return '"' + path.toAbsolutePath().toString() + '"';
    }

    @Override
    public void start(Path compiled, Consumer<String> lines) throws IOException {
        ToolchainProcess.run(List.of("mono", compiled.resolve(EXAMPLE).toString()), lines);
    }

    /** Compiles the types of a plan. */
    Types types(Plan plan) throws IOException {
        Path folder = Files.createTempDirectory("protypos-proof");
        try {
            List<SourceFile> files = new ArrayList<>(new CSharpApi(plan).emit(Set.of(Product.TYPES), false, List::of));
            files.addAll(EmbeddedRuntime.files(EmbeddedRuntime.LIBRARY, false));
            try (InputStream prover = CSharpToolchain.class.getResourceAsStream("Prover.cs")) {
                files.add(new SourceFile("Prover.cs", new String(prover.readAllBytes(), StandardCharsets.UTF_8)));
            }
            for (SourceFile file : files) {
                Path path = folder.resolve(file.path());
                Files.createDirectories(path.getParent());
                Files.writeString(path, file.text());
            }
            Path program = folder.resolve(PROVER);
            String said = compiled(List.of(folder), program);
            if (!said.isEmpty()) {
                throw new IllegalStateException("the generated code does not compile: " + said);
            }
            return new Running(
                    folder,
                    new ProcessBuilder("mono", program.toString(), plan.rootPackage() + "." + plan.registry())
                            .redirectError(ProcessBuilder.Redirect.DISCARD)
                            .start());
        } catch (IOException | RuntimeException e) {
            ToolchainFolder.delete(folder);
            throw e;
        }
    }

    /** Types in a program of their own. */
    private static final class Running implements Types {
        private final Path folder;
        private final Process process;
        private final DataOutputStream to;
        private final DataInputStream from;

        Running(Path folder, Process process) {
            this.folder = folder;
            this.process = process;
            this.to = new DataOutputStream(process.getOutputStream());
            this.from = new DataInputStream(process.getInputStream());
        }

        @Override
        public byte[] again(byte[] message) throws IOException, Refused {
            to.writeInt(message.length);
            to.write(message);
            to.flush();
            if (from.readByte() == 0) {
                return bytes();
            }
            int line = from.readInt();
            int column = from.readInt();
            String path = new String(bytes(), StandardCharsets.UTF_8);
            throw new Refused(new String(bytes(), StandardCharsets.UTF_8), line, column, path);
        }

        private byte[] bytes() throws IOException {
            return from.readNBytes(from.readInt());
        }

        @Override
        public void close() throws IOException {
            to.close();
            ToolchainProcess.end(process);
            ToolchainFolder.delete(folder);
        }
    }
}
