package org.protypos.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.io.IOException;
import java.lang.reflect.Method;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.protypos.binding.ProposedRule;
import org.protypos.binding.RuleReader;
import org.protypos.binding.Rules;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.contract.Publication;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.sample.Samples;
import org.protypos.output.OutputFolder;
import org.protypos.source.DocumentGatherer;
import org.protypos.target.Product;
import org.protypos.target.classes.Plan;
import org.protypos.target.java.JavaSurface;
import org.protypos.target.java.text.JavaNames;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.Plans;

/** Changes to the harbour's contract: what is told of them, and that what is said to break is all that does. */
class ComparisonTest {
    private static final Path DESK = Path.of("../examples/harbour/contract");
    private static final List<String> REQUESTS =
            List.of("requestBerth", "listBerths", "findVessel", "payDues", "castOff", "pass");
    private static final String LIST_BERTHS = "<wsdl:output message=\"d:listBerthsOutput\"/>";

    /**
     * A change.
     *
     * @param breaks for whom it breaks something: C and S for clients and servers on the wire, c and s for their code
     */
    private record Edit(String name, String document, String from, String to, int differences, String breaks) {
        @Override
        public String toString() {
            return name;
        }
    }

    static Stream<Edit> edits() {
        String xsd = "desk.xsd";
        String wsdl = "desk.wsdl";
        String quay = "<xs:element name=\"quay\" type=\"xs:string\"/>";
        return Stream.of(
                new Edit(
                        "optional in an answer",
                        xsd,
                        quay,
                        quay + "<xs:element name=\"lit\" type=\"xs:boolean\" minOccurs=\"0\"/>",
                        1,
                        "C"),
                new Edit(
                        "required in an answer",
                        xsd,
                        quay,
                        quay + "<xs:element name=\"lit\" type=\"xs:boolean\"/>",
                        1,
                        "CS"),
                new Edit(
                        "optional parameter",
                        xsd,
                        "<xs:element name=\"need\"",
                        "<xs:element name=\"note\" type=\"xs:string\" minOccurs=\"0\"/><xs:element name=\"need\"",
                        1,
                        "Scs"),
                new Edit("gone from an answer", xsd, quay, "", 1, "CScs"),
                new Edit("absent in an answer", xsd, quay, quay.replace("/>", " minOccurs=\"0\"/>"), 1, "C"),
                new Edit(
                        "demanded in a request",
                        xsd,
                        "type=\"xs:decimal\" minOccurs=\"0\"",
                        "type=\"xs:decimal\"",
                        1,
                        "C"),
                new Edit(
                        "value added",
                        xsd,
                        "<xs:enumeration value=\"pilot\"/>",
                        "<xs:enumeration value=\"pilot\"/><xs:enumeration value=\"crane\"/>",
                        1,
                        "Scs"),
                new Edit("value gone", xsd, "<xs:enumeration value=\"pilot\"/>", "", 1, "Ccs"),
                new Edit(
                        "narrower number in an answer",
                        xsd,
                        "name=\"receiptNumber\" type=\"xs:long\"",
                        "name=\"receiptNumber\" type=\"xs:int\"",
                        1,
                        "Scs"),
                new Edit(
                        "other type",
                        xsd,
                        "name=\"depthInMetres\" type=\"xs:decimal\"",
                        "name=\"depthInMetres\" type=\"xs:string\"",
                        1,
                        "Ccs"),
                new Edit(
                        "fewer times",
                        xsd,
                        "type=\"Need\" minOccurs=\"0\" maxOccurs=\"unbounded\"",
                        "type=\"Need\" minOccurs=\"0\" maxOccurs=\"2\"",
                        1,
                        "C"),
                new Edit(
                        "other order",
                        xsd,
                        "<xs:element name=\"number\" type=\"xs:int\"/>\n      " + quay,
                        quay + "<xs:element name=\"number\" type=\"xs:int\"/>",
                        1,
                        "CS"),
                new Edit(
                        "attribute added to an answer and a request",
                        xsd,
                        "<xs:attribute name=\"currency\"",
                        "<xs:attribute name=\"paidIn\" type=\"xs:token\"/><xs:attribute name=\"currency\"",
                        1,
                        "CS"),
                new Edit("default changed", xsd, "default=\"LBC\"", "default=\"EUR\"", 1, "CS"),
                new Edit("documentation", xsd, "A place at a quay.", "A place to lie.", 1, ""),
                new Edit(
                        "operation gone",
                        wsdl,
                        "<wsdl:operation name=\"castOff\">(?s:.*?)</wsdl:operation>",
                        "",
                        1,
                        "Ccs"),
                new Edit(
                        "operation added",
                        wsdl,
                        "<wsdl:operation name=\"castOff\">\n      <wsdl:doc",
                        "<wsdl:operation name=\"moor\"><wsdl:input message=\"d:castOffInput\"/></wsdl:operation><wsdl:operation name=\"castOff\">\n      <wsdl:doc",
                        1,
                        ""),
                new Edit(
                        "fault added",
                        wsdl,
                        LIST_BERTHS,
                        LIST_BERTHS + "<wsdl:fault name=\"f\" message=\"d:NoBerthFree\"/>",
                        1,
                        "c"),
                new Edit(
                        "SOAP action",
                        wsdl,
                        "soapAction=\"http://lanternbay.example/harbour/desk/castOff\"",
                        "soapAction=\"urn:off\"",
                        2,
                        "CS"),
                new Edit(
                        "address",
                        wsdl,
                        "location=\"http://office.lanternbay.example/desk\"",
                        "location=\"http://pier.lanternbay.example/desk\"",
                        1,
                        "C"),
                new Edit(
                        "a header block of one binding",
                        wsdl,
                        "        <soap12:header message=\"d:HarbourPass\" part=\"pass\" use=\"literal\"/>\n",
                        "",
                        1,
                        "S"),
                new Edit("a sequence in a sequence", xsd, quay, "<xs:sequence>" + quay + "</xs:sequence>", 0, ""),
                new Edit("a choice of one", xsd, quay, "<xs:choice>" + quay + "</xs:choice>", 0, ""),
                new Edit(
                        "a form that is the default",
                        xsd,
                        quay,
                        "<xs:element name=\"quay\" form=\"qualified\" type=\"xs:string\"/>",
                        0,
                        ""),
                new Edit("a group that is written out", xsd, quay, "<xs:group ref=\"Place\"/>", 0, ""),
                new Edit("nothing but prefixes", wsdl, "\\bd:", "dd:", 0, ""));
    }

