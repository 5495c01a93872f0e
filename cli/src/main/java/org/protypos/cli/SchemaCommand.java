package org.protypos.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.protypos.cli.syntax.Command;
import org.protypos.cli.syntax.CommandSyntax;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.diagnostic.NearestName;
import org.protypos.project.EditorSchema;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;

/** Prints the JSON Schema of a file that people write, or of what a command prints with {@code --json}. */
final class SchemaCommand implements Command {
    private static final List<String> OUTPUTS = List.of(
            "show", "check", "generate", "sample", "proof", "compare", "call", "adopt", "refresh", "infer", "draft");

    private CommandSpec spec;
    private String name;

    /** What there is a schema of. */
    static List<String> names() {
        List<String> names = new ArrayList<>(
                Arrays.stream(EditorSchema.values()).map(EditorSchema::title).toList());
        names.addAll(OUTPUTS);
        return names;
    }

    /** The schema of that name. */
    static String text(String name) throws IOException {
        for (EditorSchema schema : EditorSchema.values()) {
            if (schema.title().equals(name)) {
                return schema.text();
            }
        }
        try (InputStream in = SchemaCommand.class.getResourceAsStream("schema/" + name + ".schema.json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Override
    public void describe(CommandSyntax syntax) {
        syntax.command(
                "schema",
                "Prints the JSON Schema of a file that you write (project, rules, answers, decisions, sketch), or of what a command"
                        + " prints with --json.");
        spec = syntax.spec();
        syntax.parameter(
                        String.class,
                        "NAME",
                        "project, rules, answers, decisions or sketch, or the name of a command; lists all if not given.")
                .optional()
                .into(value -> name = value);
    }

    @Override
    public Integer call() throws IOException {
        if (name == null) {
            Columns columns = new Columns(2);
            for (EditorSchema schema : EditorSchema.values()) {
                columns.row(
                        schema.title(),
                        switch (schema) {
                            case PROJECT -> "protypos.yaml";
                            case SKETCH -> "a file for draft";
                            default -> "a file for --" + schema.title();
                        });
            }
            OUTPUTS.forEach(command -> columns.row(command, "what " + command + " --json prints"));
            columns.print(spec.commandLine().getOut());
            return ExitStatus.DONE;
        }
        if (!names().contains(name)) {
            throw new ParameterException(
                    spec.commandLine(),
                    "there is no schema " + name
                            + NearestName.of(name, names())
                                    .map(near -> "; did you mean " + near + "?")
                                    .orElse("; there is " + String.join(", ", names())));
        }
        spec.commandLine().getOut().print(text(name));
        return ExitStatus.DONE;
    }
}
