package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.binding.declared.DeclarationReader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Severity;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedService;
import org.protypos.target.java.JavaSurface;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Plans;

/**
 * Every binding declaration of the two specifications, inside a contract and where it may stand: whether it does something, is told to mean
 * nothing, or cannot be granted. None of them keeps a contract from being generated. Written anew with {@code -Dexpected.write=true}.
 */
class DeclarationTableTest {
    private static final Path FOLDER = Path.of("src/test/resources/declared");

    @Test
    void everyDeclarationIsFollowedOrTold(@TempDir Path folder) throws IOException {
        Path table = FOLDER.resolve("table.txt");
        List<String> lines = new ArrayList<>();
        String given = Files.readString(table);
        for (String line : given.lines().toList()) {
            String[] cells = line.split(" \\| ", 3);
            lines.add(cells[0] + " | " + cells[1] + " | " + outcome(cells[0], cells[1], folder));
        }
        String found = String.join("\n", lines) + "\n";
        if (Boolean.getBoolean("expected.write")) {
            Files.writeString(table, found);
        }
        assertThat(found).isEqualTo(Files.readString(table));
        assertThat(found).doesNotContain("| stops");
    }

    private static String outcome(String at, String declaration, Path folder) throws IOException {
        boolean services = Files.readString(FOLDER.resolve("table.wsdl")).contains("@" + at + "@");
        String name = services ? "table.wsdl" : "table.xsd";
        String inside =
                services ? declaration : "<xs:annotation><xs:appinfo>" + declaration + "</xs:appinfo></xs:annotation>";
        Contract plain = read(name, "", "", folder);
        Contract declared = read(name, at, inside, folder);
        assertThat(declared.isSound()).as("%s", declared.findings()).isTrue();
        DeclarationReader.Declarations declarations = DeclarationReader.read(List.of(), declared);
        Rules rules = RuleReader.read(List.of(), declarations.rules(), new JavaNames());
        Plan plan = Plans.of(rules.correct(declared), rules);
        List<Finding> findings = new ArrayList<>(declarations.findings());
        findings.addAll(Plans.findings(rules.correct(declared), rules));
        findings.addAll(rules.findings(true));
        boolean stops = findings.stream().anyMatch(finding -> finding.severity() == Severity.ERROR);
        Plan before = Plans.of(plain);
        boolean works = !seen(declared, plan).equals(seen(plain, before));
        String told = findings.stream()
                .map(finding -> finding.severity().name().toLowerCase(Locale.ROOT) + " " + finding.message())
                .distinct()
                .collect(Collectors.joining("; "));
        return (stops ? "stops" : works ? "works" : told.isEmpty() ? "silent" : "told")
                + (told.isEmpty() ? "" : ": " + told);
    }

    private static Contract read(String name, String at, String inside, Path folder) throws IOException {
        String text = Files.readString(FOLDER.resolve(name))
                .replace("@" + at + "@", inside)
                .replaceAll("@[a-zA-Z]+@", "");
        Path file = Files.writeString(folder.resolve(name), text);
        return ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null));
    }

    /** What source sees, with its documentation. */
    private static String seen(Contract contract, Plan plan) {
        StringBuilder text = new StringBuilder(JavaSurface.of(plan).symbols().keySet() + " ");
        plan.classes().forEach(type -> {
            text.append(type.name()).append(type.documentation()).append(type.interfaces());
            type.properties().forEach(member -> text.append(member.name())
                    .append(member.access())
                    .append(member.cardinality())
                    .append(member.documentation())
                    .append(member.type().written().getClass()));
        });
        plan.enums()
                .forEach(type ->
                        text.append(type.name()).append(type.documentation()).append(type.constants()));
        plan.interfaces().forEach(type -> {
            text.append(type.name()).append(type.documentation());
            type.operations().forEach(operation -> text.append(operation.method())
                    .append(operation.asyncMethod())
                    .append(operation.parameters())
                    .append(operation.documentation()));
        });
        plan.services().forEach(service -> text.append(service.name())
                .append(service.documentation())
                .append(service.ports().stream()
                        .map(PlannedService.Port::constant)
                        .toList()));
        return text.toString();
    }
}
