package org.protypos.dist;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.protypos.cli.Main;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.codegen.docgen.manpage.ManPageGenerator;

/** Writes what goes into the distribution beside the program: the text of the man pages, completion scripts, schemas. */
public final class Papers {
    private Papers() {}

    /** Writes into the folder that is named. */
    public static void main(String[] arguments) throws IOException {
        Path folder = Path.of(arguments[0]);
        manual(folder.resolve("man"));
        for (String shell : List.of("bash", "zsh")) {
            write(folder.resolve("completion/protypos." + shell), said("completion", shell));
        }
        for (String line : said("schema").lines().toList()) {
            String name = line.strip().split(" ")[0];
            write(folder.resolve("schema/" + name + ".schema.json"), said("schema", name));
        }
    }

    private static void manual(Path folder) throws IOException {
        List<CommandSpec> specs = new ArrayList<>();
        CommandLine line = Main.commands();
        specs.add(line.getCommandSpec());
        line.getSubcommands().values().forEach(command -> specs.add(command.getCommandSpec()));
        int status = ManPageGenerator.generateManPage(
                folder.toFile(), null, new boolean[0], false, specs.toArray(CommandSpec[]::new));
        if (status != 0) {
            throw new IOException("the manual could not be written");
        }
    }

    private static String said(String... arguments) throws IOException {
        StringWriter out = new StringWriter();
        StringWriter err = new StringWriter();
        if (Main.run(new PrintWriter(out), new PrintWriter(err), arguments) != 0) {
            throw new IOException(err.toString());
        }
        return out.toString();
    }

    private static void write(Path file, String text) throws IOException {
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
    }
}
