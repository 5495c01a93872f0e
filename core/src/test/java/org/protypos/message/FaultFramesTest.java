package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import javax.xml.XMLConstants;
import javax.xml.transform.Source;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.contract.ContractReader;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.tree.MessageReader;
import org.protypos.source.DocumentGatherer;
import org.xml.sax.SAXException;

/** Faults at random, right and wrong: what the platform's validator says of them by a schema of what SOAP says is our word too. */
class FaultFramesTest {
    private static final String OF_1_1 = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"
                targetNamespace="http://schemas.xmlsoap.org/soap/envelope/">
              <xs:element name="Fault"><xs:complexType><xs:sequence>
                <xs:element name="faultcode" type="xs:QName"/>
                <xs:element name="faultstring" type="xs:string"/>
                <xs:element name="faultactor" type="xs:string" minOccurs="0"/>
                <xs:element name="detail" type="s:Detail" minOccurs="0"/>
              </xs:sequence></xs:complexType></xs:element>
              <xs:complexType name="Detail"><xs:sequence>
                <xs:any processContents="skip" minOccurs="0" maxOccurs="unbounded"/>
              </xs:sequence></xs:complexType>
            </xs:schema>
            """;

    private static final String OF_1_2 = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:s="http://www.w3.org/2003/05/soap-envelope"
                targetNamespace="http://www.w3.org/2003/05/soap-envelope" elementFormDefault="qualified">
              <xs:import namespace="http://www.w3.org/XML/1998/namespace"/>
              <xs:element name="Fault"><xs:complexType><xs:sequence>
                <xs:element name="Code"><xs:complexType><xs:sequence>
                  <xs:element name="Value"><xs:simpleType><xs:restriction base="xs:QName">
                    <xs:enumeration value="s:VersionMismatch"/><xs:enumeration value="s:MustUnderstand"/>
                    <xs:enumeration value="s:DataEncodingUnknown"/><xs:enumeration value="s:Sender"/>
                    <xs:enumeration value="s:Receiver"/>
                  </xs:restriction></xs:simpleType></xs:element>
                  <xs:element name="Subcode" type="s:Subcode" minOccurs="0"/>
                </xs:sequence></xs:complexType></xs:element>
                <xs:element name="Reason"><xs:complexType><xs:sequence>
                  <xs:element name="Text" maxOccurs="unbounded"><xs:complexType><xs:simpleContent>
                    <xs:extension base="xs:string"><xs:attribute ref="xml:lang" use="required"/></xs:extension>
                  </xs:simpleContent></xs:complexType></xs:element>
                </xs:sequence></xs:complexType></xs:element>
                <xs:element name="Node" type="xs:anyURI" minOccurs="0"/>
                <xs:element name="Role" type="xs:anyURI" minOccurs="0"/>
                <xs:element name="Detail" minOccurs="0"><xs:complexType><xs:sequence>
                  <xs:any processContents="skip" minOccurs="0" maxOccurs="unbounded"/>
                </xs:sequence></xs:complexType></xs:element>
              </xs:sequence></xs:complexType></xs:element>
              <xs:complexType name="Subcode"><xs:sequence>
                <xs:element name="Value" type="xs:QName"/>
                <xs:element name="Subcode" type="s:Subcode" minOccurs="0"/>
              </xs:sequence></xs:complexType>
            </xs:schema>
            """;

    private static final String LANGUAGE = """
            <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" targetNamespace="http://www.w3.org/XML/1998/namespace">
              <xs:attribute name="lang" type="xs:language"/>
            </xs:schema>
            """;

    private final Random random = new Random(11);

    private boolean often() {
        return random.nextInt(12) > 0;
    }

    private String one(String... values) {
        return values[random.nextInt(values.length)];
    }

