package org.protypos.target.java;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Toolchain;
import org.protypos.target.ToolchainProcess;
import org.protypos.target.classes.Plan;

/** The compiler of the Java that runs us; types that it compiles are loaded beside us. */
final class JavaToolchain implements Toolchain {
    private static final String MAIN = "example.lanternbay.office.Visit";

    private final JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();

    @Override
    public Missing missing() {
        return compiler == null
                ? new Missing("Java is to be compiled, and this Java has no compiler", "run it with a JDK")
                : null;
    }

    @Override
    public List<String> example() {
        return List.of("src/example/lanternbay/office/LanternBayDesk.java", "src/example/lanternbay/office/Visit.java");
    }

    @Override
    public String compiles() {
        return "javac -Xlint:all -Werror";
    }

    @Override
    public String starts() {
        return "java " + MAIN;
    }

    @Override
    public String compile(List<Path> sources, Path into) throws IOException {
        List<Path> all = new ArrayList<>();
        for (Path folder : sources) {
            try (Stream<Path> files = Files.walk(folder)) {
                files.filter(file -> file.toString().endsWith(".java")).forEach(all::add);
            }
        }
        StringWriter messages = new StringWriter();
        try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, null)) {
            List<String> options = List.of(
                    "-Xlint:all",
                    "-Werror",
                    "-proc:none",
                    "--release",
                    "17",
                    "-encoding",
                    "UTF-8",
                    "-d",
                    into.toString());
            boolean compiled = compiler.getTask(
                            messages, manager, null, options, null, manager.getJavaFileObjectsFromPaths(all))
                    .call();
            return compiled ? "" : messages.toString();
        }
    }

    @Override
    public void start(Path compiled, Consumer<String> lines) throws IOException {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        ToolchainProcess.run(
                new ProcessBuilder(
                        java,
                        "-Dstdout.encoding=UTF-8",
                        // Its name before version 19.
                        "-Dsun.stdout.encoding=UTF-8",
                        "-cp",
                        compiled.toString(),
                        MAIN),
                lines);
    }

    /** Compiles the types of a plan. */
    Types types(Plan plan) throws IOException {
        List<SourceFile> files = new JavaApi(plan).emit(Set.of(Product.TYPES), false, List::of);
        Class<?> registry = new Compilation(compiler, files).load(plan.rootPackage(), plan.registry());
        try {
            return new Loaded((XmlTypes) registry.getField("INSTANCE").get(null));
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    private record Loaded(XmlTypes types) implements Types {
        @Override
        public byte[] again(byte[] message) throws Refused {
            try {
                return types.write(types.read(new ByteArrayInputStream(message)));
            } catch (XmlFormatException e) {
                throw new Refused(e.reason(), e.line(), e.column(), e.path());
            }
        }

        @Override
        public void close() {
            // What is loaded goes when nobody knows it any more.
        }
    }
}
