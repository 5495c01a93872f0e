package org.protypos.reference;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.Contract;
import org.protypos.contract.ContractReader;
import org.protypos.diagnostic.Findings;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;
import org.protypos.testing.Infoset;
import org.protypos.testing.RandomContract;

/** What one is told of the components of a contract. */
class ContractReferenceTest {
    @TempDir
    private Path folder;

    private static Contract read(Path document) {
        return ContractReader.read(DocumentGatherer.gather(List.of(document.toString()), null));
    }

    private ContractReference schema(String content) throws IOException {
        Path file = Files.writeString(
                folder.resolve("log.xsd"),
                "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema' xmlns='urn:log' targetNamespace='urn:log'>"
                        + content + "</xs:schema>");
        return new ContractReference(read(file), Map.of("~{urn:log}Entry", "LogEntry", "~{urn:log}Entry/wind", "Wind"));
    }

    private static Component component(ContractReference reference, String name) {
        List<Component> found = reference.components().named(name);
        assertThat(found).as(name).hasSize(1);
        return found.get(0);
    }

    private static String tree(ContractReference reference, String name, int depth) {
        StringBuilder text = new StringBuilder();
        reference.structure(component(reference, name), depth).forEach(node -> print(node, 0, text));
        return text.toString();
    }

    private static void print(Node node, int level, StringBuilder text) {
        text.append("  ".repeat(level))
                .append(String.join(
                                " ",
                                List.of(
                                        node.label(),
                                        node.type(),
                                        node.occurs(),
                                        node.inCode().isEmpty() ? "" : "[" + node.inCode() + "]",
                                        String.join("; ", node.demands()),
                                        node.documentation().isEmpty() ? "" : "(" + node.documentation() + ")",
                                        node.isCut() ? "…" : ""))
                        .replaceAll(" +", " ")
                        .strip())
                .append('\n');
        node.children().forEach(child -> print(child, level + 1, text));
    }

    private static String uses(ContractReference reference, String name) {
        return reference.usages().of(component(reference, name)).stream()
                .map(use -> use.user().title() + ": " + use.as())
                .collect(Collectors.joining("\n"));
    }

    private static final String LOG = """
            <xs:element name="log"><xs:complexType><xs:sequence maxOccurs="unbounded">
              <xs:element ref="weather"/>
              <xs:element name="entry" type="Entry" minOccurs="0"><xs:annotation><xs:documentation>
                What the keeper
                saw.</xs:documentation></xs:annotation></xs:element>
            </xs:sequence><xs:attribute name="page" type="xs:int" default="1"/></xs:complexType></xs:element>
            <xs:element name="weather" abstract="true" type="Weather"/>
            <xs:element name="fog" substitutionGroup="weather" type="Weather"/>
            <xs:element name="storm" substitutionGroup="weather" type="Storm"/>
            <xs:complexType name="Weather"><xs:simpleContent><xs:extension base="Words">
              <xs:attributeGroup ref="marks"/></xs:extension></xs:simpleContent></xs:complexType>
            <xs:complexType name="Storm"><xs:simpleContent><xs:restriction base="Weather"><xs:maxLength value="9"/>
              </xs:restriction></xs:simpleContent></xs:complexType>
            <xs:attributeGroup name="marks"><xs:attribute name="sure" type="xs:boolean" use="required"/>
              <xs:attribute name="by" fixed="keeper"/></xs:attributeGroup>
            <xs:simpleType name="Words"><xs:restriction base="xs:string"><xs:minLength value="2"/>
              <xs:pattern value="[a-z ]*"/></xs:restriction></xs:simpleType>
            <xs:simpleType name="Force"><xs:restriction base="xs:int"><xs:minInclusive value="0"/>
              <xs:maxExclusive value="13"/></xs:restriction></xs:simpleType>
            <xs:group name="times"><xs:choice><xs:element name="from" type="xs:time"/><xs:element name="all-day">
              <xs:complexType/></xs:element></xs:choice></xs:group>
            <xs:complexType name="Entry" abstract="true"><xs:sequence><xs:element name="wind" nillable="true" minOccurs="0"><xs:simpleType>
              <xs:list itemType="Force"/></xs:simpleType></xs:element><xs:group ref="times" minOccurs="0"/>
              <xs:element name="after" type="Entry" minOccurs="0"/></xs:sequence></xs:complexType>
            <xs:complexType name="Short"><xs:complexContent><xs:extension base="Entry"><xs:sequence>
              <xs:any namespace="##other" processContents="lax" maxOccurs="2"/></xs:sequence>
              <xs:anyAttribute/></xs:extension></xs:complexContent></xs:complexType>
            <xs:complexType name="Still" mixed="true"><xs:complexContent><xs:restriction base="Entry"><xs:sequence/>
              </xs:restriction></xs:complexContent></xs:complexType>
            """;

