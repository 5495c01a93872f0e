package org.protypos.target.layout;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.change.Comparison;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.generator.PlannedContract;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;

/** A language that is nothing like those with classes goes the whole way, and nothing outside its package knows of it. */
class LayoutTest {
    private static final Path DESK = Path.of("../examples/harbour/contract/desk.wsdl");
    private static final Path EXPECTED = Path.of("src/test/resources/expected/layout");

    private static Generator generator(String contract) {
        return Generator.of(ContractReader.read(DocumentGatherer.gather(List.of(contract), null)))
                .target(new LayoutTarget());
    }

    private static Order order(Path into) {
        return new Order("", into, null, EnumSet.of(Product.TYPES), true);
    }

    @Test
    void messagesBecomeRecords(@TempDir Path folder) throws IOException {
        GeneratedCode code = generator(DESK.toString())
                .generate(order(folder.resolve("records")))
                .written(false, false);
        Map<String, String> files = code.files().stream()
                .collect(Collectors.toMap(SourceFile::path, SourceFile::text, (a, b) -> a, TreeMap::new));
        if (Boolean.getBoolean("expected.write")) {
            Files.createDirectories(EXPECTED);
            for (Map.Entry<String, String> one : files.entrySet()) {
                Files.writeString(EXPECTED.resolve(one.getKey()), one.getValue());
            }
        }
        Map<String, String> expected = new TreeMap<>();
        try (Stream<Path> all = Files.list(EXPECTED)) {
            for (Path file : all.toList()) {
                expected.put(file.getFileName().toString(), Files.readString(file));
            }
        }
        assertThat(files).isEqualTo(expected);
        assertThat(folder.resolve("records/PAY-DUES-IN.layout")).exists();
        assertThat(code.findings()).extracting(Finding::code).contains("layout-bounded", "layout-document");
    }

    /** Rules have a block for the language, and names that were given stay. */
    @Test
    void rulesAndNamesThatWereGivenHold(@TempDir Path folder) throws IOException {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {d: "http://lanternbay.example/harbour/desk"}
                rules:
                  - {on: "portType d:HarbourDesk/payDues", java: {name: settle}, layout: {name: SETTLE}}
                """);
        GeneratedCode code =
                generator(DESK.toString()).rules(List.of(rules)).generate(order(folder.resolve("records")));
        assertThat(code.isRefused()).as("%s", code.findings()).isFalse();
        assertThat(code.files())
                .extracting(SourceFile::path)
                .contains("SETTLE-IN.layout")
                .doesNotContain("PAY-DUES-IN.layout");
        assertThat(code.planned().code().names().language()).isEqualTo("layout");
        assertThat(code.planned().code().names().byScope().get("")).containsValue("SETTLE");
        Order server = new Order("", folder, null, EnumSet.of(Product.TYPES, Product.SERVER), true);
        assertThat(generator(DESK.toString()).generate(server).findings())
                .extracting(Finding::code)
                .contains("language-lacks");
    }

    /** What changes for those who use the records is told in their words. */
    @Test
    void changesAreToldOfRecords(@TempDir Path folder) throws IOException {
        for (String name : List.of("desk.wsdl", "desk.xsd", "vessels.xsd")) {
            Path from = DESK.resolveSibling(name);
            if (Files.exists(from)) {
                Files.writeString(
                        folder.resolve(name), Files.readString(from).replace("name=\"holder\"", "name=\"bearer\""));
            }
        }
        PlannedContract before = generator(DESK.toString()).plan();
        PlannedContract after =
                generator(folder.resolve("desk.wsdl").toString()).plan();
        Comparison.Result result =
                Comparison.of(before.contract(), after.contract(), before.surface(), after.surface());
        assertThat(result.toString()).contains("record");
    }
}
