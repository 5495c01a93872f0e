package org.protypos.runtime.soap;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.namespace.QName;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.protypos.runtime.attach.MediaType;
import org.protypos.runtime.xml.Reading;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlLimits;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/** Faults as the two versions of SOAP write them: from raw envelopes, and to envelopes that another parser reads. */
class SoapFaultTest {
    private static final String SOAP_11 = "http://schemas.xmlsoap.org/soap/envelope/";
    private static final String SOAP_12 = "http://www.w3.org/2003/05/soap-envelope";

    private static SoapFault read(String envelope) {
        Incoming incoming =
                new Incoming(envelope.getBytes(StandardCharsets.UTF_8), MediaType.of("text/xml; charset=utf-8"), null);
        return Envelope.read(incoming, false, XmlTypes.NONE, Reading.strict(XmlLimits.DEFAULT), opened -> {
            assertThat(opened.isFault()).isTrue();
            return opened.readFault(XmlTypes.NONE);
        });
    }

    /** SOAP 1.1, section 4.4, example 3 in its form. */
    @Test
    void aFaultOfTheOlderVersion() {
        SoapFault fault = read("<e:Envelope xmlns:e='" + SOAP_11 + "'><e:Header/><e:Body><e:Fault>"
                + "<faultcode xmlns:c='urn:c'>c:Full</faultcode><faultstring xml:lang='en'>No berth</faultstring>"
                + "<faultactor>urn:office</faultactor><detail><x:why xmlns:x='urn:x' at='1'>tide</x:why></detail>"
                + "</e:Fault></e:Body></e:Envelope>");
        assertThat(fault.code()).containsExactly(new QName("urn:c", "Full"));
        assertThat(fault.reason()).isEqualTo("No berth");
        assertThat(fault.actor()).isEqualTo("urn:office");
        assertThat(((XmlTree) fault.detail("urn:x", "why")).text()).isEqualTo("tide");
        assertThat(fault.detail("urn:x", "other")).isNull();
    }

    /** SOAP 1.2 Part 1, section 5.4, example 5 in its form: subcodes, and the reason in two languages. */
    @Test
    void aFaultOfTheNewerVersion() {
        SoapFault fault =
                read("<e:Envelope xmlns:e='" + SOAP_12 + "'><e:Body><e:Fault><e:Code><e:Value>e:Sender</e:Value>"
                        + "<e:Subcode><e:Value xmlns:m='urn:m'>m:Late</e:Value></e:Subcode></e:Code><e:Reason>"
                        + "<e:Text xml:lang='en-GB'>too late</e:Text><e:Text xml:lang='cs'>pozde</e:Text></e:Reason>"
                        + "<e:Node>urn:n</e:Node><e:Role>urn:r</e:Role><e:Detail><m:max xmlns:m='urn:m'>5</m:max></e:Detail>"
                        + "</e:Fault></e:Body></e:Envelope>");
        assertThat(fault.code()).containsExactly(new QName(SOAP_12, "Sender"), new QName("urn:m", "Late"));
        assertThat(fault.reason()).isEqualTo("too late");
        assertThat(fault.actor()).isEqualTo("urn:n");
        assertThat(fault.detail()).hasSize(1);
    }

    /** Code and reason are there whatever else is wrong: text in the detail, a prefix that nobody declares, no wrapping text. */
    @Test
    void aFaultThatIsWrongInItselfSaysWhatItHas() {
        SoapFault fault = read("<e:Envelope xmlns:e='" + SOAP_11 + "'><e:Body><e:Fault>"
                + "<faultcode>nobody:Full</faultcode><faultstring>No <b>berth</b></faultstring>"
                + "<detail>see <why>tide</why> tables</detail><more a='1'/></e:Fault></e:Body></e:Envelope>");
        assertThat(fault.code()).containsExactly(new QName("nobody:Full"));
        assertThat(fault.reason()).isEqualTo("No berth");
        assertThat(fault.detail()).hasSize(1);
        assertThat(fault.detailText()).isEqualTo("see  tables");
        SoapFault newer =
                read("<e:Envelope xmlns:e='" + SOAP_12 + "'><e:Body><e:Fault><e:Code><e:Value>Sender</e:Value>"
                        + "</e:Code><e:Reason>bare</e:Reason></e:Fault></e:Body></e:Envelope>");
        assertThat(newer.code()).containsExactly(new QName("Sender"));
        assertThat(newer.reason()).isEqualTo("bare");
    }

    @ParameterizedTest
    @EnumSource(SoapVersion.class)
    void whatIsWrittenAnotherParserReads(SoapVersion version) throws Exception {
        XmlTree why = new XmlTree();
        why.content().add("tide & <wind>");
        byte[] written = Envelope.writeFault(
                version,
                List.of(new QName(version.namespace(), version == SoapVersion.SOAP_1_1 ? "Server" : "Receiver")),
                "no \"berth\" < free",
                List.of(),
                XmlTypes.NONE,
                out -> out.element(XmlElement.of("urn:x", "why", why)));
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        Document document = factory.newDocumentBuilder().parse(new ByteArrayInputStream(written));
        boolean older = version == SoapVersion.SOAP_1_1;
        String namespace = older ? SOAP_11 : SOAP_12;
        assertThat(document.getDocumentElement().getNamespaceURI()).isEqualTo(namespace);
        assertThat(text(document, older ? null : namespace, older ? "faultstring" : "Text"))
                .isEqualTo("no \"berth\" < free");
        String code = text(document, older ? null : namespace, older ? "faultcode" : "Value");
        assertThat(document.getDocumentElement().lookupNamespaceURI(code.split(":")[0]))
                .isEqualTo(namespace);
        assertThat(code.split(":")[1]).isEqualTo(older ? "Server" : "Receiver");
        assertThat(text(document, "urn:x", "why")).isEqualTo("tide & <wind>");
        SoapFault again = read(new String(written, StandardCharsets.UTF_8));
        assertThat(again.reason()).isEqualTo("no \"berth\" < free");
        assertThat(((XmlTree) again.detail("urn:x", "why")).text()).isEqualTo("tide & <wind>");
    }

    private static String text(Document document, String namespace, String name) {
        return ((Element) document.getElementsByTagNameNS(namespace, name).item(0)).getTextContent();
    }
}
