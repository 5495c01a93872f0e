package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.binding.Suggestions;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Generated;
import org.protypos.testing.Plans;

/** A contract of several documents in which every name clashes with others, with the language or with generated code. */
class ClashTest {
    private static final List<String> NAMES =
            List.of(("berth-no berthNo berth_no BerthNo BERTHNO berth.no BerthNo2 class Class"
                            + " enum String Object List ArrayList Override XmlObject XmlInput Lexical BigDecimal QName Map int Int"
                            + " Integer null true __ CON con aux NUL package-info Documents PublishedContract PublishedContractType"
                            + " Vessel VesselType vessel VESSEL VesselElement Thread Record record var yield Attachment getClass wait"
                            + " notify notifyAll hashCode toString equals Value value Content Any OtherAttributes Item item"
                            + " Gr\u00f6\u00dfe GR\u00d6SSE Gr\u00f6sse Gr\u00f6\u017fse \u212ain Kin \ufb01n fin na\u00efve nai\u0308ve NA\u00cfVE \u00df SS ss \u0130 I i \u0131 \u65e5\u672c \u0645\u0631 \u00dcn a1b2 a1B2 java Java"
                            + " org this Harbour HarbourClient HarbourEndpoint HarbourMessages HarbourFault nil check kept notes in out"
                            + " other that text order came index message input output with result connection implementation"
                            + " implementationAsync types perform portType INSTANCE "
                            + "x".repeat(300) + " " + "y".repeat(250) + "a " + "y".repeat(250) + "b")
                    .split(" "));

    private static final String SCHEMA =
            "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" targetNamespace=\"%1$s\""
                    + " xmlns:t=\"%1$s\" elementFormDefault=\"qualified\">%2$s</xs:schema>";