    @Test
    void structuresAreTrees() throws IOException {
        ContractReference reference = schema(LOG);
        assertThat(tree(reference, "log", 3)).isEqualTo("""
                log
                  @page int 0..1 1 when absent
                  together 1..n
                    weather Weather 1 one of fog, storm in its place; xsi:type may be Storm
                      @sure boolean 1
                      @by anySimpleType 0..1 always keeper
                      text Words string; at least 2 long; like [a-z ]*
                    entry Entry 0..1 xsi:type is Short, Still (What the keeper saw.)
                      wind list of Force 0..1 [Wind] may be nil
                      one of 0..1
                        from time 1
                        all-day 1
                      after Entry 0..1 xsi:type is Short, Still …
                """);
        assertThat(tree(reference, "~Storm", 2)).isEqualTo("""
                @sure boolean 1
                @by anySimpleType 0..1 always keeper
                text Words at most 9 long; string; at least 2 long; like [a-z ]*
                """);
        assertThat(tree(reference, "type:Short", 9)).isEqualTo("""
                @ any
                wind list of Force 0..1 [Wind] may be nil
                one of 0..1
                  from time 1
                  all-day 1
                after Entry 0..1 xsi:type is Short, Still
                  wind list of Force 0..1 [Wind] may be nil
                  one of 0..1
                    from time 1
                    all-day 1
                  after Entry 0..1 xsi:type is Short, Still …
                any element 1..2 of ##other; lax
                """);
        assertThat(reference.traits(component(reference, "Short"))).containsExactly("extends Entry");
        assertThat(reference.traits(component(reference, "Entry"))).containsExactly("abstract");
        assertThat(reference.inCode(component(reference, "entry"))).isEqualTo("LogEntry");
        assertThat(reference.traits(component(reference, "Force")))
                .containsExactly("int", "at least 0", "less than 13");
    }

    @Test
    void whoUsesWhat() throws IOException {
        ContractReference reference = schema(LOG);
        assertThat(uses(reference, "Entry")).isEqualTo("""
                element log: entry
                type Entry: after
                type Short: extends it
                type Still: restricts it""");
        assertThat(uses(reference, "Force")).isEqualTo("type Entry: lists it");
        assertThat(uses(reference, "weather"))
                .isEqualTo("element log: holds it\nelement fog: stands for it\nelement storm: stands for it");
        assertThat(uses(reference, "marks")).isEqualTo("type Weather: has it");
        assertThat(uses(reference, "times")).isEqualTo("type Entry: holds it");
        assertThat(uses(reference, "log")).isEmpty();
        Contract desk = read(Path.of("../examples/harbour/contract/desk.wsdl"));
        ContractReference harbour = new ContractReference(desk, Map.of());
        assertThat(uses(harbour, "message:requestBerthInput"))
                .isEqualTo("operation requestBerth of HarbourDesk: request");
        assertThat(harbour.usages().operations(component(harbour, "CallSign")))
                .extracting(one -> one.name().getLocalPart())
                .containsExactlyInAnyOrder("requestBerth", "findVessel", "payDues");
    }

    @Test
    void messagesShowWhatTravels() {
        ContractReference tide = new ContractReference(read(Path.of("../examples/tide/tide.wsdl")), Map.of());
        assertThat(tree(tide, "operation:highest", 1)).isEqualTo("""
                request
                  number int header
                  of Reading
                    at dateTime 1
                    level decimal 1
                    trend Trend 0..1 rising | falling
                  or Reading
                    at dateTime 1
                    level decimal 1
                    trend Trend 0..1 rising | falling
                response
                  level decimal
                fault alike
                  both Reading
                    at dateTime 1
                    level decimal 1
                    trend Trend 0..1 rising | falling
                """);
        assertThat(tide.components().nearest("higest")).contains("highest");
        assertThat(tide.components().named("trend")).hasSize(1);
        assertThat(tide.components().named("nothing")).isEmpty();
    }

