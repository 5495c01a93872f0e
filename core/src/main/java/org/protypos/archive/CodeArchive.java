package org.protypos.archive;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.jar.Attributes;
import java.util.jar.Manifest;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Version;
import org.protypos.output.WholeFile;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.Plan;

/**
 * Generated code, compiled and put into an archive that is handed on or deployed. The door of this package. The bytes of an
 * archive depend on the contract, the sources and the compiler alone.
 */
public final class CodeArchive {
    private static final String MANIFEST = "META-INF/MANIFEST.MF";
    private static final Pattern VERSIONED = Pattern.compile("(.+?)-([0-9][A-Za-z0-9._-]*)");

    private final GeneratedCode code;
    private final JavaCompiler compiler;
    private final List<Path> jars = new ArrayList<>();
    private final List<Path> folders = new ArrayList<>();

    private CodeArchive(GeneratedCode code, JavaCompiler compiler) {
        this.code = code;
        this.compiler = compiler;
    }

    /**
     * Of code that was generated and is sound.
     *
     * @param with jars and folders of Java sources that belong to it: implementations, classes that rules name
     */
    public static CodeArchive of(GeneratedCode code, JavaCompiler compiler, List<Path> with) {
        CodeArchive archive = new CodeArchive(code, compiler);
        with.forEach(path -> (Files.isDirectory(path) ? archive.folders : archive.jars).add(path));
        return archive;
    }

    private static List<SourceFile> own(Path folder) throws IOException {
        List<SourceFile> own = new ArrayList<>();
        try (Stream<Path> found = Files.walk(folder)) {
            for (Path file : found.filter(path -> path.toString().endsWith(".java"))
                    .sorted()
                    .toList()) {
                own.add(new SourceFile(file.toString().replace('\\', '/'), Files.readString(file)));
            }
        }
        return own;
    }

    private ClassFiles compiled(Findings findings) throws IOException {
        List<SourceFile> all = new ArrayList<>(code.files());
        for (Path folder : folders) {
            all.addAll(own(folder));
        }
        ClassFiles classes = new ClassFiles(compiler, jars, findings);
        if (code.order().products().contains(Product.SERVLET)) {
            classes.see(OwnClasses.SERVLETS);
        }
        if (!code.order().embedded()) {
            classes.see(OwnClasses.RUNTIME);
        }
        classes.compile(all);
        return classes;
    }

    /** What lies in folders of sources and is no source: it goes along. */
    private Map<String, byte[]> resources() throws IOException {
        Map<String, byte[]> resources = new TreeMap<>();
        for (Path folder : folders) {
            try (Stream<Path> found = Files.walk(folder)) {
                for (Path file : found.filter(Files::isRegularFile)
                        .filter(path -> !path.toString().endsWith(".java"))
                        .toList()) {
                    resources.put(folder.relativize(file).toString().replace('\\', '/'), Files.readAllBytes(file));
                }
            }
        }
        return resources;
    }

    /** The classes of the code: what goes into an archive has some. */
    private Plan plan() {
        return ((ClassApi) code.planned().code()).plan();
    }

    /**
     * Writes a jar of the code, and beside it one of its sources.
     *
     * @param file the jar; its name may end in a version: {@code desk-1.2.jar}
     * @return why nothing was written; empty when it was
     * @throws IOException when something cannot be read or written
     */
    public List<Finding> jar(Path file) throws IOException {
        Findings findings = new Findings();
        try (ClassFiles classes = compiled(findings)) {
            if (findings.hasErrors()) {
                return findings.sorted();
            }
            Map<String, byte[]> entries = new TreeMap<>(classes.files());
            entries.putAll(resources());
            String name = stem(file);
            Matcher versioned = VERSIONED.matcher(name);
            String artifact = (versioned.matches() ? versioned.group(1) : name).replaceAll("[^A-Za-z0-9._-]", "-");
            String group = plan().rootPackage();
            entries.put(MANIFEST, manifest(Map.of("Automatic-Module-Name", group)));
            entries.put(
                    "META-INF/maven/" + group + "/" + artifact + "/pom.xml",
                    utf8(pom(group, artifact, versioned.matches() ? versioned.group(2) : "1")));
            Map<String, byte[]> sources = new TreeMap<>();
            code.files().forEach(source -> sources.put(source.path(), utf8(source.text())));
            for (Path folder : folders) {
                for (SourceFile source : own(folder)) {
                    sources.put(
                            folder.relativize(Path.of(source.path())).toString().replace('\\', '/'),
                            utf8(source.text()));
                }
            }
            sources.put(MANIFEST, manifest(Map.of()));
            WholeFile.write(sources(file), ZipBytes.of(MANIFEST, sources));
            WholeFile.write(file, ZipBytes.of(MANIFEST, entries));
        }
        return findings.sorted();
    }

