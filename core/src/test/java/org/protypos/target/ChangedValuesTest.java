package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;

/** What a message said beside a value is written again as long as the value is the same, and not beside another. */
class ChangedValuesTest {
    private static final String HEAD = "<m:log xmlns:m='urn:marks' xmlns:a='urn:a' xmlns:xmlish='urn:x'"
            + " xmlns:i='http://www.w3.org/2001/XMLSchema-instance' xmlns:x='http://www.w3.org/2001/XMLSchema'>";

    private static Generated log(Path folder) throws Exception {
        Path schema = Files.writeString(folder.resolve("marks.xsd"), """
                <xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:m="urn:marks" targetNamespace="urn:marks">
                  <xs:complexType name="Seen"><xs:simpleContent><xs:extension base="xs:QName">
                    <xs:attribute name="by"/></xs:extension></xs:simpleContent></xs:complexType>
                  <xs:element name="log"><xs:complexType><xs:sequence>
                    <xs:element name="mark" type="xs:QName"/>
                    <xs:element name="note" type="xs:anySimpleType" minOccurs="0"/>
                    <xs:any namespace="##other" processContents="lax" minOccurs="0"/>
                  </xs:sequence></xs:complexType></xs:element>
                </xs:schema>
                """);
        return Generated.from(schema, folder.resolve("out"), "bay");
    }

    private static Object set(Object document, String member, Class<?> type, Object value) throws Exception {
        Object log = document.getClass().getMethod("value").invoke(document);
        log.getClass().getMethod("set" + member, type).invoke(log, value);
        return document;
    }

    @Test
    void aNameIsTheSameUnderAnyPrefixAndAnotherIsAnother(@TempDir Path folder) throws Exception {
        try (Generated generated = log(folder)) {
            String message = HEAD + "<mark i:type='m:Seen' by='pilot'> a:buoy </mark></m:log>";
            QName same = new QName("urn:a", "buoy", "other");
            assertThat(generated.write(set(generated.read(message), "Mark", QName.class, same)))
                    .contains("by=\"pilot\"", ":buoy");
            for (QName other : new QName[] {new QName("urn:a", "uoy"), new QName("urn:b", "buoy"), new QName("buoy")}) {
                String written = generated.write(set(generated.read(message), "Mark", QName.class, other));
                assertThat(written).as(other.toString()).doesNotContain("pilot").contains(other.getLocalPart() + "<");
                assertThat(Infoset.complaint(folder.resolve("marks.xsd"), written))
                        .isNull();
            }
        }
    }

    @Test
    void aTypeStaysWithWhatItTakes(@TempDir Path folder) throws Exception {
        try (Generated generated = log(folder)) {
            String message = HEAD + "<mark>a:buoy</mark><note i:type='x:int'>007</note></m:log>";
            assertThat(generated.write(generated.read(message))).contains(":int\">007<");
            assertThat(generated.write(set(generated.read(message), "Note", String.class, "8")))
                    .contains(":int\">8<");
            String written = generated.write(set(generated.read(message), "Note", String.class, "eight"));
            assertThat(written).contains("<note>eight<").doesNotContain(":int");
            assertThat(Infoset.complaint(folder.resolve("marks.xsd"), written)).isNull();
        }
    }

    /** Only {@code xml} and {@code xmlns} are declared by themselves (Namespaces in XML 1.0, section 3). */
    @Test
    void prefixesThatBeginAsThatOfXmlStayDeclared(@TempDir Path folder) throws Exception {
        try (Generated generated = log(folder)) {
            String message = HEAD + "<mark>a:buoy</mark><a:other>xmlish:name</a:other></m:log>";
            assertThat(generated.roundTrip(message)).contains("xmlns:xmlish=\"urn:x\"");
        }
    }
}