    /** Of two attributes with one local name the tree tells which is which. */
    @Test
    void attributesOfNamespacesHaveTheirPrefix() throws Exception {
        Path document = Files.writeString(folder.resolve("log.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:h="urn:lantern:log" targetNamespace="urn:lantern:log">
                  <xs:import namespace="http://www.w3.org/XML/1998/namespace"/>
                  <xs:complexType name="Entry">
                    <xs:attribute name="lang" type="xs:string"/>
                    <xs:attribute ref="xml:lang"/>
                    <xs:attribute name="tide" type="xs:int" form="qualified"/>
                  </xs:complexType>
                </xs:schema>
                """);
        ContractReference reference = new ContractReference(read(document), Map.of());
        Component entry = reference.components().all().stream()
                .filter(one -> one.name().getLocalPart().equals("Entry"))
                .findFirst()
                .orElseThrow();
        assertThat(reference.structure(entry, 3))
                .extracting(Node::label)
                .containsExactly("@lang", "@xml:lang", "@h:tide");
        assertThat(reference.holders("tide")).containsExactly(entry);
    }

    /** Every element and attribute of messages that the platform's validator takes has its place in the tree. */
    @ParameterizedTest
    @ValueSource(longs = {1, 5, 8, 21})
    void whatMessagesHoldIsInTheTree(long seed) throws Exception {
        RandomContract random = new RandomContract(seed, 40);
        Path document = random.layOut(folder);
        ContractReference reference = new ContractReference(read(document), Map.of());
        int found = 0;
        for (int i = 0; i < 60; i++) {
            String message = random.message();
            if (Infoset.complaint(document, message) != null) {
                continue;
            }
            MessageElement root =
                    MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings());
            Component component = reference.components().all().stream()
                    .filter(one ->
                            one.kind() == Component.Kind.ELEMENT && one.name().equals(root.name()))
                    .findFirst()
                    .orElseThrow();
            found += found(root, reference.structure(component, 30).get(0), message);
        }
        assertThat(found).isGreaterThan(100);
    }

    private static int found(MessageElement element, Node node, String message) {
        List<Node> inside = flat(node.children());
        boolean isOpen = node.isCut()
                || inside.stream().anyMatch(child -> child.kind() == Node.Kind.ANY)
                || node.demands().stream().anyMatch(words -> words.contains("xsi:type"));
        int found = 0;
        for (QName attribute : element.attributes().keySet()) {
            boolean known = attribute.getNamespaceURI().endsWith("XMLSchema-instance")
                    || inside.stream()
                            .anyMatch(one -> one.label().equals("@" + attribute.getLocalPart())
                                    || one.kind() == Node.Kind.ANY_ATTRIBUTE);
            assertThat(known || isOpen).as(attribute + " in " + message).isTrue();
            found++;
        }
        for (MessageElement child : element.children()) {
            Node place = inside.stream()
                    .filter(one -> one.kind() == Node.Kind.ELEMENT)
                    .filter(one -> one.label().equals(child.name().getLocalPart()))
                    .findFirst()
                    .orElse(null);
            boolean stands = inside.stream()
                    .flatMap(one -> one.demands().stream())
                    .anyMatch(words -> words.contains("in its place")
                            && words.contains(child.name().getLocalPart()));
            assertThat(place != null || stands || isOpen)
                    .as(child.name() + " in " + message)
                    .isTrue();
            // What says its type has what that type has.
            boolean isSaid = child.attribute("http://www.w3.org/2001/XMLSchema-instance", "type") != null;
            found += place == null || isSaid ? 1 : 1 + found(child, place, message);
        }
        return found;
    }

    /** Operations of one name are components of their own: each with its code, its messages and who uses them. */
    @Test
    void operationsOfOneNameAreToldApart() throws IOException {
        Contract contract = read(Path.of("src/test/resources/overloads/overloads.wsdl"));
        Components all = Components.of(contract);
        List<Component> laid = all.all().stream()
                .filter(one -> one.kind() == Component.Kind.OPERATION)
                .filter(one -> one.within().equals(all.named("lay").get(0).within()))
                .toList();
        assertThat(laid).extracting(Component::called).contains("lay", "lay[2]");
        Component second = laid.get(1);
        assertThat(second.title()).startsWith("operation lay[2] of ");
        assertThat(all.designated(second.designator())).isSameAs(second);
        assertThat(all.named("lay[2]")).contains(second).doesNotContain(laid.get(0));
        ContractReference reference = new ContractReference(
                contract, Map.of(laid.get(0).designator(), "lay", second.designator(), "layAgain"));
        assertThat(reference.inCode(second)).isEqualTo("layAgain");
        Component lost = all.named("message:lost").get(0);
        assertThat(reference.usages().operations(lost)).contains(second).doesNotContain(laid.get(0));
    }

    private static List<Node> flat(List<Node> nodes) {
        List<Node> all = new ArrayList<>();
        for (Node node : nodes) {
            switch (node.kind()) {
                case SEQUENCE, CHOICE, ALL -> all.addAll(flat(node.children()));
                default -> all.add(node);
            }
        }
        return all;
    }
}
