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

/** What compiles and runs C# here: {@code mcs} and {@code mono}, which are quicker to start, or the SDK of .NET. */
final class CSharpToolchain implements Toolchain {
    private static final String EXAMPLE = "visit";
    private static final String PROVER = "prover";

    private PlatformToolchain platform;

    /** What is on the PATH, looked for once; null when nothing is. */
    private synchronized PlatformToolchain platform() {
        if (platform == null) {
            platform = isOnPath("mcs") && isOnPath("mono")
                    ? new MonoToolchain()
                    : isOnPath("dotnet") ? DotnetToolchain.find() : null;
        }
        return platform;
    }

    @Override
    public Missing missing() {
        return platform() != null
                ? null
                : new Missing(
                        "C# is to be compiled and run, and neither the SDK of .NET nor mono is on the PATH",
                        "get one of them: .NET (the command dotnet) as your system provides it; or mono, on Debian and Ubuntu"
                                + " by apt-get install " + MonoToolchain.PACKAGES);
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
        return platform().compiles();
    }

    @Override
    public String starts() {
        return platform().starts(EXAMPLE);
    }

    @Override
    public String compile(List<Path> sources, Path into) throws IOException {
        return compile(sources, into, EXAMPLE);
    }

    private String compile(List<Path> sources, Path into, String program) throws IOException {
        List<Path> all = new ArrayList<>();
        for (Path folder : sources) {
            try (Stream<Path> files = Files.walk(folder)) {
                files.filter(file -> file.toString().endsWith(".cs")).forEach(all::add);
            }
        }
        return platform().compile(all, into, program);
    }

    @Override
    public void start(Path compiled, Consumer<String> lines) throws IOException {
        ToolchainProcess.run(platform().start(compiled, EXAMPLE), lines);
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
            String said = compile(List.of(folder), folder, PROVER);
            if (!said.isEmpty()) {
                throw new IllegalStateException("the generated code does not compile: " + said);
            }
            return new Running(
                    folder,
                    platform()
                            .start(folder, PROVER, plan.rootPackage() + "." + plan.registry())
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