    private static Contract read(Path contract) {
        Contract read = ContractReader.read(DocumentGatherer.gather(List.of(contract.toString()), null));
        assertThat(read.isSound()).as("%s", read.findings()).isTrue();
        return read;
    }

    private static Plan plan(Contract contract) {
        return Plans.of(contract);
    }

    private static Comparison.Result compare(Contract before, Contract after) {
        return Comparison.of(before, after, JavaSurface.of(plan(before)), JavaSurface.of(plan(after)));
    }

    private static Path edited(Path folder, Edit edit) throws IOException {
        for (String name : List.of("desk.wsdl", "desk.xsd", "vessels.xsd")) {
            String text = Files.readString(DESK.resolve(name));
            if (name.equals(edit.document())) {
                String changed = edit.to().equals("dd:")
                        ? text.replaceAll(edit.from(), "dd:").replace("xmlns:d=", "xmlns:dd=")
                        : edit.from().contains("(?s:")
                                ? text.replaceAll(edit.from(), edit.to())
                                : text.replace(edit.from(), edit.to());
                assertThat(changed).isNotEqualTo(text);
                text = changed.contains("ref=\"Place\"")
                        ? changed.replace(
                                "</xs:schema>",
                                "<xs:group name=\"Place\"><xs:sequence><xs:element name=\"quay\" type=\"xs:string\"/>"
                                        + "</xs:sequence></xs:group></xs:schema>")
                        : changed;
            }
            Files.writeString(Files.createDirectories(folder).resolve(name), text);
        }
        return folder.resolve("desk.wsdl");
    }

