package org.protypos.target.csharp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.generator.GeneratedCode;
import org.protypos.generator.Generator;
import org.protypos.generator.Order;
import org.protypos.generator.Scaffold;
import org.protypos.target.Product;
import org.protypos.target.Targets;
import org.protypos.testing.CSharp;
import org.protypos.testing.Generated;
import org.protypos.testing.Plans;

/** Names that a contract may have and that the platform or the code around them has too: everything compiles all the same. */
class CSharpNamesTest {
    private static final List<String> TYPES = List.of(("Task List Func Action Object String Runtime XmlObject Type"
                    + " CancellationToken HttpClient System Console Exception IDisposable Nullable Violations Equals Enum"
                    + " Documents Example Uri XElement XName SoapSettings I IDesk Desk DeskClient DeskEndpoint DeskMessages"
                    + " SoapPort Bay global var dynamic Void DeskPortService DeskPortImpl")
            .split(" "));

    private static final List<String> OPERATIONS = List.of(("Dispose Equals GetType ToString Call class This Finalize"
                    + " MemberwiseClone get_Item GetHashCode ReferenceEquals DisposeAsync With Settings Port Desk"
                    + " DeskClient Task lock async await")
            .split(" "));

    /** What generated code calls its own variables, in both languages. */
    private static final String LOCALS = Stream.of(("message input output result found e in out of with port connection"
                            + " item index to other that hash document name namespace action parts operation"
                            + " implementation fault detail types order came times part body block arguments future"
                            + " pending host body header headers token xml reader writer content")
                    .split(" "))
            .distinct()
            .map(name -> "<xs:element name=\"" + name + "\" type=\"xs:string\"/>")
            .collect(Collectors.joining());

    @TempDir
    private Path folder;

    @BeforeEach
    void assumeCompiler() {
        CSharp.assumed();
    }

    private static String type(String name, String next) {
        return """
                <xs:complexType name="%1$s"><xs:sequence>
                  <xs:element name="%1$s" type="t:%1$s" minOccurs="0"/>
                  <xs:element name="value" type="xs:decimal" minOccurs="0"/>
                  <xs:element name="equals" type="xs:int" maxOccurs="unbounded"/>
                  <xs:element name="getType" type="xs:dateTime"/>
                  <xs:element name="Violations" type="t:%2$s" minOccurs="0"/>
                </xs:sequence><xs:attribute name="this" type="xs:QName"/></xs:complexType>
                """.formatted(name, next);
    }

    private static String elements(String operation) {
        return """
                <xs:element name="%1$s"><xs:complexType><xs:sequence>
                  <xs:element name="this" type="t:Task"/>
                  <xs:element name="cancellation" type="t:CancellationToken"/>
                  <xs:element name="settings" type="xs:int"/>
                  <xs:element name="client" type="t:List" maxOccurs="unbounded"/>
                  <xs:element name="request" type="xs:string"/>
                  <xs:element name="System" type="t:System"/>%2$s
                </xs:sequence></xs:complexType></xs:element>
                <xs:element name="%1$sResponse"><xs:complexType><xs:sequence>
                  <xs:element name="Result" type="t:Func"/>%2$s
                </xs:sequence></xs:complexType></xs:element>
                """.formatted(operation, LOCALS);
    }

