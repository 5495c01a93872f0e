package org.protypos.target.csharp;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.protypos.target.ToolchainProcess;

/** The free compiler and runtime {@code mcs} and {@code mono}. */
final class MonoToolchain implements PlatformToolchain {
    /** In a version of the language that old and new compilers understand. */
    private static final List<String> COMPILER =
            List.of("mcs", "-langversion:7.2", "-warn:4", "-warnaserror", "-codepage:utf8", "-debug-");

    /** What Debian and those like it call the parts that are needed: the compiler comes without its libraries. */
    static final String PACKAGES =
            "mono-mcs mono-runtime libmono-system-core4.0-cil libmono-system-xml-linq4.0-cil libmono-system-numerics4.0-cil"
                    + " libmono-system-net-http4.0-cil";

    private static final Pattern LACKING = Pattern.compile("error CS0006: Metadata file [`']([^'`]+)'");

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
            String complaints = ToolchainProcess.complaints(new ProcessBuilder(command));
            String lacking = LACKING.matcher(complaints)
                    .results()
                    .map(one -> one.group(1))
                    .collect(Collectors.joining(", "));
            if (!lacking.isEmpty()) {
                throw new IOException("mcs does not find its libraries " + lacking
                        + "; get them, on Debian and Ubuntu by apt-get install " + PACKAGES);
            }
            return complaints;
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