    @ParameterizedTest
    @MethodSource("edits")
    void whatIsSaidToBreakIsAllThatDoes(Edit edit, @TempDir Path folder) throws Exception {
        Contract before = read(DESK.resolve("desk.wsdl"));
        Path changed = edited(folder.resolve("in"), edit);
        Contract after = read(changed);
        Comparison.Result result = compare(before, after);
        assertThat(result.differences()).hasSize(edit.differences());
        Set<Reader> breaks = EnumSet.noneOf(Reader.class);
        result.differences().forEach(difference -> breaks.addAll(difference.breaks()));
        assertThat(letters(breaks)).isEqualTo(edit.breaks());
        Set<Reader> seen = onTheWire(before, after, changed.resolveSibling("desk.xsd"));
        code(after, folder, seen);
        assertThat(breaks).as("what was seen to break: %s", seen).containsAll(seen);
    }

    private static String letters(Set<Reader> readers) {
        return readers.stream()
                .map(reader -> switch (reader) {
                    case OLD_CLIENTS -> "C";
                    case OLD_SERVERS -> "S";
                    case CLIENT_CODE -> "c";
                    case SERVER_CODE -> "s";
                })
                .collect(Collectors.joining());
    }

    /** Who fails when messages of the one contract meet the other, as the platform's validator judges. */
    private static Set<Reader> onTheWire(Contract before, Contract after, Path newSchema) throws IOException {
        Infoset.Validator old = Infoset.validator(DESK.resolve("desk.xsd"));
        Infoset.Validator now = Infoset.validator(newSchema);
        Set<Reader> seen = EnumSet.noneOf(Reader.class);
        for (boolean full : new boolean[] {true, false}) {
            for (Map.Entry<QName, String> message : messages(before, full).entrySet()) {
                if (now.complaint(message.getValue()) != null) {
                    boolean request = REQUESTS.contains(message.getKey().getLocalPart());
                    seen.add(request ? Reader.OLD_CLIENTS : Reader.OLD_SERVERS);
                }
            }
            for (Map.Entry<QName, String> message : messages(after, full).entrySet()) {
                if (old.complaint(message.getValue()) != null) {
                    boolean request = REQUESTS.contains(message.getKey().getLocalPart());
                    seen.add(request ? Reader.OLD_SERVERS : Reader.OLD_CLIENTS);
                }
            }
        }
        return seen;
    }

    private static Map<QName, String> messages(Contract contract, boolean full) {
        Samples samples = new Samples(contract, new Vocabulary(contract.schema()), full);
        Map<QName, String> messages = new LinkedHashMap<>();
        samples.elements().stream()
                .filter(name -> name.getNamespaceURI().endsWith("/desk"))
                .forEach(name -> messages.put(name, samples.element(name)));
        return messages;
    }

    /** Compiles code that was written against the old API together with the new one. */
    private static void code(Contract after, Path folder, Set<Reader> seen) throws IOException {
        Set<Product> all = EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
        Map<Reader, Path> codes = new HashMap<>();
        codes.put(Reader.CLIENT_CODE, Path.of("src/test/resources/change/Agent.java"));
        codes.put(Reader.SERVER_CODE, Path.of("../examples/harbour/src/example/lanternbay/office/LanternBayDesk.java"));
        for (Map.Entry<Reader, Path> code : codes.entrySet()) {
            Path sources = folder.resolve("sources-" + code.getKey());
            OutputFolder.write(sources, Plans.code(after).emit(all, false, () -> Publication.of(after)), false, false);
            Files.writeString(
                    sources.resolve(code.getValue().getFileName()),
                    Files.readString(code.getValue())
                            .replace("example.lanternbay.harbour.desk.runtime.", "org.protypos.runtime."));
            Path classes = Files.createDirectories(folder.resolve("classes-" + code.getKey()));
            if (!Generated.compile(sources, classes).isEmpty()) {
                seen.add(code.getKey());
            }
        }
    }

    static Stream<Edit> harmless() {
        return edits().filter(edit ->
                !edit.breaks().contains("C") && !edit.breaks().contains("s")
                        || !edit.breaks().contains("S") && !edit.breaks().contains("c"));
    }

