package org.protypos.archive;

import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.Diagnostic;
import javax.tools.DiagnosticCollector;
import javax.tools.JavaCompiler;
import javax.tools.JavaFileObject;
import javax.tools.SimpleJavaFileObject;
import javax.tools.StandardJavaFileManager;
import javax.tools.StandardLocation;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Setting;
import org.protypos.diagnostic.SourceText;
import org.protypos.target.SourceFile;
import org.protypos.target.ToolchainFolder;

/** Compiles sources for Java 17 into a folder of its own, which goes when this is closed. */
final class ClassFiles implements AutoCloseable {
    private static final String RELEASE = "17";

    private final JavaCompiler compiler;
    private final Path folder;
    private final Path libraries;
    private final List<Path> classPath = new ArrayList<>();
    private final Findings findings;

    ClassFiles(JavaCompiler compiler, List<Path> classPath, Findings findings) throws IOException {
        this.compiler = compiler;
        this.folder = Files.createTempDirectory("protypos-classes");
        this.libraries = Files.createTempDirectory("protypos-libraries");
        this.classPath.add(folder);
        this.classPath.addAll(classPath);
        this.findings = findings;
    }

    /** Lets what is compiled see classes of ours, and no others. */
    void see(OwnClasses own) throws IOException {
        Path jar = libraries.resolve(own.name().toLowerCase(Locale.ROOT) + ".jar");
        Files.write(jar, own.jar());
        classPath.add(jar);
    }

    /** Compiles sources, together with what was compiled before; tells what the compiler refuses. */
    void compile(List<SourceFile> sources) throws IOException {
        DiagnosticCollector<JavaFileObject> said = new DiagnosticCollector<>();
        try (StandardJavaFileManager files = compiler.getStandardFileManager(said, null, StandardCharsets.UTF_8)) {
            files.setLocationFromPaths(StandardLocation.CLASS_OUTPUT, List.of(folder));
            files.setLocationFromPaths(StandardLocation.CLASS_PATH, classPath);
            compiler.getTask(
                            null,
                            files,
                            said,
                            List.of("--release", RELEASE, "-proc:none", "-Xlint:none", "-g", "-encoding", "UTF-8"),
                            null,
                            sources.stream().map(Source::new).toList())
                    .call();
        }
        for (Diagnostic<? extends JavaFileObject> one : said.getDiagnostics()) {
            if (one.getKind() == Diagnostic.Kind.ERROR) {
                findings.error(
                        "does-not-compile",
                        one.getSource() instanceof Source source
                                ? new SourceText(source.name, source.text).at((int) Math.max(0, one.getPosition()))
                                : null,
                        one.getMessage(null)
                                .lines()
                                .map(line -> line.strip().replaceAll("\\s+", " "))
                                .limit(2)
                                .collect(Collectors.joining(", ")),
                        "mend the source, or name what it needs with " + Setting.WITH);
            }
        }
    }

    /** The class files by their paths. */
    Map<String, byte[]> files() throws IOException {
        Map<String, byte[]> all = new TreeMap<>();
        try (Stream<Path> found = Files.walk(folder)) {
            for (Path file : found.filter(Files::isRegularFile).toList()) {
                all.put(folder.relativize(file).toString().replace('\\', '/'), Files.readAllBytes(file));
            }
        }
        return all;
    }

    /** Where classes are found: what was compiled, and what it was compiled with. */
    List<Path> classPath() {
        return classPath;
    }

    @Override
    public void close() throws IOException {
        ToolchainFolder.delete(folder);
        ToolchainFolder.delete(libraries);
    }

    private static final class Source extends SimpleJavaFileObject {
        private final String name;
        private final String text;

        Source(SourceFile file) {
            super(URI.create("memory:///" + Objects.requireNonNull(encoded(file.path()))), Kind.SOURCE);
            this.name = file.path();
            this.text = file.text();
        }

        private static String encoded(String path) {
            try {
                return new URI(null, null, "/" + path, null).getRawPath().substring(1);
            } catch (URISyntaxException e) {
                throw new IllegalArgumentException(e);
            }
        }

        @Override
        public CharSequence getCharContent(boolean ignoreEncodingErrors) {
            return text;
        }

        @Override
        public boolean isNameCompatible(String simpleName, Kind kind) {
            return kind == Kind.SOURCE && name.replaceFirst(".*/", "").equals(simpleName + kind.extension);
        }
    }
}
