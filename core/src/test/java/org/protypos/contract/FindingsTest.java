package org.protypos.contract;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.diagnostic.Finding;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Sections;

/** Contracts with mistakes, and all the findings they must give at once. */
class FindingsTest {
    static Stream<Sections> cases() {
        return Sections.in("findings");
    }

    @ParameterizedTest
    @MethodSource("cases")
    void everyFindingIsToldWithItsPlaceAndCure(Sections test, @TempDir Path folder) throws IOException {
        Path entry = test.layOut(folder);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(entry.toString()), null));
        String found = contract.findings().stream()
                .map(finding -> describe(finding, folder))
                .collect(Collectors.joining("\n", "", "\n"));
        assertThat(found).isEqualTo(test.get("findings"));
    }

    private static String describe(Finding finding, Path folder) {
        String document = finding.place() == null
                ? "-"
                : Path.of(finding.place().document()).getFileName() + ":"
                        + finding.place().line() + ":" + finding.place().column();
        return (finding.severity().name().toLowerCase(Locale.ROOT) + " " + finding.code() + " " + document + " "
                        + finding.message() + "\n    " + finding.cure())
                .replaceAll("[^ ]*" + folder.getFileName() + "/", "")
                .stripTrailing();
    }
}