    /** Where nothing is said to break on the wire, clients of the one contract really call servers of the other. */
    @ParameterizedTest
    @MethodSource("harmless")
    void whatIsNotSaidToBreakReallyWorks(Edit edit, @TempDir Path folder) throws Exception {
        Path changed = edited(folder.resolve("in"), edit);
        Path agent = Files.createDirectories(folder.resolve("agent"));
        Files.copy(Path.of("src/test/resources/change/Agent.java"), agent.resolve("Agent.java"));
        Path office = Files.createDirectories(folder.resolve("office"));
        Files.copy(Path.of("src/test/resources/change/Office.java"), office.resolve("Office.java"));
        Files.copy(
                Path.of("../examples/harbour/src/example/lanternbay/office/LanternBayDesk.java"),
                office.resolve("LanternBayDesk.java"));
        boolean oldClient = !edit.breaks().contains("C") && !edit.breaks().contains("s");
        Path client = oldClient ? DESK.resolve("desk.wsdl") : changed;
        Path server = oldClient ? changed : DESK.resolve("desk.wsdl");
        Rules none = RuleReader.read(List.of(), new JavaNames());
        try (Generated calling = Generated.beside(client, folder.resolve("calling"), none, agent);
                Generated serving = Generated.beside(server, folder.resolve("serving"), none, office)) {
            Method all = calling.load("example.lanternbay.agent.Agent").getMethod("all", String.class);
            IntFunction<String> visit = port -> {
                try {
                    return (String) all.invoke(null, "http://127.0.0.1:" + port + "/desk");
                } catch (ReflectiveOperationException e) {
                    throw new IllegalStateException(e.getCause());
                }
            };
            String seen = (String) serving.load("example.lanternbay.office.Office")
                    .getMethod("open", IntFunction.class)
                    .invoke(null, visit);
            assertThat(seen).contains("Lighthouse Quay").contains("LB4F");
        }
    }

    @Test
    void renamedComponentsKeepTheirNamesByRule(@TempDir Path folder) throws IOException {
        Contract before = read(DESK.resolve("desk.wsdl"));
        Edit edit = new Edit("", "desk.xsd", "\"quay\"", "\"quaySide\"", 0, "");
        Contract after = read(edited(folder, edit));
        List<ProposedRule> rules = compare(before, after).renames();
        assertThat(rules).hasSize(1);
        Path file = Files.writeString(folder.resolve("rules.yaml"), ProposedRule.file(rules));
        Plan plan = Plans.of(after, RuleReader.read(List.of(file), new JavaNames()));
        assertThat(JavaSurface.of(plan))
                .satisfies(surface -> assertThat(surface.names()).containsValue("Quay"));
    }

    /** A version in the name of a namespace is one difference, not all. */
    @Test
    void renamedNamespacesAreOneDifference(@TempDir Path folder) throws IOException {
        for (String name : List.of("desk.wsdl", "desk.xsd", "vessels.xsd")) {
            Files.writeString(
                    folder.resolve(name),
                    Files.readString(DESK.resolve(name)).replace("/harbour/vessels", "/harbour/vessels/v2"));
        }
        Contract before = read(DESK.resolve("desk.wsdl"));
        Contract after = read(folder.resolve("desk.wsdl"));
        Comparison.Result result = compare(before, after);
        assertThat(result.differences()).extracting(Difference::kind).containsExactly("namespace");
        Path file = Files.writeString(folder.resolve("rules.yaml"), ProposedRule.file(result.renames()));
        Plan plan = Plans.of(after, RuleReader.read(List.of(file), new JavaNames()));
        assertThat(JavaSurface.of(plan).symbols().keySet())
                .isEqualTo(JavaSurface.of(plan(before)).symbols().keySet());
    }

    /** Every component that only one of two contracts has, and none that both have alike, is told once. */
    @Test
    void differencesAreComplete(@TempDir Path folder) throws IOException {
        List<Edit> edits = new ArrayList<>(
                edits().filter(edit -> !edit.to().equals("dd:") && !edit.from().contains("(?s:"))
                        .toList());
        for (Edit edit : edits) {
            Path changed = edited(folder.resolve("e" + edits.indexOf(edit)), edit);
            Comparison.Result there = compare(read(DESK.resolve("desk.wsdl")), read(changed));
            Comparison.Result back = compare(read(changed), read(DESK.resolve("desk.wsdl")));
            Set<String> told = new HashSet<>();
            there.differences()
                    .forEach(difference -> assertThat(told.add(difference.designator() + " " + difference.fact()))
                            .isTrue());
            assertThat(back.differences()).hasSameSizeAs(there.differences());
            assertThat(compare(read(changed), read(changed)).differences()).isEmpty();
        }
    }

