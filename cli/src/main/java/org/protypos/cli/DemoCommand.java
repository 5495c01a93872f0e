package org.protypos.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.lang.reflect.InvocationTargetException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Runs the harbour example from contract to call. */
@Command(name = "demo", description = "Runs an example from contract to call over HTTP, step by step.")
final class DemoCommand implements Callable<Integer> {
    private static final List<String> EXAMPLE = List.of(
            "contract/desk.wsdl",
            "contract/desk.xsd",
            "contract/vessels.xsd",
            "src/example/lanternbay/office/LanternBayDesk.java",
            "src/example/lanternbay/office/Visit.java");

    @Spec
    private CommandSpec spec;

    @Option(names = "--into", paramLabel = "DIR", description = "Keeps everything in this new folder.")
    private Path into;

    private PrintWriter out;

    @Override
    public Integer call() throws Exception {
        out = spec.commandLine().getOut();
        Terminal terminal = new Terminal(out, spec.commandLine().getErr());
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        if (compiler == null) {
            terminal.problem("the demo compiles Java, and this Java has no compiler", "run it with a JDK");
            return ExitStatus.OUTSIDE;
        }
        if (into != null && Files.exists(into)) {
            terminal.problem(into + " is already there", "name a new folder with --into");
            return ExitStatus.USAGE;
        }
        Path folder = into != null ? into : Files.createTempDirectory("protypos-demo");
        try {
            return run(terminal, compiler, folder);
        } finally {
            if (into == null) {
                delete(folder);
            }
        }
    }

    private int run(Terminal terminal, JavaCompiler compiler, Path folder) throws Exception {
        for (String file : EXAMPLE) {
            copy(file, folder.resolve(file));
        }
        String contract = folder.resolve("contract/desk.wsdl").toString();
        String generated = folder.resolve("generated").toString();

        step(1, "What does the contract offer?", "protypos show " + contract);
        int status = command("show", contract);
        if (status == ExitStatus.DONE) {
            step(2, "Generate types, client and server", "protypos generate " + contract + " --into " + generated);
            status = command("generate", contract, "--into", generated);
        }
        if (status != ExitStatus.DONE) {
            return status;
        }
        step(3, "Compile them with the implementation written by hand", "javac -Xlint:all -Werror");
        Path classes = Files.createDirectories(folder.resolve("classes"));
        String problems = compile(compiler, folder, classes);
        if (!problems.isEmpty()) {
            terminal.problem("the example does not compile:\n" + problems, "");
            return ExitStatus.CONTRACT;
        }
        out.println("no warning");
        step(4, "Start the server and let the client call it", "java example.lanternbay.office.Visit");
        visit(classes);
        out.println();
        if (into == null) {
            out.println("next: protypos demo --into lantern-bay   keeps contract, code and classes to look at");
        } else {
            out.println("contract    " + folder.resolve("contract"));
            out.println("generated   " + folder.resolve("generated"));
            out.println("by hand     " + folder.resolve("src"));
            out.println("next: protypos show YOUR-CONTRACT");
        }
        return ExitStatus.DONE;
    }

    private void step(int number, String title, String shown) {
        out.println();
        out.println(Terminal.bold(number + ". " + title));
        out.println(Terminal.dim("   $ " + shown));
        out.println();
    }

    /** Runs another command as its user would, without its advice on what to type next: the demo goes on by itself. */
    private int command(String... arguments) {
        StringWriter text = new StringWriter();
        int status = Main.run(new PrintWriter(text), spec.commandLine().getErr(), arguments);
        text.toString()
                .strip()
                .lines()
                .filter(line -> !line.startsWith("next: "))
                .forEach(out::println);
        return status;
    }

    private static void copy(String name, Path target) throws IOException {
        Files.createDirectories(target.getParent());
        try (InputStream stream = DemoCommand.class.getResourceAsStream("/examples/harbour/" + name)) {
            Files.copy(stream, target, StandardCopyOption.REPLACE_EXISTING);
        }
    }

    private static String compile(JavaCompiler compiler, Path folder, Path classes) throws IOException {
        List<Path> sources = new ArrayList<>();
        for (String part : List.of("generated", "src")) {
            try (Stream<Path> files = Files.walk(folder.resolve(part))) {
                files.filter(file -> file.toString().endsWith(".java")).forEach(sources::add);
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
                    classes.toString());
            boolean compiled = compiler.getTask(
                            messages, manager, null, options, null, manager.getJavaFileObjectsFromPaths(sources))
                    .call();
            return compiled ? "" : messages.toString();
        }
    }

    private void visit(Path classes) throws Exception {
        out.flush();
        URL[] path = {classes.toUri().toURL()};
        try (URLClassLoader loader = new URLClassLoader(path, ClassLoader.getPlatformClassLoader())) {
            Class<?> visit = loader.loadClass("example.lanternbay.office.Visit");
            visit.getMethod("main", String[].class).invoke(null, (Object) new String[0]);
        } catch (InvocationTargetException e) {
            throw e.getCause() instanceof Exception failure ? failure : e;
        }
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }
}
