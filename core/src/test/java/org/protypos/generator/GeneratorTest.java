package org.protypos.generator;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Selection;
import org.protypos.diagnostic.Finding;
import org.protypos.project.AdoptedContract;
import org.protypos.project.Adoption;
import org.protypos.project.EditorSchema;
import org.protypos.project.Project;
import org.protypos.source.DocumentGatherer;

/** The core as a library: what goes in, what comes out, and that a project is generated whole or not at all. */
class GeneratorTest {
    private static final String DESK = "../examples/harbour/contract/desk.wsdl";

    @TempDir
    private Path folder;

    private static List<String> told(List<Finding> findings) {
        return findings.stream()
                .map(finding -> finding.code() + " " + finding.message() + " | " + finding.cure())
                .toList();
    }

    @Test
    void aContractWithRulesBecomesFiles() throws IOException {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk"}
                rules:
                  - {on: "~d:Berth", name: Mooring}
                """);
        Order order = Order.into(folder.resolve("out"));
        GeneratedCode code = Generator.of(List.of(DESK))
                .rules(List.of(rules))
                .packageName("bay.desk")
                .selection(new Selection(List.of(), List.of(), List.of("listBerths")))
                .generate(order);
        assertThat(code.report()).isNull();
        assertThat(folder.resolve("out")).doesNotExist();
        GeneratedCode written = code.written(false, false);
        assertThat(written.isRefused()).isFalse();
        assertThat(written.report().added()).contains("bay/desk/Mooring.java", "bay/desk/HarbourDeskClient.java");
        assertThat(written.report().added()).doesNotContain("bay/desk/PayDues.java");
        assertThat(code.written(true, false).report().isUnchanged()).isTrue();
    }

    @Test
    void whatIsAtFaultIsToldAndNothingIsWritten() throws IOException {
        Order order = Order.into(folder.resolve("out"));
        GeneratedCode broken = Generator.of(List.of("../examples/mistakes/pilots.wsdl"))
                .generate(order)
                .written(false, false);
        assertThat(broken.isRefused()).isTrue();
        assertThat(broken.findings()).isNotEmpty();
        GeneratedCode misspelt = Generator.of(List.of(DESK))
                .selection(new Selection(List.of("Ofice"), List.of(), List.of("listBerth")))
                .generate(order)
                .written(false, false);
        assertThat(told(misspelt.findings()))
                .containsExactlyInAnyOrder(
                        "nothing-selected the contract has no service Ofice | it has HarbourOffice",
                        "nothing-selected the contract has no operation listBerth | did you mean listBerths?");
        assertThat(folder.resolve("out")).doesNotExist();
    }

    @Test
    void aProjectIsGeneratedWholeOrNotAtAll() throws IOException {
        adopt("desk", DESK);
        adopt("tide", "../examples/tide/tide.wsdl");
        Path settings = folder.resolve("protypos.yaml");
        assertThat(settings).content().startsWith("# yaml-language-server: $schema=.protypos/project.schema.json\n");
        assertThat(EditorSchema.RULES.lineOf(folder.resolve("own/rules.yaml")))
                .isEqualTo("# yaml-language-server: $schema=../.protypos/rules.schema.json\n");
        assertThat(EditorSchema.ANSWERS.lineOf(Path.of("answers.yaml"))).isEmpty();
        Files.writeString(settings, Files.readString(settings) + "    operations: [readTyde]\n");
        ProjectGenerator.Result refused =
                ProjectGenerator.of(AdoptedContract.all(folder, List.of())).run(ProjectGenerator.Mode.WRITE, false);
        assertThat(refused.isRefused()).isTrue();
        assertThat(refused.codes().stream()
                        .flatMap(code -> code.findings().stream())
                        .map(finding -> finding.place().line() + " " + finding.message()))
                .singleElement()
                .asString()
                .contains(" the contract has no operation readTyde");
        assertThat(folder.resolve("generated")).doesNotExist();
        Files.writeString(settings, Files.readString(settings).replace("    operations: [readTyde]\n", ""));
        List<AdoptedContract> adopted = AdoptedContract.all(folder, List.of());
        assertThat(ProjectGenerator.of(adopted)
                        .run(ProjectGenerator.Mode.CHECK, false)
                        .drift())
                .hasSizeGreaterThan(100)
                .extracting(drift -> drift.kind().toString())
                .contains("missing");
        assertThat(ProjectGenerator.of(adopted)
                        .run(ProjectGenerator.Mode.WRITE, false)
                        .isRefused())
                .isFalse();
        assertThat(ProjectGenerator.of(AdoptedContract.all(folder, List.of()))
                        .run(ProjectGenerator.Mode.CHECK, false)
                        .drift())
                .isEmpty();
    }

    private void adopt(String name, String document) throws IOException {
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(document), null));
        Adoption.adopt(
                Project.read(folder),
                name,
                List.of(document),
                null,
                contract.documents(),
                "generated/" + name,
                List.of());
    }
}
