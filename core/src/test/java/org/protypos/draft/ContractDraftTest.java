package org.protypos.draft;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.ExpectedText;
import org.protypos.testing.Infoset;
import org.protypos.testing.Sections;

/** Sketches and the contracts that are drafted from them, side by side; the platform's validator takes the schemas. */
class ContractDraftTest {
    static Stream<Path> cases() throws IOException {
        return Files.list(Path.of("src/test/resources/draft/cases")).sorted();
    }

    @ParameterizedTest
    @MethodSource("cases")
    void contractsAreAsExpected(Path file, @TempDir Path folder) throws Exception {
        Findings findings = new Findings();
        Sketch sketch = SketchReader.read(
                new SourceText("sketch.yaml", Sections.of(file).get("sketch.yaml")), findings);
        Map<String, String> texts = ContractDraft.of(sketch, true, findings);
        StringBuilder result = new StringBuilder();
        texts.forEach((name, text) -> result.append("==== expect ")
                .append(name)
                .append('\n')
                .append(text)
                .append('\n'));
        result.append("==== findings\n");
        findings.sorted().forEach(finding -> result.append(finding.place() == null ? "" : finding.place() + ": ")
                .append(finding.message())
                .append("; ")
                .append(finding.cure())
                .append('\n'));
        ExpectedText.check(file, result.toString(), "==== expect", "==== findings");
        if (texts.isEmpty()) {
            return;
        }
        for (Map.Entry<String, String> text : texts.entrySet()) {
            Files.writeString(folder.resolve(text.getKey()), text.getValue());
        }
        Infoset.validator(texts.keySet().stream()
                .filter(name -> name.endsWith(".xsd"))
                .map(folder::resolve)
                .toArray(Path[]::new));
        Contract contract = ContractReader.read(DocumentGatherer.gather(
                List.of(folder.resolve(texts.keySet().iterator().next()).toString()), null));
        assertThat(contract.findings()).isEmpty();
    }
}
