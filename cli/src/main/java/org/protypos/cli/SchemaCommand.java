package org.protypos.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import org.protypos.cli.terminal.Columns;
import org.protypos.cli.terminal.ExitStatus;
import org.protypos.diagnostic.NearestName;
import org.protypos.project.EditorSchema;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Prints the JSON Schema of a file that people write, or of what a command prints with {@code --json}. */
@Command(
        name = "schema",
        description =
                "Prints the JSON Schema of a file that you write (project, rules, answers, decisions, sketch), or of what a command"
                        + " prints with --json.")
final class SchemaCommand implements Callable<Integer> {
    private static final List<String> OUTPUTS = List.of(
            "show", "check", "generate", "sample", "proof", "compare", "call", "adopt", "refresh", "infer", "draft");

    @Spec
    private CommandSpec spec;

    @Parameters(
            arity = "0..1",
            paramLabel = "NAME",
            description =
                    "project, rules, answers, decisions or sketch, or the name of a command; lists all if not given.")
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
