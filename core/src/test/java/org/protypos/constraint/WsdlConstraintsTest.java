package org.protypos.constraint;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Sections;

/** WSDL documents that say what WSDL does not know, or twice, or what does not go together. */
class WsdlConstraintsTest {
    static Stream<Sections> cases() {
        return Sections.in("wsdl-constraints");
    }

    @ParameterizedTest
    @MethodSource("cases")
    void everyOneIsToldWithItsPlaceAndCure(Sections test, @TempDir Path folder) throws IOException {
        Path entry = test.layOut(folder);
        Contract contract = ContractReader.read(DocumentGatherer.gather(List.of(entry.toString()), null));
        assertThat(contract.isSound()).isTrue();
        String found = ContractConstraints.of(contract).stream()
                .map(finding -> finding.code() + " " + finding.place().line() + ":"
                        + finding.place().column() + " " + finding.message() + "\n    " + finding.cure())
                .collect(Collectors.joining("\n", "", "\n"));
        assertThat(found).isEqualTo(test.get("findings"));
    }
}
