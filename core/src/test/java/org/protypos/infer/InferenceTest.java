package org.protypos.infer;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.authoring.SchemaText;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.testing.ExpectedText;
import org.protypos.testing.Infoset;
import org.protypos.testing.Sections;

/** Documents and what is inferred from them, side by side; the platform's validator accepts every document. */
class InferenceTest {
    static Stream<Path> cases() throws IOException {
        return Files.list(Path.of("src/test/resources/infer/cases")).sorted();
    }

    @ParameterizedTest
    @MethodSource("cases")
    void schemasAreAsExpected(Path file, @TempDir Path folder) throws Exception {
        Sections sections = Sections.of(file);
        Map<String, String> documents = new LinkedHashMap<>();
        sections.all().forEach((name, text) -> {
            if (name.endsWith(".xml")) {
                documents.put(name, text);
            }
        });
        Findings findings = new Findings();
        Inferred inferred = inferred(documents, sections.get("decisions.yaml"), findings);
        StringBuilder result = new StringBuilder();
        Map<String, String> texts = SchemaText.of(inferred.schemas());
        texts.forEach((name, text) -> result.append("==== expect ")
                .append(name)
                .append('\n')
                .append(text)
                .append('\n'));
        result.append("==== remarks\n");
        inferred.remarks().forEach(remark -> result.append(remark.isThin() ? "? " : "  ")
                .append(remark.at())
                .append(": ")
                .append(remark.decided())
                .append(" (")
                .append(remark.evidence())
                .append(")\n"));
        findings.sorted().forEach(finding -> result.append(finding.severity())
                .append(' ')
                .append(finding.code())
                .append(": ")
                .append(finding.message())
                .append("; ")
                .append(finding.cure())
                .append('\n'));
        ExpectedText.check(file, result.toString(), "==== expect", "==== remarks");
        if (!texts.isEmpty() && sections.get("judged").isEmpty()) {
            Infoset.Validator validator = validator(texts, folder);
            for (Map.Entry<String, String> document : documents.entrySet()) {
                assertThat(validator.complaint(document.getValue()))
                        .as(document.getKey())
                        .isNull();
            }
        }
    }

    static Inferred inferred(Map<String, String> documents, String decisions, Findings findings) {
        Inference inference = new Inference(
                decisions.isBlank()
                        ? Decisions.none(findings)
                        : Decisions.read(new SourceText("decisions.yaml", decisions), findings),
                findings);
        documents.forEach(
                (name, text) -> inference.read(name, new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8))));
        return inference.inferred();
    }

    static Infoset.Validator validator(Map<String, String> texts, Path folder) throws Exception {
        for (Map.Entry<String, String> text : texts.entrySet()) {
            Files.writeString(folder.resolve(text.getKey()), text.getValue());
        }
        return Infoset.validator(texts.keySet().stream().map(folder::resolve).toArray(Path[]::new));
    }
}
