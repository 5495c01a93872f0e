package org.protypos.testing;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.StringWriter;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Targets;
import org.protypos.target.classes.ClassApi;
import org.protypos.target.classes.Plan;

/** Code generated from a contract, compiled without a warning and loaded. */
public final class Generated implements AutoCloseable {
    private static final Set<Product> WITHOUT_SERVLETS =
            EnumSet.complementOf(EnumSet.of(Product.SERVLET, Product.FREE_FORM));

    private final Contract contract;
    private final Plan plan;
    private final List<SourceFile> files;
    private final URLClassLoader loader;

    private Generated(Contract contract, Plan plan, List<SourceFile> files, URLClassLoader loader) {
        this.contract = contract;
        this.plan = plan;
        this.files = files;
        this.loader = loader;
    }

    /** Generates everything for a contract and compiles it in a folder. */
    public static Generated from(Path contract, Path folder, String packageName) throws IOException {
        return from(List.of(contract), folder, packageName);
    }

    /** Generates everything for a contract of several documents and compiles it in a folder. */
    public static Generated from(List<Path> contracts, Path folder, String packageName) throws IOException {
        return from(contracts, folder, packageName, null, WITHOUT_SERVLETS);
    }

    /** Generates everything for a contract as rules want it, and compiles it in a folder. */
    public static Generated from(List<Path> contracts, Path folder, Rules rules) throws IOException {
        return from(contracts, folder, null, rules, WITHOUT_SERVLETS);
    }

    /** Generates everything for a contract, also what runs in a servlet container, and compiles it in a folder. */
    public static Generated withServlets(Path contract, Path folder) throws IOException {
        return from(List.of(contract), folder, null, null, Targets.standard().products());
    }

    /** Generates everything for a contract as rules want it, and compiles it together with the sources in a folder. */
    public static Generated beside(Path contract, Path folder, Rules rules, Path own) throws IOException {
        try (Stream<Path> files = Files.walk(own)) {
            for (Path file :
                    files.filter(path -> path.toString().endsWith(".java")).toList()) {
                Path copy = folder.resolve("sources").resolve(own.relativize(file));
                Files.createDirectories(copy.getParent());
                Files.copy(file, copy);
            }
        }
        return from(List.of(contract), folder, null, rules, WITHOUT_SERVLETS);
    }

    private static Generated from(
            List<Path> contracts, Path folder, String packageName, Rules rules, Set<Product> products)
            throws IOException {
        Generator generator =
                Generator.of(contracts.stream().map(Path::toString).toList()).packageName(packageName);
        if (rules != null) {
            generator.rules(rules);
        }
        Path sources = folder.resolve("sources");
        GeneratedCode code =
                generator.generate(new Order("", sources, null, products, true)).written(false, false);
        assertThat(code.isRefused()).as("findings %s", code.findings()).isFalse();
        Path classes = Files.createDirectories(folder.resolve("classes"));
        assertThat(compile(sources, classes)).as("messages of the compiler").isEmpty();
        URL[] path = {classes.toUri().toURL()};
        return new Generated(
                code.planned().contract(),
                ((ClassApi) code.planned().code()).plan(),
                code.files(),
                new URLClassLoader(path, ClassLoader.getPlatformClassLoader()));
    }

    /** Compiles all sources in a folder and gives the compiler's messages, empty when there are none. */
    public static String compile(Path sources, Path classes) throws IOException {
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        StringWriter messages = new StringWriter();
        try (StandardJavaFileManager manager = compiler.getStandardFileManager(null, null, StandardCharsets.UTF_8);
                Stream<Path> found = Files.walk(sources)) {
            List<Path> files =
                    found.filter(file -> file.toString().endsWith(".java")).toList();
            List<String> options =
                    List.of("-Xlint:all", "-Werror", "-proc:none", "--release", "17", "-d", classes.toString());
            compiler.getTask(messages, manager, null, options, null, manager.getJavaFileObjectsFromPaths(files))
                    .call();
        }
        return messages.toString();
    }

    /** The contract. */
    public Contract contract() {
        return contract;
    }

    /** What was planned. */
    public Plan plan() {
        return plan;
    }

    /** The files that were generated. */
    public List<SourceFile> files() {
        return files;
    }

    /** Loads a generated class. */
    public Class<?> load(String name) throws ClassNotFoundException {
        return loader.loadClass(name);
    }

    /** Reads a document into generated types. */
    public Object read(String xml) throws ReflectiveOperationException {
        Object registry = registry();
        return registry.getClass()
                .getMethod("read", InputStream.class)
                .invoke(registry, new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
    }

    /** Reads a document into generated types and tells somebody what was passed over. */
    public Object read(String xml, Consumer<Object> passedOver) throws ReflectiveOperationException {
        Object registry = registry();
        return registry.getClass()
                .getMethod("read", InputStream.class, Consumer.class)
                .invoke(registry, new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)), passedOver);
    }

    /** Reads a document into generated types and writes it again. */
    public String roundTrip(String xml) throws ReflectiveOperationException {
        return write(read(xml));
    }

    /** Writes a document that was read before. */
    public String write(Object element) throws ReflectiveOperationException {
        Object registry = registry();
        byte[] bytes = (byte[]) registry.getClass()
                .getMethod("write", load(plan.rootPackage() + ".runtime.xml.XmlElement"))
                .invoke(registry, element);
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** What a document that was read before says is wrong with itself. */
    public List<?> violations(Object element) throws ReflectiveOperationException {
        Object value = element.getClass().getMethod("value").invoke(element);
        return (List<?>) load(plan.rootPackage() + ".runtime.xml.XmlObject")
                .getMethod("violations")
                .invoke(value);
    }

    private Object registry() throws ReflectiveOperationException {
        return load(plan.rootPackage() + "." + plan.registry())
                .getField("INSTANCE")
                .get(null);
    }

    @Override
    public void close() throws IOException {
        loader.close();
    }
}