    private static List<String> around(int from, int count) {
        List<String> names = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            names.add(NAMES.get((from * 7 + i) % NAMES.size()));
        }
        return names;
    }

    private static List<String> declarations() {
        List<String> declared = new ArrayList<>();
        for (int i = 0; i < NAMES.size(); i++) {
            String name = NAMES.get(i);
            StringBuilder members = new StringBuilder("<xs:sequence>");
            List<String> elements = around(i, 10);
            for (int j = 0; j < elements.size(); j++) {
                members.append(
                        "<xs:element name=\"" + elements.get(j) + "\" type=\"xs:" + (j % 3 == 0 ? "int" : "string")
                                + "\" minOccurs=\"" + j % 2 + "\"" + (j % 5 == 0 ? " nillable=\"true\"" : "")
                                + (j % 7 == 0 ? " maxOccurs=\"9\"" : "") + "/>");
            }
            members.append("</xs:sequence>");
            boolean derived = i % 4 == 3;
            for (String attribute : around(i + 1, derived ? 0 : 8)) {
                members.append("<xs:attribute name=\"" + attribute + "\" type=\"xs:string\"/>");
            }
            declared.add("<xs:complexType name=\"" + name + "\">"
                    + (derived
                            ? "<xs:complexContent><xs:extension base=\"t:" + NAMES.get(i - 1) + "\">" + members
                                    + "</xs:extension></xs:complexContent>"
                            : members)
                    + "</xs:complexType>");
            declared.add(
                    i % 2 == 0
                            ? "<xs:element name=\"" + name + "\" type=\"t:" + name + "\"/>"
                            : "<xs:element name=\"" + name + "\"><xs:complexType><xs:sequence><xs:element name=\""
                                    + name
                                    + "\"><xs:simpleType><xs:restriction base=\"xs:string\">"
                                    + around(i, 20).stream()
                                            .map(value -> "<xs:enumeration value=\"" + value + "\"/>")
                                            .collect(Collectors.joining())
                                    + "</xs:restriction></xs:simpleType></xs:element></xs:sequence></xs:complexType></xs:element>");
        }
        declared.add("<xs:simpleType name=\"Signs\"><xs:restriction base=\"xs:string\">"
                + Arrays.stream(
                                "|&#32;|+|-|*|&lt;|1|-1|1.0|1-0|a|A|\u00c4|a b|a-b|%|\u20ac|null|class|&quot;|'|\u65e5|\ud83d\ude00"
                                        .split("\\|"))
                        .map(value -> "<xs:enumeration value=\"" + value + "\"/>")
                        .collect(Collectors.joining())
                + "</xs:restriction></xs:simpleType>");
        return declared;
    }

    private static List<String> operations(String tag) {
        List<String> all = new ArrayList<>();
        for (String name : NAMES) {
            all.add(
                    tag.equals("portType")
                            ? "<operation name=\"" + name + "\"><input message=\"t:" + name + "\"/><output message=\"t:"
                                    + name + "\"/><fault name=\"f\" message=\"t:" + name + "Fault\"/></operation>"
                            : "<operation name=\"" + name + "\"><s:operation soapAction=\"urn:" + name
                                    + "\"/><input><s:body"
                                    + " use=\"literal\"/></input><output><s:body use=\"literal\"/></output><fault name=\"f\">"
                                    + "<s:fault name=\"f\" use=\"literal\"/></fault></operation>");
        }
        return all;
    }

    /** Writes the documents; a seed other than 0 shuffles what may be shuffled. */
    private static List<Path> contract(Path folder, long seed, List<String> more) throws IOException {
        Random random = new Random(seed);
        List<String> messages = new ArrayList<>();
        for (String name : NAMES) {
            messages.add("<message name=\"" + name + "\"><part name=\"p\" element=\"t:" + name + "\"/></message>"
                    + (name.equals("Harbour")
                            ? ""
                            : "<message name=\"" + name + "Fault\"><part name=\"f\" element=\"t:" + name
                                    + "\"/></message>"));
        }
        List<Path> documents = new ArrayList<>();
        int number = 0;
        for (String namespace : List.of("http://clash.example/harbour", "http://clash.example/harbour/\u65e5\u672c")) {
            List<String> declared = declarations();
            if (number == 0) {
                declared.addAll(more);
            }
            if (seed != 0) {
                Collections.shuffle(declared, random);
                Collections.shuffle(messages, random);
            }
            documents.add(Files.writeString(
                    Files.createDirectories(folder).resolve("s" + number++ + ".xsd"),
                    SCHEMA.formatted(namespace, String.join("\n", declared))));
        }
        String wsdl = "<definitions xmlns=\"http://schemas.xmlsoap.org/wsdl/\" xmlns:t=\"http://clash.example/harbour\""
                + " xmlns:s=\"http://schemas.xmlsoap.org/wsdl/soap/\" targetNamespace=\"http://clash.example/harbour\">"
                + "<types><xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\"><xs:import"
                + " namespace=\"http://clash.example/harbour\" schemaLocation=\"s0.xsd\"/></xs:schema></types>"
                + String.join("\n", messages)
                + "<message name=\"parts\">"
                + NAMES.stream()
                        .map(name -> "<part name=\"" + name + "\" type=\"t:Signs\"/>")
                        .collect(Collectors.joining())
                + "</message><portType name=\"calls\"><operation name=\"all\"><input message=\"t:parts\"/>"
                + "<output message=\"t:parts\"/></operation></portType>"
                + "<binding name=\"R\" type=\"t:calls\"><s:binding style=\"rpc\""
                + " transport=\"http://schemas.xmlsoap.org/soap/http\"/><operation name=\"all\"><s:operation/><input>"
                + "<s:body use=\"literal\"/></input><output><s:body use=\"literal\"/></output></operation></binding>"
                + "<portType name=\"Harbour\">" + String.join("", operations("portType")) + "</portType>"
                + "<binding name=\"B\" type=\"t:Harbour\"><s:binding transport=\"http://schemas.xmlsoap.org/soap/http\"/>"
                + String.join("", operations("binding")) + "</binding><service name=\"harbour\"><port name=\"a-b\""
                + " binding=\"t:B\"/><port name=\"A_B\" binding=\"t:B\"/><port name=\"calls\" binding=\"t:R\"/></service></definitions>";
        documents.add(0, Files.writeString(folder.resolve("c.wsdl"), wsdl));
        if (seed != 0) {
            Collections.shuffle(documents, random);
        }
        return documents;
    }

    /** The sources but for those that hold the documents or a list of everything. */
    private static Map<String, String> sources(Generated generated) {
        return generated.files().stream()
                .filter(file -> !file.path().contains("/runtime/"))
                .filter(file -> !file.text().contains("ContractDocuments.of(")
                        && !file.text().contains("extends XmlTypes"))
                .collect(Collectors.toMap(SourceFile::path, SourceFile::text, (a, b) -> a, TreeMap::new));
    }

    @Test
    void everythingCompilesOnAnyFileSystemWithAndWithoutRules(@TempDir Path folder) throws IOException {
        List<Path> documents = contract(folder.resolve("in"), 0, List.of());
        try (Generated plain = Generated.from(documents, folder.resolve("plain"), (String) null)) {
            assertThat(plain.plan().clashes()).hasSizeGreaterThan(1000);
            List<String> paths = plain.files().stream().map(SourceFile::path).toList();
            assertThat(paths.stream().map(ClashTest::folded)).doesNotHaveDuplicates();
            assertThat(paths).noneMatch(path -> path.matches("(?i)(.*/)?(con|prn|aux|nul|com[0-9]|lpt[0-9])\\.java"));
            Path file = Files.writeString(
                    folder.resolve("names.yaml"), Suggestions.file(plain.plan().clashes(), List.of()));
            Rules rules = RuleReader.read(List.of(file), new JavaNames());
            try (Generated settled = Generated.from(documents, folder.resolve("settled"), rules)) {
                assertThat(settled.plan().clashes()).isEmpty();
                assertThat(settled.plan().findings()).isEqualTo(plain.plan().findings());
                assertThat(rules.findings(true)).isEmpty();
                assertThat(sources(settled)).isEqualTo(sources(plain));
            }
        }
        Generated.from(documents, folder.resolve("together"), "bay").close();
    }

    @Test
    void namesStayWhateverTheOrderAndWhateverJoins(@TempDir Path folder) throws IOException {
        Map<String, String> names = names(contract(folder.resolve("in"), 0, List.of()));
        for (long seed = 1; seed <= 4; seed++) {
            assertThat(names(contract(folder.resolve("shuffled" + seed), seed, List.of())))
                    .isEqualTo(names);
        }
        List<String> more = List.of(
                "<xs:complexType name=\"Zebra\"><xs:sequence/></xs:complexType>",
                "<xs:complexType name=\"Ada\"><xs:sequence><xs:element name=\"a\"><xs:complexType/></xs:element></xs:sequence></xs:complexType>",
                "<xs:element name=\"vessel-type-2\"><xs:complexType/></xs:element>",
                "<xs:complexType name=\"int-type\"><xs:sequence/></xs:complexType>");
        Map<String, String> joined = names(contract(folder.resolve("joined"), 5, more));
        names.forEach((designator, name) -> {
            boolean concerned = name.toLowerCase(Locale.ROOT).matches("vesseltype.*|inttype.*");
            if (!concerned) {
                assertThat(joined).as(designator).containsEntry(designator, name);
            }
        });
    }

    /** Components with names that are new, or nearly those of others, change no name outside the clashes that they join. */
    @ParameterizedTest
    @ValueSource(longs = {31, 32, 33, 34, 35, 36})
    void randomComponentsChangeNoNameOutsideTheirClash(long seed, @TempDir Path folder) throws IOException {
        Map<String, String> names = names(contract(folder.resolve("in"), 0, List.of()));
        Random chance = new Random(seed);
        List<String> more = new ArrayList<>();
        Set<String> wanted = new TreeSet<>();
        for (int i = 0; i < 30; i++) {
            String name = chance.nextInt(3) == 0
                    ? "new" + chance.nextInt(1000)
                    : NAMES.get(chance.nextInt(NAMES.size()))
                            + List.of("", "-type", "Type", "-2", "2", "-element", "Item", "Fault", "_")
                                    .get(chance.nextInt(9));
            String key = folded(new JavaNames().typeName(name));
            if (!NAMES.contains(name) && wanted.add(key)) {
                more.add(
                        chance.nextBoolean()
                                ? "<xs:complexType name=\"" + name + "\"><xs:sequence/></xs:complexType>"
                                : "<xs:element name=\"" + name + "\"><xs:complexType/></xs:element>");
            }
        }
        Map<String, String> joined = names(contract(folder.resolve("joined"), seed, more));
        names.forEach((designator, name) -> {
            String key = stem(name);
            if (wanted.stream().map(ClashTest::stem).noneMatch(one -> one.startsWith(key) || key.startsWith(one))) {
                assertThat(joined).as(designator + " beside " + wanted).containsEntry(designator, name);
            }
        });
    }

    /** What names have in common that one clash may have given. */
    private static String stem(String name) {
        return folded(name).replaceFirst("_?[0-9]+$", "");
    }

    /** What file names have in common that may be one on some disk. */
    private static String folded(String name) {
        return Normalizer.normalize(name, Normalizer.Form.NFD)
                .replace("\u0131", "(dotless)")
                .toUpperCase(Locale.ROOT)
                .toLowerCase(Locale.ROOT);
    }

    /** What each component that clashed is called, and each class. */
    private static Map<String, String> names(List<Path> documents) throws IOException {
        Contract contract = ContractReader.read(
                DocumentGatherer.gather(documents.stream().map(Path::toString).toList(), null));
        assertThat(contract.isSound()).as("%s", contract.findings()).isTrue();
        Map<String, String> names = new TreeMap<>();
        Plans.of(contract)
                .names()
                .byScope()
                .values()
                .forEach(scope -> scope.forEach((designator, name) -> {
                    // What stands beside the components is called after them.
                    if (!designator.startsWith("+")) {
                        names.merge(designator, name, (one, other) -> one.compareTo(other) < 0 ? one : other);
                    }
                }));
        return names;
    }
}
