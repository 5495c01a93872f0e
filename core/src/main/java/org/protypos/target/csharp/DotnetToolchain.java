package org.protypos.target.csharp;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.protypos.target.ToolchainProcess;
import org.protypos.target.csharp.text.ProjectFile;

/** The SDK of .NET, by its command {@code dotnet}: any version that builds projects, for the platform of the same version. */
final class DotnetToolchain implements PlatformToolchain {
    private static final Pattern VERSION = Pattern.compile("(\\d+)\\.(\\d+)\\.\\d+.*");

    private static final Pattern COMPLAINT = Pattern.compile(": (error|warning)\\b");

    /** Nothing is fetched, and no analysis of another kind than the compiler's takes part. */
    private static final String PROJECT = """
            <Project Sdk="Microsoft.NET.Sdk">
              <PropertyGroup>
                <OutputType>Exe</OutputType>
                <TargetFramework>%s</TargetFramework>
                <LangVersion>7.3</LangVersion>
                <TreatWarningsAsErrors>true</TreatWarningsAsErrors>
                <EnableDefaultCompileItems>false</EnableDefaultCompileItems>
                <GenerateAssemblyInfo>false</GenerateAssemblyInfo>
                <GenerateTargetFrameworkAttribute>false</GenerateTargetFrameworkAttribute>
                <UseAppHost>false</UseAppHost>
                <DebugType>none</DebugType>
                <InvariantGlobalization>true</InvariantGlobalization>
                <CheckEolTargetFramework>false</CheckEolTargetFramework>
                <NuGetAudit>false</NuGetAudit>
                <OutputPath>built</OutputPath>
                <AppendTargetFrameworkToOutputPath>false</AppendTargetFrameworkToOutputPath>
              </PropertyGroup>
              <ItemGroup>
            %s
              </ItemGroup>
            </Project>
            """;

    private final String framework;

    private DotnetToolchain(String framework) {
        this.framework = framework;
    }

    /** The SDK that is on the PATH, or null when there is none: the command alone may be there to run programs only. */
    static DotnetToolchain find() {
        List<String> said = new ArrayList<>();
        try {
            ToolchainProcess.run(
                    process(List.of("dotnet", "--version"))
                            .directory(Path.of(System.getProperty("java.io.tmpdir"))
                                    .toFile()),
                    said::add);
        } catch (IOException e) {
            return null;
        }
        for (String line : said) {
            Matcher version = VERSION.matcher(line.strip());
            if (version.matches()) {
                int major = Integer.parseInt(version.group(1));
                return new DotnetToolchain((major < 5 ? "netcoreapp" : "net") + major + "." + version.group(2));
            }
        }
        return null;
    }

    /** Tells nobody of the build, leaves no process behind that keeps our end of its output open, and needs no library of languages. */
    private static ProcessBuilder process(List<String> command) {
        ProcessBuilder process = new ProcessBuilder(command);
        process.environment().put("DOTNET_CLI_TELEMETRY_OPTOUT", "1");
        process.environment().put("DOTNET_NOLOGO", "1");
        process.environment().put("DOTNET_SKIP_FIRST_TIME_EXPERIENCE", "1");
        process.environment().put("DOTNET_SYSTEM_GLOBALIZATION_INVARIANT", "1");
        process.environment().put("DOTNET_CLI_USE_MSBUILD_SERVER", "0");
        process.environment().put("MSBUILDDISABLENODEREUSE", "1");
        return process;
    }

    @Override
    public String compiles() {
        return "dotnet build -warnaserror";
    }

    @Override
    public String starts(String program) {
        return "dotnet " + program + ".dll";
    }

    @Override
    public String compile(List<Path> sources, Path folder, String program) throws IOException {
        Path project = folder.resolve(program + ".csproj").toAbsolutePath();
        String items = sources.stream()
                .map(source -> "    <Compile Include=\""
                        + ProjectFile.escaped(source.toAbsolutePath().toString()) + "\"/>")
                .collect(Collectors.joining("\n"));
        Files.writeString(project, PROJECT.formatted(framework, items));
        String said = ToolchainProcess.complaints(process(List.of(
                "dotnet",
                "build",
                project.toString(),
                "-nologo",
                "-verbosity:quiet",
                "-clp:NoSummary",
                "-p:UseSharedCompilation=false")));
        // The first build on a machine welcomes its user, and each line ends with the project, which nobody has
        // written.
        List<String> complaints = said.lines()
                .filter(line -> COMPLAINT.matcher(line).find())
                .map(line -> line.replace(" [" + project + "]", ""))
                .distinct()
                .toList();
        return complaints.isEmpty() ? said : String.join("\n", complaints);
    }

    @Override
    public ProcessBuilder start(Path folder, String program, String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                "dotnet", folder.resolve("built").resolve(program + ".dll").toString()));
        command.addAll(List.of(arguments));
        return process(command);
    }
}