    /** Some parts, of which now and then one is lacking, there twice, or not one of them. */
    private String parts(boolean ordered, List<String> parts) {
        List<String> some = new ArrayList<>();
        for (String part : parts) {
            if (often()) {
                some.add(part);
            }
            if (!often()) {
                some.add(one(part, "<other/>", "<s:other/>", " text "));
            }
        }
        if (!ordered && !often()) {
            Collections.shuffle(some, random);
        }
        return String.join(one("", "\n"), some);
    }

    private String name(String right) {
        return often() ? one(right, " " + right + " ") : one("s:Sendr", "q:Sender", "Sender", "", "s:", "a b");
    }

    private String subcode(int depth) {
        return depth > 2 || random.nextBoolean()
                ? ""
                : "<s:Subcode>" + parts(false, List.of("<s:Value>" + name("d:late") + "</s:Value>", subcode(depth + 1)))
                        + "</s:Subcode>";
    }

    private String fault(boolean first) {
        String detail = one("", "<d:tide/>", "text", "<d:tide/><d:tide>x</d:tide>");
        if (first) {
            // The order of parts is the schema's of SOAP 1.1 alone: its text has none.
            return "<s:Fault>"
                    + parts(
                            true,
                            List.of(
                                    "<faultcode>" + name("s:Client") + (often() ? "" : "<b/>") + "</faultcode>",
                                    one("<faultstring>", "<s:faultstring>", "<faultstring>", "<faultstring>")
                                            .transform(open -> open + "late" + open.replace("<", "</")),
                                    "<faultactor>urn:desk</faultactor>",
                                    "<detail>" + detail + "</detail>"))
                    + "</s:Fault>";
        }
        String text = often() ? "<s:Text xml:lang='en'>late</s:Text>" : one("<s:Text>late</s:Text>", "late", "<Text/>");
        return "<s:Fault>"
                + parts(
                        false,
                        List.of(
                                "<s:Code>"
                                        + parts(
                                                false,
                                                List.of(
                                                        "<s:Value>" + name(one("s:Sender", "s:Receiver"))
                                                                + "</s:Value>",
                                                        subcode(0)))
                                        + "</s:Code>",
                                "<s:Reason>" + text + one("", text) + "</s:Reason>",
                                one("", "<s:Node>urn:desk</s:Node>"),
                                one("", "<s:Role>urn:desk</s:Role>", "<s:Role><b/></s:Role>"),
                                one("", "<s:Detail>" + detail + "</s:Detail>")))
                + "</s:Fault>";
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void validatorsAgree(boolean first) throws Exception {
        Source[] sources = first
                ? new Source[] {new StreamSource(new StringReader(OF_1_1))}
                : new Source[] {new StreamSource(new StringReader(LANGUAGE)), new StreamSource(new StringReader(OF_1_2))
                };
        Schema schema =
                SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI).newSchema(sources);
        ContractCheck check = new ContractCheck(
                ContractReader.read(DocumentGatherer.gather(List.of("../examples/harbour/contract/desk.wsdl"), null)));
        String envelope =
                first ? "http://schemas.xmlsoap.org/soap/envelope/" : "http://www.w3.org/2003/05/soap-envelope";
        int right = 0;
        for (int round = 0; round < 3_000; round++) {
            String fault = fault(first).replaceFirst("<s:Fault", "<s:Fault xmlns:s='" + envelope + "' xmlns:d='urn:d'");
            List<Deviation> told = check
                    .check(MessageReader.read(
                            "fault.xml",
                            "<e:Envelope xmlns:e='" + envelope + "'><e:Body>" + fault + "</e:Body></e:Envelope>"))
                    .deviations()
                    .stream()
                    .filter(deviation -> !deviation.path().matches(".*/[Dd]etail/.*"))
                    .toList();
            boolean valid = true;
            try {
                schema.newValidator().validate(new StreamSource(new StringReader(fault)));
            } catch (SAXException e) {
                valid = false;
            }
            right += valid ? 1 : 0;
            assertThat(told.isEmpty()).as("%s%n%s", fault, told).isEqualTo(valid);
        }
        assertThat(right).isBetween(400, 2_600);
    }
}
