package org.protypos.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.cli.drafting.SketchBeginning;
import org.protypos.cli.terminal.ExitStatus;

/** The schemas take what the program takes and prints, and little else; what is misspelt is answered with what is near. */
class SchemaTest {
    private static final String DESK = "../examples/harbour/contract/desk.wsdl";

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int run(String... arguments) {
        return Main.run(new PrintWriter(out), new PrintWriter(err), arguments);
    }

    @Test
    void theExamplesAreAsTheirSchemasSay() throws IOException {
        assertThat(Schemas.yaml("answers", Files.readString(Path.of("../examples/harbour/answers.yaml"))))
                .isEmpty();
        for (String rules : List.of("names", "corrections")) {
            assertThat(Schemas.yaml("rules", Files.readString(Path.of("../examples/customs/" + rules + ".yaml"))))
                    .isEmpty();
        }
        assertThat(Schemas.yaml("sketch", Files.readString(Path.of("../examples/fog/fog-signal.yaml"))))
                .isEmpty();
        assertThat(Schemas.yaml("sketch", SketchBeginning.text())).isEmpty();
        assertThat(Schemas.yaml("decisions", "decisions:\n  - at: berth/number\n    type: token\n    occurs: 0..*\n"))
                .isEmpty();
        assertThat(Schemas.yaml(
                        "project", "contracts:\n  desk:\n    produce: [types, client]\n    package: bay.desk\n"))
                .isEmpty();
        assertThat(Schemas.yaml("project", "contracts:\n  desk:\n    produce: [typos]\n    pakage: bay.desk\n"))
                .hasSize(3);
    }

    @ParameterizedTest
    @CsvSource({
        "show",
        "check",
        "compare ../examples/harbour/next/desk.wsdl",
        "generate --preview",
        "generate --jar target/desk.jar --war target/office.war --with ../examples/harbour/src",
        "sample --all --into target/samples --overwrite",
        "show --corrections"
    })
    void whatIsPrintedIsAsItsSchemaSays(String command) throws IOException {
        String[] words = (command.replaceFirst(" |$", " " + DESK + " ") + " --json").split(" +");
        assertThat(run(words)).as(err.toString()).isZero();
        assertThat(Schemas.complaints(words[0], out.toString())).isEmpty();
        assertThat(Schemas.complaints(words[0], out.toString().replaceFirst("\\{", "{\"more\": 1,")))
                .isNotEmpty();
    }

    @Test
    void whatDraftPrintsIsAsItsSchemaSays() throws IOException {
        assertThat(run("draft", "../examples/fog/fog-signal.yaml", "--into", "target/drafted", "--overwrite", "--json"))
                .as(err.toString())
                .isZero();
        assertThat(Schemas.complaints("draft", out.toString())).isEmpty();
        out.getBuffer().setLength(0);
        assertThat(run("draft", "--from", DESK, "--json")).isZero();
        assertThat(Schemas.complaints("draft", out.toString())).isEmpty();
    }

    @Test
    void whatInferPrintsIsAsItsSchemaSays() throws IOException {
        assertThat(run("infer", "../examples/harbour/messages", "--into", "target/inferred", "--overwrite", "--json"))
                .as(err.toString())
                .isZero();
        assertThat(Schemas.complaints("infer", out.toString())).isEmpty();
        assertThat(Schemas.yaml("decisions", Files.readString(Path.of("target/inferred/decisions.yaml"))))
                .isEmpty();
    }

    @Test
    void whatInferPrintsOfSchemasThatAreThereIsAsItsSchemaSays() throws IOException {
        String[] onto = {
            "infer",
            "../examples/harbour/messages",
            "--onto",
            "../examples/harbour/contract/desk.xsd",
            "--into",
            "target/loosened",
            "--overwrite",
            "--json"
        };
        assertThat(run(onto)).as(err.toString()).isZero();
        assertThat(Schemas.complaints("infer", out.toString())).isEmpty();
        assertThat(out.toString()).contains("\"fact\"");
    }

    @Test
    void everySchemaIsListedAndPrinted() {
        assertThat(run("schema")).isZero();
        for (String name : SchemaCommand.names()) {
            assertThat(out.toString()).contains("  " + name + " ");
            assertThat(run("schema", name)).isZero();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "generat x               | there is no command generat; did you mean generate?",
                "help shwo               | there is no command shwo; did you mean show?",
                "generate --pakage=p x   | generate has no option --pakage; did you mean --package?",
                "generate --over x       | generate has no option --over; did you mean --overwrite?",
                "schema rule             | there is no schema rule; did you mean rules?",
                "demo a b c              | demo has no use for",
                "frobnicate              | there is no command frobnicate"
            })
    void whatIsMisspeltIsAnsweredWithWhatIsNear(String command, String answer) {
        assertThat(run(command.split(" "))).isEqualTo(ExitStatus.USAGE);
        assertThat(err.toString()).contains("error: " + answer);
    }

    @Test
    void versionAndHelpAreToldInBothWays() {
        assertThat(run("--version")).isZero();
        assertThat(out.toString()).startsWith("protypos 0.").contains("\nJava " + Runtime.version());
        assertThat(run("help", "generate")).isZero();
        assertThat(out.toString()).contains("--into=DIR");
    }
}