    /** A group may hold an element in which it stands again, and groups in groups may multiply beyond all bounds. */
    @Test
    void groupsMayHoldThemselves(@TempDir Path folder) throws IOException {
        StringBuilder groups = new StringBuilder();
        for (int i = 0; i < 30; i++) {
            String inner = "<xs:complexType><xs:group ref='deck" + (i + 1) + "'/></xs:complexType></xs:element>";
            groups.append("<xs:group name='deck" + i + "'><xs:choice><xs:element name='fore" + i + "'>" + inner
                    + "<xs:element name='aft" + i + "'>" + inner + "</xs:choice></xs:group>");
        }
        String schema = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'>"
                + "<xs:element name='hold'><xs:complexType><xs:group ref='cargo'/></xs:complexType></xs:element>"
                + "<xs:group name='cargo'><xs:sequence><xs:element name='weight' type='xs:int'/>"
                + "<xs:element name='within' minOccurs='0'><xs:complexType><xs:group ref='cargo'/>"
                + "<xs:attribute name='mark' type='xs:int'/></xs:complexType></xs:element></xs:sequence></xs:group>"
                + "<xs:element name='ship'><xs:complexType><xs:group ref='deck0'/></xs:complexType></xs:element>"
                + groups
                + "<xs:group name='deck30'><xs:sequence><xs:element name='keel' type='xs:int'/></xs:sequence></xs:group>"
                + "</xs:schema>";
        Path old = Files.writeString(folder.resolve("old.xsd"), schema);
        Path longer = Files.writeString(
                folder.resolve("longer.xsd"), schema.replace("'mark' type='xs:int'", "'mark' type='xs:long'"));
        assertThat(compare(read(old), read(longer)).differences())
                .extracting(Difference::designator, Difference::isBreaking)
                .containsExactly(tuple("hold/within/@mark", true));
    }

    /** What a message begins with, what each binding makes of it, and what addresses it. */
    @Test
    void whatCarriesMessagesCounts(@TempDir Path folder) throws IOException {
        Path gauge = Path.of("src/test/resources/carried/carried.wsdl");
        assertThat(told(folder, gauge, "(element=\"s:|element name=\")levelResponse\"", "$1levels\""))
                .containsExactly("{urn:carried}levelResponse name breaks CScs, a message shows it");
        assertThat(told(folder, gauge, "(?s)(Gauge12.*?)use=\"literal\"/></input>", "$1use=\"encoded\"/></input>"))
                .containsExactly(
                        "portType {urn:carried}Gauge/level input encoded over SOAP 1.2 breaks CSs",
                        "service {urn:carried}Gauges/soap12 code breaks c");
        assertThat(told(folder, gauge, "use=\"literal\"/></output>", "parts=\"\" use=\"literal\"/></output>"))
                .containsExactly(
                        "portType {urn:carried}Gauge/level output content over SOAP 1.1 breaks CScs",
                        "portType {urn:carried}Gauge/level output content over SOAP 1.2 breaks CScs");
        assertThat(told(folder, Path.of("../examples/papers/papers.wsdl"), "Cabinet\"", "Locker\""))
                .contains("portType {http://lanternbay.example/papers}Cabinet name breaks CScs");
    }

    private static List<String> told(Path folder, Path contract, String from, String to) throws IOException {
        Path changed = Files.writeString(
                folder.resolve(contract.getFileName()),
                Files.readString(contract).replaceAll(from, to));
        return compare(read(contract), read(changed)).differences().stream()
                .map(difference -> difference.designator() + " " + difference.fact() + " breaks "
                        + letters(difference.breaks())
                        + (difference.evidence().stream().anyMatch(Evidence::isShown) ? ", a message shows it" : ""))
                .toList();
    }
}
