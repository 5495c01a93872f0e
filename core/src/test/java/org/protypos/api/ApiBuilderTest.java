package org.protypos.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.binding.RuleReader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Targets;
import org.protypos.testing.ApiText;

/** What contracts become before any language has its say, as text. */
class ApiBuilderTest {
    private static final Path EXPECTED = Path.of("src/test/resources/expected/api");

    @ParameterizedTest
    @CsvSource({
        "harbour, ../examples/harbour/contract/desk.wsdl",
        "tide, ../examples/tide/tide.wsdl",
        "dues, src/test/resources/encoded/dues.wsdl",
        "tables, ../examples/tables/tables.wsdl",
        "builtins, src/test/resources/messages/builtins.txt",
        "derivation, src/test/resources/messages/derivation.txt",
        "extended, src/test/resources/messages/extended.txt",
        "facets, src/test/resources/messages/facets.txt",
        "groups, src/test/resources/messages/groups.txt",
        "mixed, src/test/resources/messages/mixed.txt",
        "names, src/test/resources/messages/names.txt",
        "names-in-text, src/test/resources/messages/names-in-text.txt",
        "recursive, src/test/resources/messages/recursive.txt",
        "redefined, src/test/resources/messages/redefined.txt",
        "replaced, src/test/resources/messages/replaced.txt",
        "structure, src/test/resources/messages/structure.txt"
    })
    void aContractBecomesThisApi(String name, Path source, @TempDir Path folder) throws IOException {
        Path contract = source.toString().endsWith(".txt") ? unpacked(source, folder) : source;
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
        assertThat(read.isSound()).as("%s", read.findings()).isTrue();
        Api api = ApiBuilder.build(
                read, RuleReader.read(List.of(), Targets.standard().rules()));
        String text = ApiText.of(api);
        Path expected = EXPECTED.resolve(name + ".txt");
        if (Boolean.getBoolean("expected.write")) {
            Files.createDirectories(EXPECTED);
            Files.writeString(expected, text);
        }
        assertThat(text).isEqualTo(Files.readString(expected));
    }

    /** Writes the documents of a case into a folder and gives the first one. */
    private static Path unpacked(Path source, Path folder) throws IOException {
        Path first = null;
        for (String part : Files.readString(source).split("(?m)^==== ")) {
            int end = part.indexOf('\n');
            String name = end < 0 ? "" : part.substring(0, end).strip();
            if (name.matches("[A-Za-z0-9-]+\\.(xsd|wsdl)")) {
                Path file = Files.writeString(folder.resolve(name), part.substring(end + 1));
                first = first == null ? file : first;
            }
        }
        return first;
    }
}