    private static String contract() {
        StringBuilder types = new StringBuilder();
        for (int i = 0; i < TYPES.size(); i++) {
            types.append(type(TYPES.get(i), TYPES.get((i + 1) % TYPES.size())));
        }
        StringBuilder messages = new StringBuilder();
        StringBuilder offered = new StringBuilder();
        StringBuilder bound = new StringBuilder();
        for (String operation : OPERATIONS) {
            types.append(elements(operation));
            messages.append("<w:message name='%1$s'><w:part name='p' element='t:%1$s'/></w:message>"
                            .formatted(operation))
                    .append("<w:message name='%1$sOut'><w:part name='p' element='t:%1$sResponse'/></w:message>"
                            .formatted(operation));
            offered.append(("<w:operation name='%1$s'><w:input message='t:%1$s'/><w:output message='t:%1$sOut'/>"
                            + "<w:fault name='a' message='t:Exception'/></w:operation>")
                    .formatted(operation));
            bound.append(("<w:operation name='%1$s'><s:operation soapAction='%1$s'/><w:input><s:body use='literal'/>"
                            + "</w:input><w:output><s:body use='literal'/></w:output>"
                            + "<w:fault name='a'><s:fault name='a' use='literal'/></w:fault></w:operation>")
                    .formatted(operation));
        }
        return """
                <w:definitions xmlns:w="http://schemas.xmlsoap.org/wsdl/" xmlns:xs="http://www.w3.org/2001/XMLSchema"
                    xmlns:s="http://schemas.xmlsoap.org/wsdl/soap/" xmlns:t="http://bay.example/System"
                    targetNamespace="http://bay.example/System">
                <w:types><xs:schema targetNamespace="http://bay.example/System" elementFormDefault="qualified">
                %s<xs:element name="Exception" type="t:Exception"/></xs:schema></w:types>
                <w:message name="Exception"><w:part name="e" element="t:Exception"/></w:message>%s
                <w:portType name="Desk">%s</w:portType>
                <w:binding name="Desk" type="t:Desk">
                <s:binding style="document" transport="http://schemas.xmlsoap.org/soap/http"/>%s</w:binding>
                <w:service name="Task">
                <w:port name="Desk" binding="t:Desk"><s:address location="http://bay.example/desk"/></w:port>
                <w:port name="System" binding="t:Desk"><s:address location="http://bay.example/desk2"/></w:port>
                </w:service></w:definitions>
                """.formatted(types, messages, offered, bound);
    }

    private void compiles(Path contract, boolean embedded, String packageName) throws IOException {
        Path sources = Files.createTempDirectory(folder, "sources");
        Order order = new Order(
                "",
                sources,
                sources.resolve("own"),
                EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER),
                embedded);
        GeneratedCode code = Generator.of(List.of(contract.toString()))
                .target(Targets.named("csharp"))
                .packageName(packageName)
                .generate(order)
                .written(false, false);
        assertThat(code.isRefused()).as("findings %s", code.findings()).isFalse();
        Scaffold.into(order, code.planned().code());
        CSharp.compile(
                CSharp.sources(sources),
                "library",
                sources.resolve("contract.dll"),
                embedded ? List.of() : List.of(CSharp.runtime()));
    }

    @Test
    void namesOfThePlatformAndOfTheCodeAround() throws Exception {
        Path contract = Files.writeString(folder.resolve("desk.wsdl"), contract());
        compiles(contract, true, null);
        compiles(contract, false, "Bay");
        Path java = folder.resolve("java");
        try (Generated generated = Generated.from(List.of(contract), java, (String) null)) {
            Scaffold own = Scaffold.into(
                    new Order("", java, java.resolve("own"), EnumSet.of(Product.SERVER), true),
                    Plans.code(generated.contract()));
            assertThat(own.written()).hasSize(1);
            assertThat(Generated.compile(java, folder.resolve("classes"))).isEmpty();
        }
    }

    /** A class that is called as its namespace is, used from another namespace. */
    @Test
    void aClassCalledAsItsNamespaceIs() throws IOException {
        Files.writeString(folder.resolve("vessel.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:vessel">
                <xs:complexType name="Vessel"><xs:sequence><xs:element name="name" type="xs:string"/></xs:sequence>
                </xs:complexType></xs:schema>
                """);
        Path berth = Files.writeString(folder.resolve("berth.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="urn:berth" xmlns:v="urn:vessel">
                <xs:import namespace="urn:vessel" schemaLocation="vessel.xsd"/>
                <xs:complexType name="Berth"><xs:sequence><xs:element name="vessel" type="v:Vessel"/></xs:sequence>
                </xs:complexType></xs:schema>
                """);
        compiles(berth, true, null);
        compiles(berth, false, null);
    }
}
