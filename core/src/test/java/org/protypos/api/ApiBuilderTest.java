package org.protypos.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.protypos.binding.RuleReader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
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

    /** By SOAP the action tells them apart, where there is no envelope the location. */
    @Test
    void operationsThatNobodyCanTellApartAreTold(@TempDir Path folder) throws IOException {
        assertThat(alike(folder, "nothing"))
                .containsExactly(
                        "the operations level and level take the same message, and no SOAP action tells them"
                                + " apart: a server takes the first",
                        "the operation level is at the location of another: a server takes the first");
        assertThat(alike(folder, "urn:level")).hasSize(1).allMatch(told -> told.contains("location"));
        assertThat(alike(folder, "urn:level|location=\"level")).isEmpty();
    }

    /** What is told of a gauge that has its operation twice, with what is changed in the second. */
    private static List<String> alike(Path folder, String changed) throws IOException {
        String twice = Pattern.compile("(?s)<operation .*?</operation>")
                .matcher(Files.readString(Path.of("src/test/resources/carried/carried.wsdl")))
                .replaceAll(once -> once.group()
                        + once.group()
                                .replace("<input", "<input name=\"asked\"")
                                .replace("<output", "<output name=\"told\"")
                                .replaceAll("(" + changed + ")\"", "$1-again\""));
        Path contract = Files.writeString(folder.resolve("gauge.wsdl"), twice);
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
        return ApiBuilder.build(
                        read, RuleReader.read(List.of(), Targets.standard().rules()))
                .findings()
                .stream()
                .map(Finding::message)
                .toList();
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
