package org.protypos.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;
import org.protypos.draft.ContractDraft;
import org.protypos.draft.SketchReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.ExpectedText;
import org.protypos.testing.Sections;

/** Each requirement of the profiles finds what breaks it, at its place; what is drafted breaks none. */
class ProfileCheckTest {
    private static Contract read(Path file) throws IOException {
        return ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
    }

    @Test
    void everyRequirementFindsWhatBreaksIt(@TempDir Path folder) throws IOException {
        Path file = Path.of("src/test/resources/profile/broken.txt");
        Contract contract = read(Sections.of(file).layOut(folder));
        StringBuilder result = new StringBuilder("==== told\n");
        for (Finding finding : ProfileCheck.of(contract, Profile.ATTACHMENTS_1_0)) {
            String document = finding.place().document();
            result.append(document.substring(document.lastIndexOf('/') + 1))
                    .append(':')
                    .append(finding.place().line())
                    .append(' ')
                    .append(finding.severity())
                    .append(' ')
                    .append(finding.message())
                    .append('\n');
        }
        ExpectedText.check(file, result.toString(), "==== told");
        assertThat(Stream.of(Requirement.values())
                        .filter(requirement -> !result.toString().contains(" " + requirement + ": ")))
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"sections", "rpc", "../../../../../../examples/fog/fog-signal.yaml"})
    void whatIsDraftedBreaksNone(String sketch, @TempDir Path folder) throws IOException {
        Path file = Path.of("src/test/resources/draft/cases", sketch.endsWith(".yaml") ? sketch : sketch + ".txt");
        String text = sketch.endsWith(".yaml")
                ? Files.readString(file)
                : Sections.of(file).get("sketch.yaml");
        Findings findings = new Findings();
        Map<String, String> texts =
                ContractDraft.of(SketchReader.read(new SourceText(sketch, text), findings), true, findings);
        for (Map.Entry<String, String> document : texts.entrySet()) {
            Files.writeString(folder.resolve(document.getKey()), document.getValue());
        }
        Contract contract = read(folder.resolve(texts.keySet().iterator().next()));
        boolean soap12 = texts.values().iterator().next().contains("<soap12:");
        boolean soap11 = texts.values().iterator().next().contains("<soap:");
        for (Profile profile : Profile.values()) {
            if (profile == Profile.BASIC_2_0 ? soap12 : soap11) {
                assertThat(ProfileCheck.of(contract, profile))
                        .as(profile.title())
                        .filteredOn(finding -> !finding.message().startsWith("R2711"))
                        .isEmpty();
            }
        }
    }
}
