package org.protypos.target.csharp;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.target.ToolchainProcess;

/** The free compiler and runtime {@code mcs} and {@code mono}. */
final class MonoToolchain implements PlatformToolchain {
    /** In a version of the language that old and new compilers understand. */
    private static final List<String> COMPILER =
            List.of("mcs", "-langversion:7.2", "-warn:4", "-warnaserror", "-codepage:utf8", "-debug-");

    private static final List<String> LIBRARIES = List.of(
            "-r:System.Core", "-r:System.Numerics", "-r:System.Xml", "-r:System.Xml.Linq", "-r:System.Net.Http");

    @Override
    public String compiles() {
        return "mcs -warn:4 -warnaserror";
    }

    @Override
    public String starts(String program) {
        return "mono " + program + ".exe";
    }

    @Override
    public String compile(List<Path> sources, Path folder, String program) throws IOException {
        List<String> arguments = new ArrayList<>(LIBRARIES);
        arguments.add("-target:exe");
        arguments.add("-out:" + quoted(folder.resolve(program + ".exe")));
        sources.forEach(source -> arguments.add(quoted(source)));
        // A command line has room for some sources only.
        Path list = Files.createTempFile("sources", ".rsp");
        try {
            Files.write(list, arguments);
            List<String> command = new ArrayList<>(COMPILER);
            command.add("@" + list);
            return ToolchainProcess.complaints(new ProcessBuilder(command));
        } finally {
            Files.delete(list);
        }
    }

    private static String quoted(Path path) {
        return '"' + path.toAbsolutePath().toString() + '"';
    }

    @Override
    public ProcessBuilder start(Path folder, String program, String... arguments) {
        List<String> command =
                new ArrayList<>(List.of("mono", folder.resolve(program + ".exe").toString()));
        command.addAll(List.of(arguments));
        return new ProcessBuilder(command);
    }
}