    /** The jar of sources beside a jar. */
    public static Path sources(Path jar) {
        return jar.resolveSibling(stem(jar) + "-sources.jar");
    }

    private static String stem(Path file) {
        return file.getFileName().toString().replaceFirst("\\.[jw]ar$", "");
    }

    static byte[] manifest(Map<String, String> more) throws IOException {
        Manifest manifest = new Manifest();
        Attributes attributes = manifest.getMainAttributes();
        attributes.put(Attributes.Name.MANIFEST_VERSION, "1.0");
        attributes.putValue("Created-By", "protypos " + Version.current());
        new TreeMap<>(more).forEach(attributes::putValue);
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        manifest.write(bytes);
        return bytes.toByteArray();
    }

    private String pom(String group, String artifact, String version) {
        String runtime = code.order().embedded() ? "" : """
                  <dependencies>
                    <dependency>
                      <groupId>org.protypos</groupId>
                      <artifactId>protypos-runtime</artifactId>
                      <version>%s</version>
                    </dependency>
                  </dependencies>
                """.formatted(Version.current());
        return """
                <?xml version="1.0" encoding="UTF-8"?>
                <project xmlns="http://maven.apache.org/POM/4.0.0">
                  <modelVersion>4.0.0</modelVersion>
                  <groupId>%s</groupId>
                  <artifactId>%s</artifactId>
                  <version>%s</version>
                %s</project>
                """.formatted(group, xml(artifact), xml(version), runtime);
    }

    static String xml(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    private static byte[] utf8(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /**
     * Writes an archive for a servlet container (Jakarta Servlet 5.0 and later) in which each interface is served by the
     * implementation that lies in what was given beside the code, under the paths of its ports.
     *
     * @return why nothing was written; empty when it was
     * @throws IOException when something cannot be read or written
     */
    public List<Finding> war(Path file) throws IOException {
        Findings findings = new Findings();
        Deployment deployment = new Deployment(plan());
        if (deployment.interfaces().isEmpty()) {
            findings.error(
                    "nothing-served",
                    null,
                    "a container can serve nothing of this contract: no binding carries its operations",
                    "name the document that has the bindings; --jar makes an archive of the types alone");
            return findings.sorted();
        }
        try (ClassFiles classes = compiled(findings)) {
            if (findings.hasErrors()) {
                return findings.sorted();
            }
            Set<String> candidates = new TreeSet<>(classNames(classes.files().keySet()));
            code.files().forEach(source -> candidates.removeIf(name -> isOf(name, source)));
            for (Path jar : jars) {
                candidates.addAll(Implementations.classNames(jar));
            }
            Map<String, String> found =
                    Implementations.find(deployment.interfaces(), candidates, classes.classPath(), findings);
            if (findings.hasErrors()) {
                return findings.sorted();
            }
            classes.compile(deployment.servlets(found));
            if (findings.hasErrors()) {
                return findings.sorted();
            }
            Map<String, byte[]> entries = new LinkedHashMap<>();
            entries.put(MANIFEST, manifest(Map.of()));
            entries.put("WEB-INF/web.xml", utf8(deployment.descriptor()));
            classes.files().forEach((path, bytes) -> entries.put("WEB-INF/classes/" + path, bytes));
            resources().forEach((path, bytes) -> entries.put("WEB-INF/classes/" + path, bytes));
            for (Path jar : jars) {
                entries.put("WEB-INF/lib/" + jar.getFileName(), Files.readAllBytes(jar));
            }
            if (!code.order().embedded()) {
                entries.put("WEB-INF/lib/protypos-runtime-" + Version.current() + ".jar", OwnClasses.RUNTIME.jar());
            }
            WholeFile.write(file, ZipBytes.of(MANIFEST, entries));
        }
        return findings.sorted();
    }

    private static List<String> classNames(Set<String> paths) {
        return paths.stream()
                .map(path ->
                        path.substring(0, path.length() - ".class".length()).replace('/', '.'))
                .toList();
    }

    private static boolean isOf(String className, SourceFile source) {
        String name = source.path()
                .substring(0, source.path().length() - ".java".length())
                .replace('/', '.');
        return className.equals(name) || className.startsWith(name + "$");
    }
}
