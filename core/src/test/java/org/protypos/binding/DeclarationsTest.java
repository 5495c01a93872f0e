package org.protypos.binding;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.binding.declared.DeclarationReader;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.classes.Plan;
import org.protypos.target.classes.PlannedClass;
import org.protypos.target.classes.Property;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Generated;
import org.protypos.testing.Plans;

/** The binding declarations of the standards, read as rules. */
class DeclarationsTest {
    private static final Path DESK = Path.of("../examples/harbour/contract/desk.wsdl");
    private static final Path FOLDER = Path.of("src/test/resources/declared");

    private static Contract read(Path contract) {
        return ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
    }

    private static List<String> told(List<Finding> findings) {
        return findings.stream()
                .map(finding -> finding.place().line() + " " + finding.severity() + " " + finding.code() + " "
                        + finding.message())
                .toList();
    }

    private static String text(Generated generated, String name) {
        return generated.files().stream()
                .filter(file -> file.path().endsWith("/" + name + ".java"))
                .findFirst()
                .orElseThrow()
                .text();
    }

    @Test
    void filesOfDeclarationsAreReadAsRules(@TempDir Path folder) throws IOException {
        List<Path> files = List.of(FOLDER.resolve("types.xml"), FOLDER.resolve("services.xml"));
        assertThat(files).allMatch(DeclarationReader::isXml);
        DeclarationReader.Declarations declarations = DeclarationReader.read(files, read(DESK));
        assertThat(String.join("\n", told(declarations.findings()))).isEqualTo("""
                15 NOTE binding-meaningless <provider> has no meaning for the code that is generated
                4 NOTE binding-meaningless collectionType of <globalBindings> has no meaning for the code that is generated
                7 NOTE binding-meaningless <serializable> has no meaning for the code that is generated
                12 NOTE binding-meaningless <modelGroupName> has no meaning for the code that is generated
                25 NOTE binding-meaningless <dom> has no meaning for the code that is generated
                26 ERROR binding-node "//x:element[@name='nothing']" finds nothing in desk.xsd
                27 ERROR binding-node "//x:element[" is no XPath expression
                28 WARNING binding-foreign <trick> is no declaration of Jakarta XML Binding or Jakarta XML Web Services
                31 ERROR binding-location the contract has no document at lost.xsd""");
        Rules rules = RuleReader.read(List.of(), declarations.rules(), new JavaNames());
        try (Generated generated = Generated.from(List.of(DESK), folder, rules)) {
            assertThat(told(rules.findings(true))).isEmpty();
            assertThat(text(generated, "Desk"))
                    .contains("package bay.office;")
                    .contains("requestBerth(Vessel vessel, XmlDateTime arrival, XmlDuration stay, List<Wish> need)\n")
                    .contains("            throws QuayFullException;\n")
                    .contains("payDues(PayDues payDues, Permit pass)")
                    .contains("void leave(int berth)");
            assertThat(text(generated, "DeskClient").lines().filter(line -> line.contains("Async(")))
                    .hasSize(1);
            assertThat(text(generated, "Mooring"))
                    .contains("* <p>Where a ship lies.")
                    .contains("getPier()")
                    .contains("public Double getDepthInMetres()");
            assertThat(text(generated, "Wish"))
                    .contains("CURRENT(\"shore-power\")")
                    .contains("GUIDE(\"pilot\")");
            assertThat(text(generated, "MoneyData")).contains("class MoneyData");
            assertThat(text(generated, "Permit")).contains("LocalDate getValidUntil()");
            assertThat(text(generated, "PayDuesResponse")).contains("int getReceiptNumber()");
            assertThat(text(generated, "Vessel")).contains("getSign()");
            assertThat(text(generated, "Office")).contains("class Office");
        }
    }

    @Test
    void declarationsAreWrittenOutInOurOwnForm(@TempDir Path folder) throws IOException {
        Contract contract = read(DESK);
        DeclarationReader.Declarations declarations =
                DeclarationReader.read(List.of(FOLDER.resolve("types.xml"), FOLDER.resolve("services.xml")), contract);
        Path file = Files.writeString(
                folder.resolve("rules.yaml"), Suggestions.file(List.of(), DeclaredRule.joined(declarations.rules())));
        Rules declared = RuleReader.read(List.of(), declarations.rules(), new JavaNames());
        Rules written = RuleReader.read(List.of(file), new JavaNames());
        Plan before = Plans.of(contract, declared);
        Plan after = Plans.of(contract, written);
        assertThat(told(written.findings(true))).isEmpty();
        assertThat(described(after)).isEqualTo(described(before)).contains("bay.office.Mooring Pier");
        assertThat(DeclaredRule.joined(declarations.rules())).allMatch(rule -> written.say(rule, new JavaNames()));
    }

    private static List<String> described(Plan plan) {
        List<String> lines = new ArrayList<>();
        for (PlannedClass type : plan.classes()) {
            for (Property property : type.properties()) {
                lines.add(type.packageName() + "." + type.name() + " " + property.name());
            }
        }
        return lines;
    }

    /** What a contract says itself is a wish: where it cannot be granted the contract still generates. */
    @Test
    void declarationsInsideAContractAreFollowedAsFarAsTheyGo(@TempDir Path folder) throws IOException {
        Path schema = FOLDER.resolve("inside.xsd");
        DeclarationReader.Declarations declarations = DeclarationReader.read(List.of(), read(schema));
        Rules rules = RuleReader.read(List.of(), declarations.rules(), new JavaNames());
        try (Generated generated = Generated.from(List.of(schema), folder, rules)) {
            assertThat(text(generated, "Hoist"))
                    .contains("package bay.inside;")
                    .contains("* It lifts.")
                    .contains("getBurden()");
            assertThat(told(generated.plan().findings()))
                    .containsExactly(
                            "11 WARNING rule-clash the name Hoist for {urn:inside}hoist is already taken in bay.inside");
        }
        assertThat(told(rules.findings(true))).containsExactly("8 WARNING rule-name \"1st\" cannot be a name in java");
        assertThat(told(declarations.findings())).isEmpty();
    }
}
