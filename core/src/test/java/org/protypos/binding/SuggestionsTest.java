package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Severity;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Target;
import org.protypos.target.Targets;

/** What is suggested is taken: names as they were given, and bounds that nobody has set. */
class SuggestionsTest {
    static List<Path> contracts() throws IOException {
        try (Stream<Path> tests = Files.walk(Path.of("src/test/resources"));
                Stream<Path> examples = Files.walk(Path.of("../examples"))) {
            return Stream.concat(tests, examples)
                    .filter(file -> file.toString().endsWith(".wsdl"))
                    .sorted()
                    .toList();
        }
    }

    @ParameterizedTest
    @MethodSource("contracts")
    void suggestionsAreTaken(Path file, @TempDir Path folder) throws IOException {
        List<String> documents = List.of(file.toString());
        if (!ContractReader.read(DocumentGatherer.gather(documents, null)).isSound()) {
            return;
        }
        for (Target target : Targets.all()) {
            PlannedContract plain = Generator.of(documents).target(target).plan();
            List<String> errors = errors(plain);
            Path rules = folder.resolve(target.name() + ".yaml");
            Files.writeString(
                    rules, Suggestions.file(plain.code().choices(), plain.code().proposed()));
            PlannedContract again =
                    Generator.of(documents).target(target).rules(List.of(rules)).plan();
            assertThat(errors(again)).as(target.name()).isEqualTo(errors);
            assertThat(again.code().choices()).as(target.name()).isEmpty();
            assertThat(again.code().proposed()).as(target.name()).isEmpty();
        }
    }

    private static List<String> errors(PlannedContract planned) {
        return planned.findings().stream()
                .filter(finding -> finding.severity() != Severity.NOTE)
                .map(Finding::message)
                .toList();
    }
}
