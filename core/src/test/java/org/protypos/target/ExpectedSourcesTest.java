package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.source.DocumentGatherer;

/**
 * Contracts in the styles document and rpc, literal and encoded, and the sources they must become, word for word. To accept a change after reading it, run the test
 * with {@code -Dexpected.write=true} and look at the difference.
 */
class ExpectedSourcesTest {
    private static final Path CONTRACT = Path.of("../examples/harbour/contract");
    private static final Path EXPECTED = Path.of("src/test/resources/expected");

    private static Map<String, String> generate(Target target, List<Path> documents, Product... products) {
        Contract contract = ContractReader.read(
                DocumentGatherer.gather(documents.stream().map(Path::toString).toList(), null));
        GeneratedCode code = Generator.of(contract)
                .target(target)
                .generate(new Order("", Path.of("nowhere"), null, EnumSet.of(Product.TYPES, products), true));
        return code.files().stream()
                .collect(Collectors.toMap(SourceFile::path, SourceFile::text, (a, b) -> a, TreeMap::new));
    }

    @ParameterizedTest
    @CsvSource({
        "java, harbour, ../examples/harbour/contract/desk.wsdl",
        "java, tide, ../examples/tide/tide.wsdl",
        "java, dues, src/test/resources/encoded/dues.wsdl",
        "csharp, harbour, ../examples/harbour/contract/desk.wsdl",
        "csharp, tide, ../examples/tide/tide.wsdl",
        "csharp, dues, src/test/resources/encoded/dues.wsdl"
    })
    void aContractBecomesTheseSources(String language, String name, Path contract) throws IOException {
        Map<String, String> files =
                generate(Targets.named(language), List.of(contract), Product.CLIENT, Product.SERVER);
        files.keySet().removeIf(path -> path.matches("(?i).*/(runtime/.*|PublishedContract[.]\\w+)"));
        Path folder = EXPECTED.resolve(language).resolve(name);
        if (Boolean.getBoolean("expected.write")) {
            for (Map.Entry<String, String> file : files.entrySet()) {
                Files.createDirectories(folder.resolve(file.getKey()).getParent());
                Files.writeString(folder.resolve(file.getKey()), file.getValue());
            }
        }
        Map<String, String> expected = new TreeMap<>();
        try (Stream<Path> walk = Files.walk(folder)) {
            for (Path file : walk.filter(Files::isRegularFile).toList()) {
                expected.put(folder.relativize(file).toString().replace('\\', '/'), Files.readString(file));
            }
        }
        assertThat(files.keySet()).isEqualTo(expected.keySet());
        files.forEach((path, text) -> assertThat(text).as(path).isEqualTo(expected.get(path)));
    }

    /** No line runs out of the page, and nothing is brought in that nobody needs. */
    @Test
    void sourcesKeepToTheirWidthAndBringInNothingForNothing() throws IOException {
        Pattern brought = Pattern.compile("(?m)^(?:using (\\w+) = .*|import (?:\\w+\\.)+(\\w+));$");
        try (Stream<Path> all = Files.walk(EXPECTED)) {
            for (Path source : all.filter(file -> file.toString().matches(".*\\.(java|cs)"))
                    .toList()) {
                String text = Files.readString(source);
                assertThat(text.lines().filter(line -> line.length() > 120 && !line.matches(".*\"[^\"]{60,}\".*")))
                        .as(source.toString())
                        .isEmpty();
                if (text.contains("using System.Collections.Generic;")) {
                    assertThat(text)
                            .as(source.toString())
                            .containsPattern("\\b(List|ISet|IList|IDictionary|Dictionary)<");
                }
                Matcher used = brought.matcher(text);
                while (used.find()) {
                    assertThat(text.substring(used.end()).lines().filter(line -> !line.startsWith("import ")))
                            .as(source + ": " + used.group())
                            .anyMatch(line -> line.matches(
                                    ".*\\b" + (used.group(1) + used.group(2)).replace("null", "") + "\\b.*"));
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"java", "csharp"})
    void theSourcesDoNotDependOnTheOrderOfDeclarations(String language, @TempDir Path folder) throws IOException {
        Target target = Targets.named(language);
        List<Path> documents = List.of(CONTRACT.resolve("vessels.xsd"), CONTRACT.resolve("desk.xsd"));
        Map<String, String> expected = generate(target, documents);
        for (long seed = 1; seed <= 5; seed++) {
            Random random = new Random(seed);
            List<Path> shuffled = new ArrayList<>();
            for (Path document : documents) {
                Path copy = folder.resolve(document.getFileName());
                Files.writeString(copy, shuffle(Files.readString(document), random));
                shuffled.add(copy);
            }
            assertThat(generate(target, shuffled)).isEqualTo(expected);
        }
    }

    /** Puts the global declarations of a schema in another order. */
    private static String shuffle(String schema, Random random) {
        List<String> blocks = new ArrayList<>(List.of(schema.split("\n(?=  <xs:(?:element|complexType|simpleType) )")));
        String head = blocks.remove(0);
        String tail = "</xs:schema>\n";
        blocks.replaceAll(block -> block.replace(tail, ""));
        Collections.shuffle(blocks, random);
        return head + "\n" + String.join("\n", blocks) + "\n" + tail;
    }
}
