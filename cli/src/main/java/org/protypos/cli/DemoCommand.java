package org.protypos.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.argument.LanguageArguments;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.cli.terminal.Terminal;
import org.protypos.target.Toolchain;
import org.protypos.target.ToolchainFolder;
import picocli.CommandLine.Model.CommandSpec;

/** Runs the harbour example from contract to call. */
final class DemoCommand implements Command {
    private static final List<String> CONTRACT =
            List.of("contract/desk.wsdl", "contract/desk.xsd", "contract/vessels.xsd");

    private CommandSpec spec;
    private LanguageArguments language = new LanguageArguments();
    private Path into;
    private PrintWriter out;

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command("demo", "Runs an example from contract to call over HTTP, step by step.");
        spec = syntax.spec();
        language.describe(syntax);
        syntax.option(Path.class, "--into", "DIR", "Keeps everything in this new folder.")
                .into(value -> into = value);
    }

    @Override
    public Integer call() throws IOException {
        out = spec.commandLine().getOut();
        Terminal terminal = new Terminal(out, spec.commandLine().getErr());
        Toolchain toolchain = language.targetOrStandard().toolchain();
        if (toolchain.example().isEmpty()) {
            terminal.problem(
                    "there is no example in " + language.targetOrStandard().title() + " that runs by itself",
                    "protypos show and generate take --language for it");
            return ExitStatus.USAGE;
        }
        if (terminal.isLacking(toolchain)) {
            return ExitStatus.OUTSIDE;
        }
        if (into != null && Files.exists(into)) {
            terminal.problem(into + " is already there", "name a new folder with --into");
            return ExitStatus.USAGE;
        }
        Path folder = into != null ? into : Files.createTempDirectory("protypos-demo");
        try {
            return run(terminal, toolchain, folder);
        } finally {
            if (into == null) {
                ToolchainFolder.delete(folder);
            }
        }
    }

    private int run(Terminal terminal, Toolchain toolchain, Path folder) throws IOException {
        for (String file : CONTRACT) {
            copy(file, folder.resolve(file));
        }
        for (String file : toolchain.example()) {
            Path path = Path.of(file);
            copy(file, folder.resolve("src").resolve(path.subpath(1, path.getNameCount())));
        }
        String contract = folder.resolve("contract/desk.wsdl").toString();
        String generated = folder.resolve("generated").toString();

        List<String> show = List.of("show", contract);
        step(1, "What does the contract offer?", "protypos " + String.join(" ", show) + language.again());
        int status = command(show);
        if (status == ExitStatus.DONE) {
            List<String> generate = List.of("generate", contract, "--into", generated);
            step(2, "Generate types, client and server", "protypos " + String.join(" ", generate) + language.again());
            status = command(generate);
        }
        if (status != ExitStatus.DONE) {
            return status;
        }
        step(3, "Compile them with the implementation written by hand", toolchain.compiles());
        Path compiled = Files.createDirectories(folder.resolve("compiled"));
        String problems = toolchain.compile(List.of(Path.of(generated), folder.resolve("src")), compiled);
        if (!problems.isEmpty()) {
            terminal.problem("the example does not compile:\n" + problems, "");
            return ExitStatus.CONTRACT;
        }
        out.println("no warning");
        step(4, "Start the server and let the client call it", toolchain.starts());
        out.flush();
        toolchain.start(compiled, out::println);
        out.println();
        if (into == null) {
            out.println("next: protypos demo" + language.again()
                    + " --into lantern-bay   keeps contract, code and classes to look at");
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
    private int command(List<String> arguments) {
        List<String> all = new ArrayList<>(arguments);
        all.addAll(language.arguments());
        StringWriter text = new StringWriter();
        int status = Main.run(new PrintWriter(text), spec.commandLine().getErr(), all.toArray(String[]::new));
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
}
