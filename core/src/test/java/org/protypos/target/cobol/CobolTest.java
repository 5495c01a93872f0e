package org.protypos.target.cobol;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.binding.RuleReader;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Finding;
import org.protypos.generator.Generator;
import org.protypos.generator.PlannedContract;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Slot;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Targets;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Cobc;
import org.protypos.testing.RandomContract;

/** What a COBOL compiler that we did not write says of copybooks and of the places of their fields. */
class CobolTest {
    private static final List<String> STANDARDS = List.of("ibm", "cobol2014", "default");

    @TempDir
    private Path folder;

    @BeforeAll
    static void assumed() {
        Cobc.assumed();
    }

    static Stream<Path> contracts() throws IOException {
        Path examples = Path.of("../examples");
        List<Path> found = new ArrayList<>();
        try (Stream<Path> all = Files.walk(examples)) {
            all.filter(file -> file.toString().endsWith(".wsdl"))
                    .filter(file -> ContractReader.read(DocumentGatherer.gather(List.of(file.toString()), null))
                            .isSound())
                    .sorted()
                    .forEach(found::add);
        }
        assertThat(found).isNotEmpty();
        return found.stream();
    }

    private static PlannedContract planned(Path contract, Path... rules) {
        return Generator.of(ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null)))
                .target(Targets.named(CobolNames.LANGUAGE))
                .rules(List.of(rules))
                .plan();
    }

    private String run(String... command) throws IOException, InterruptedException {
        return Cobc.run(folder, command);
    }

    private void write(PlannedContract planned) throws IOException {
        for (SourceFile file : planned.code().emit(Set.of(Product.TYPES, Product.CLIENT), true, List::of)) {
            assertThat(file.text().lines()).as(file.path()).allMatch(line -> line.length() <= CobolFile.LAST_COLUMN);
            Files.writeString(folder.resolve(file.path()), file.text());
        }
    }

    private static String program(List<String> data, List<String> procedure) {
        CobolFile file = new CobolFile("probe.cbl", false);
        List.of("IDENTIFICATION DIVISION.", "PROGRAM-ID. PROBE.", "DATA DIVISION.", "WORKING-STORAGE SECTION.")
                .forEach(file::heading);
        data.forEach(file::heading);
        file.heading("PROCEDURE DIVISION.");
        procedure.forEach(line -> file.line(0, line));
        file.line(0, "STOP RUN.");
        return file.finish().text();
    }

    @ParameterizedTest
    @MethodSource("contracts")
    void copybooksCompileAndPlacesAreThoseOfTheCompiler(Path contract) throws Exception {
        PlannedContract planned = planned(contract);
        write(planned);
        compiles(copybooks());
        places(planned.code().records());
    }

    /** Source ends at column 72, whatever a contract's values and names are like and however deep they stand. */
    @Test
    void longValuesAndNamesStandInTheirColumns() throws Exception {
        StringBuilder values = new StringBuilder();
        for (int length = 30; length <= 62; length++) {
            values.append("<xs:enumeration value='")
                    .append("LASHED_TO_THE_QUAY_".repeat(4), 0, length - 2)
                    .append(length % 3 == 0 ? "&quot;\"" : "XY")
                    .append("'/>");
        }
        String inner = "<xs:element name='WayInWhichTheVesselOfTheCallerIsHeldAtTheQuay' maxOccurs='unbounded'>"
                + "<xs:simpleType><xs:restriction base='xs:string'>" + values + "</xs:restriction></xs:simpleType>"
                + "</xs:element>";
        for (int depth = 0; depth < 10; depth++) {
            inner = "<xs:element name='PartThatHoldsAllTheOthersOfNumber" + depth + "' maxOccurs='2'><xs:complexType>"
                    + "<xs:sequence>" + inner + "</xs:sequence></xs:complexType></xs:element>";
        }
        Path contract =
                Files.writeString(folder.resolve("quay.wsdl"), """
                <definitions xmlns="http://schemas.xmlsoap.org/wsdl/" xmlns:soap="http://schemas.xmlsoap.org/wsdl/soap/"
                    xmlns:t="urn:quay" targetNamespace="urn:quay"><types><xs:schema
                    xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:quay">%s</xs:schema></types>
                  <message name="in"><part name="p" element="t:PartThatHoldsAllTheOthersOfNumber9"/></message>
                  <portType name="Quay"><operation name="hold"><input message="t:in"/></operation></portType>
                  <binding name="Quay" type="t:Quay"><soap:binding transport="http://schemas.xmlsoap.org/soap/http"/>
                    <operation name="hold"><input><soap:body use="literal"/></input></operation></binding>
                </definitions>
                """.formatted(inner.replaceFirst(" maxOccurs='2'", "")));
        write(planned(contract));
        compiles(copybooks());
    }

    @Test
    void randomContractsHaveRecordsToo() throws Exception {
        for (long seed = 1; seed <= 2; seed++) {
            PlannedContract planned = planned(new RandomContract(seed, 25).layOut(folder));
            write(planned);
            compiles(copybooks());
            places(planned.code().records());
            for (String copybook : copybooks()) {
                Files.delete(folder.resolve(copybook));
            }
        }
    }

    private List<String> copybooks() throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.map(file -> file.getFileName().toString())
                    .filter(name -> name.endsWith(".cpy"))
                    .sorted()
                    .toList();
        }
    }

    private void compiles(List<String> copybooks) throws Exception {
        List<String> all =
                copybooks.stream().map(name -> "COPY \"" + name + "\".").toList();
        Files.writeString(folder.resolve("probe.cbl"), program(all, List.of()));
        for (String standard : STANDARDS) {
            assertThat(run("cobc", "-std=" + standard, "-Wall", "-fsyntax-only", "probe.cbl"))
                    .as(standard)
                    .isEmpty();
        }
    }

    /** Asks a compiled program where each field is and how long; entries are asked for by the first of each. */
    private void places(List<RecordLayout> records) throws Exception {
        List<String> data = new ArrayList<>(List.of(
                "01  PLACE               POINTER.",
                "01  PLACE-NUMBER REDEFINES PLACE BINARY-DOUBLE.",
                "01  BASE-NUMBER         BINARY-DOUBLE.",
                "01  OFFSET-NUMBER       PIC Z(8)9.",
                "01  LENGTH-NUMBER       PIC Z(8)9."));
        copybooks().forEach(copybook -> data.add("COPY \"" + copybook + "\"."));
        List<String> procedure = new ArrayList<>();
        StringBuilder expected = new StringBuilder();
        for (RecordLayout record : records) {
            if (record.varying() != null) {
                // All entries, for the length of a group is that of what is there.
                Slot entries = record.varying().slot();
                procedure.add("MOVE " + entries.times() + " TO");
                procedure.add(" " + entries.count().name() + " OF " + record.name() + ".");
            }
            procedure.add("SET PLACE TO ADDRESS OF " + record.name() + ".");
            procedure.add("MOVE PLACE-NUMBER TO BASE-NUMBER.");
            for (Slot child : record.root().children()) {
                ask(record, child, 0, child.offset(), procedure, expected);
            }
        }
        Files.writeString(folder.resolve("places.cbl"), program(data, procedure));
        assertThat(run("cobc", "-x", "-o", "places", "places.cbl")).isEmpty();
        assertThat(run("./places").replaceFirst("0$", "")).isEqualTo(expected.toString());
    }

    private static void ask(
            RecordLayout record, Slot slot, int repeated, int offset, List<String> procedure, StringBuilder expected) {
        int indices = repeated + (slot.count() == null ? 0 : 1);
        procedure.add("SET PLACE TO ADDRESS OF");
        procedure.add(" " + slot.name());
        procedure.add(" OF " + record.name());
        if (indices > 0) {
            procedure.add(" (" + " 1".repeat(indices).strip() + ")");
        }
        procedure.add(".");
        procedure.add("SUBTRACT BASE-NUMBER FROM PLACE-NUMBER");
        procedure.add(" GIVING OFFSET-NUMBER.");
        procedure.add("MOVE LENGTH OF " + slot.name());
        procedure.add(" OF " + record.name());
        if (indices > 0) {
            procedure.add(" (" + " 1".repeat(indices).strip() + ")");
        }
        procedure.add(" TO LENGTH-NUMBER.");
        procedure.add("DISPLAY OFFSET-NUMBER LENGTH-NUMBER");
        procedure.add(" \" " + slot.name() + "\".");
        expected.append(String.format(Locale.ROOT, "%9d%9d %s%n", offset, slot.length(), slot.name()));
        for (Slot child : slot.children()) {
            ask(record, child, indices, offset + child.offset(), procedure, expected);
        }
    }

    @Test
    void rulesSayHowMuchRoomThereIs() throws IOException {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {v: http://lanternbay.example/harbour/vessels, d: http://lanternbay.example/harbour/desk}
                rules:
                  - on: ~v:CallSign
                    cobol: {room: 7}
                  - on: ~v:Vessel/v:name
                    cobol: {name: SHIP-NAME, room: 40}
                  - on: ~v:Vessel/v:lengthInMetres
                    cobol: {digits: 5, decimals: 2, usage: zoned}
                  - on: ~v:Ferry/v:passengers
                    cobol: {digits: 4, usage: binary}
                """);
        PlannedContract planned = planned(Path.of("../examples/harbour/contract/desk.wsdl"), rules);
        assertThat(planned.findings().stream().filter(finding -> !finding.code().equals("record-bound")))
                .isEmpty();
        String copybook = planned.code().emit(Set.of(Product.TYPES), true, List::of).stream()
                .filter(file -> file.path().equals("RQSBRTHQ.cpy"))
                .findFirst()
                .orElseThrow()
                .text();
        assertThat(copybook.replaceAll(" +", " "))
                .contains(
                        "CALL-SIGN PIC X(7).",
                        "SHIP-NAME PIC X(40).",
                        "LENGTH-IN-METRES PIC S9(3)V9(2).",
                        "PASSENGERS PIC S9(4) BINARY.");
    }

    /** What calls, what answers and what carries compiles as it is, in columns and without. */
    @ParameterizedTest
    @ValueSource(strings = {"harbour/contract/desk.wsdl", "tide/tide.wsdl"})
    void programsCompile(String contract) throws Exception {
        PlannedContract planned = planned(Path.of("../examples", contract));
        for (boolean free : new boolean[] {false, true}) {
            Set<Product> products = EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
            if (free) {
                products.add(Product.FREE_FORM);
            }
            List<SourceFile> files = new ArrayList<>(planned.code().emit(products, true, List::of));
            planned.code().scaffold(products, true).forEach(begun -> {
                files.add(begun.file());
                assertThat(begun.methods()).isNotEmpty();
                begun.methods().forEach((name, text) -> {
                    assertThat(begun.file().text()).contains(text);
                    assertThat(begun.isDeclared(name, begun.file().text())).isTrue();
                    assertThat(begun.isDeclared(name, begun.file().text().replace(text, "")))
                            .as("where it is called alone")
                            .isFalse();
                });
            });
            for (SourceFile file : files) {
                Files.writeString(folder.resolve(file.path()), file.text());
            }
            for (SourceFile file : files) {
                for (String standard : file.path().endsWith(".cbl") ? STANDARDS : List.<String>of()) {
                    assertThat(run(
                                    "cobc",
                                    free ? "-free" : "-fixed",
                                    "-std=" + standard,
                                    "-Wall",
                                    "-fsyntax-only",
                                    file.path()))
                            .as(file.path() + " " + standard)
                            .isEmpty();
                }
            }
        }
    }

    @Test
    void recordsEndWithTheirEntriesAndDatesAreNumbers() throws Exception {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                prefixes: {d: http://lanternbay.example/harbour/desk}
                rules:
                  - on: "d:**"
                    cobol: {parts: true, varying: true}
                """);
        PlannedContract planned = planned(Path.of("../examples/harbour/contract/desk.wsdl"), rules);
        write(planned);
        compiles(copybooks());
        places(planned.code().records());
        String copybook = Files.readString(folder.resolve("RQSBRTHQ.cpy")).replaceAll("[ \n]+", " ");
        assertThat(copybook)
                .contains(
                        "Request of requestBerth, 357 to 467 bytes.",
                        "ARRIVAL-SECOND PIC 9(2)V9(6).",
                        "NEED PIC X(11) OCCURS 0 TO 10 TIMES DEPENDING ON NEED-COUNT.");
    }

    @Test
    void whatIsNotTheLastOfARecordCannotVary() throws IOException {
        Path schema = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema">
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="entry" type="xs:int" maxOccurs="3"/>
                    <xs:element name="keeper" type="xs:int" maxOccurs="2"/>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        Path rules = Files.writeString(folder.resolve("rules.yaml"), "rules: [{on: '**', cobol: {varying: true}}]");
        PlannedContract planned = planned(schema, rules);
        assertThat(planned.findings())
                .extracting(Finding::code, Finding::message)
                .containsExactly(
                        tuple("record-varying", "entry is not the last of its record, which ends with it nowhere"));
        RecordLayout log = planned.code().records().get(0);
        assertThat(List.of(log.leastLength(), log.length())).containsExactly(2 + 3 * 6 + 2, 2 + 3 * 6 + 2 + 2 * 6);
    }

    @Test
    void aRuleWithRoomForNothingIsTold() throws IOException {
        Path rules = Files.writeString(folder.resolve("rules.yaml"), """
                rules:
                  - on: "**"
                    cobol: {room: none, usage: roman}
                """);
        assertThat(RuleReader.read(List.of(rules), new CobolNames()).findings(false))
                .extracting(Finding::code)
                .containsOnly("rule-value")
                .hasSize(2);
        Files.writeString(rules, """
                rules:
                  - on: "**"
                    java: {room: 3}
                    cobol: {room: 4}
                """);
        assertThat(RuleReader.read(List.of(rules), new JavaNames()).findings(false))
                .extracting(Finding::message)
                .containsExactly("the rule says what records have room for, and java has no records");
    }
}
