package org.protypos.runtime.xml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.runtime.value.XmlDateTime;

/** Reading and writing below the generated types: namespaces, trees, limits and hostile input. */
class XmlStreamsTest {
    private static final XmlTypes BUOYS = new XmlTypes() {
        @Override
        protected XmlObject element(String namespace, String name) {
            return name.equals("depth") ? XmlSimple.empty("http://www.w3.org/2001/XMLSchema", "int", "int") : null;
        }
    };

    private static XmlInput open(String xml, XmlLimits limits) {
        return XmlInput.open(
                new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)), null, XmlTypes.NONE, limits);
    }

    private static XmlInput open(String xml) {
        return open(xml, XmlLimits.DEFAULT);
    }

    private static String roundTrip(String xml) {
        XmlElement<?> read = BUOYS.read(new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
        String written = new String(BUOYS.write(read), StandardCharsets.UTF_8);
        return written.substring(written.indexOf('\n') + 1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<a/> | <a/>",
                "<a> x <b>y</b> z </a> | <a> x <b>y</b> z </a>",
                "<a><![CDATA[<&>]]></a> | <a>&lt;&amp;&gt;</a>",
                "<a b='&quot;&#10;&#9;'/> | <a b=\"&quot;&#10;&#9;\"/>",
                "<a xmlns='urn:x'><b xmlns=''/></a> | <n1:a xmlns:n1=\"urn:x\"><b/></n1:a>",
                "<p:a xmlns:p='urn:x' p:q='1' r='2'/> | <n1:a n1:q=\"1\" r=\"2\" xmlns:n1=\"urn:x\"/>",
                "<a xmlns:p='urn:x' t='p:name'>p:other</a> | <a xmlns:p=\"urn:x\" t=\"p:name\">p:other</a>",
                "<a xmlns:n1='urn:y'><b xmlns='urn:x' c='n1:d'><n1:e/></b></a>"
                        + " | <a><n1:b xmlns:n1=\"urn:y\" c=\"n1:d\"><n2:e/></n1:b></a>",
                "<depth>07</depth> | <depth>07</depth>",
                "<a><depth>7</depth></a> | <a><depth>7</depth></a>",
            })
    void unknownContentIsKeptAsItCame(String xml, String expected) {
        XmlElement<?> read = BUOYS.read(new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
        byte[] written = BUOYS.write(read);
        assertThat(BUOYS.read(new ByteArrayInputStream(written))).isEqualTo(read);
        if (!expected.contains("urn:y")) {
            assertThat(roundTrip(xml)).isEqualTo(expected);
        }
    }

    @Test
    void aHiddenPrefixIsReplacedWhereItWouldMislead() {
        XmlTree inner = new XmlTree();
        inner.prefixes().put("n1", "urn:y");
        inner.attributes().put(new QName("urn:x", "a"), "n1:value");
        inner.content().add(XmlElement.of("urn:x", "b", new XmlTree()));
        inner.content().add(XmlElement.of("urn:y", "c", new XmlTree()));
        XmlTree outer = new XmlTree();
        outer.content().add(XmlElement.of("urn:x", "inner", inner));
        XmlElement<XmlTree> root = XmlElement.of("urn:x", "outer", outer);
        byte[] written = XmlTypes.NONE.write(root);
        XmlElement<?> read = XmlTypes.NONE.read(new ByteArrayInputStream(written));
        assertThat(read).as(new String(written, StandardCharsets.UTF_8)).isEqualTo(root);
    }

    @Test
    void valuesOfAnyTypeSayTheirType() {
        List<XmlSimple> values = List.of(
                XmlSimple.of("text"),
                XmlSimple.of(true),
                XmlSimple.of(7),
                XmlSimple.of(7L),
                XmlSimple.of(1.5),
                XmlSimple.of(new java.math.BigDecimal("1.50")),
                XmlSimple.of(java.math.BigInteger.TEN),
                XmlSimple.of(XmlDateTime.of("2027-05-09T24:00:00")),
                XmlSimple.of(new QName("urn:q", "name")));
        for (XmlSimple value : values) {
            XmlOutput out = new XmlOutput(XmlTypes.NONE);
            out.open("", "root");
            out.any("", "value", value);
            out.close();
            XmlInput in = XmlInput.open(new ByteArrayInputStream(out.finish()), null, XmlTypes.NONE, XmlLimits.DEFAULT);
            in.enter();
            XmlObject read = in.any();
            in.leave();
            in.finish();
            assertThat(read).isEqualTo(value).hasSameHashCodeAs(value).hasToString(value.toString());
            assertThat(((XmlSimple) read).value()).isEqualTo(value.value());
        }
        assertThat(XmlSimple.of(new QName("urn:x", "Kind"), "red").toString()).isEqualTo("XmlSimple{Kind=red}");
    }

    @Test
    void aSimpleValueOfTheWrongTypeIsNamed() {
        XmlInput in = open("<r xmlns:i='http://www.w3.org/2001/XMLSchema-instance'"
                + " xmlns:xs='http://www.w3.org/2001/XMLSchema' i:type='xs:int'>seven</r>");
        assertThatThrownBy(in::any).hasMessageContaining("\"seven\" is not a valid int");
    }

    @Test
    void encodingsComeFromTheTransportOrTheMessage() {
        for (String name : List.of("UTF-8", "UTF-16", "UTF-16BE", "ISO-8859-15")) {
            String xml = "<a>\u00e9\u20ac</a>";
            byte[] bytes = xml.getBytes(Charset.forName(name));
            XmlInput in = XmlInput.open(new ByteArrayInputStream(bytes), name, XmlTypes.NONE, XmlLimits.DEFAULT);
            assertThat(in.text()).isEqualTo("\u00e9\u20ac");
        }
        byte[] declared =
                "<?xml version='1.0' encoding='ISO-8859-15'?><a>\u20ac</a>".getBytes(Charset.forName("ISO-8859-15"));
        assertThat(XmlInput.open(new ByteArrayInputStream(declared), null, XmlTypes.NONE, XmlLimits.DEFAULT)
                        .text())
                .isEqualTo("\u20ac");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "text",
                "<a>",
                "<a></b>",
                "<a b='1' b='2'/>",
                "<p:a/>",
                "<a>&e;</a>",
                "<a>&#0;</a>",
                "<a>\u0001</a>",
                "<a/><b/>",
                "<!DOCTYPE a><a/>",
                "<!DOCTYPE a [<!ENTITY e SYSTEM 'file:///etc/passwd'>]><a>&e;</a>",
                "<a xmlns:i='http://www.w3.org/2001/XMLSchema-instance' i:nil='perhaps'/>",
                "<a xmlns:i='http://www.w3.org/2001/XMLSchema-instance' i:typo='x'/>",
            })
    void whatIsNoMessageIsRefused(String xml) {
        assertThatThrownBy(() -> {
                    XmlInput in = open(xml);
                    in.element();
                    in.finish();
                })
                .isInstanceOf(XmlFormatException.class)
                .satisfies(e -> assertThat(((XmlFormatException) e).line()).isEqualTo(1));
    }

    @Test
    void limitsHold() {
        XmlLimits tight = new XmlLimits(200, 3, 2);
        assertThat(open("<a><b><c/></b></a>", tight).element()).isNotNull();
        assertThatThrownBy(() -> open("<a><b><c><d/></c></b></a>", tight).element())
                .hasMessageContaining("deeper than 3 levels")
                .satisfies(e -> assertThat(((XmlFormatException) e).path()).isEqualTo("/a/b/c/d"));
        assertThatThrownBy(() -> open("<a><b><c><d/></c></b></a>", tight).skip())
                .hasMessageContaining("deeper than 3");
        assertThatThrownBy(() -> open("<a x='1' y='2' z='3'/>", tight).element())
                .hasMessageContaining("more than 2 attributes");
        assertThatThrownBy(() -> open("<a>" + " ".repeat(9000) + "</a>", tight).element())
                .hasMessageContaining("longer than 200 bytes");
        assertThatThrownBy(() -> new XmlLimits(0, 1, 1)).isInstanceOf(IllegalArgumentException.class);
    }

    /** Tiny elements become objects many times their size, whatever they hold. */
    @ParameterizedTest
    @ValueSource(strings = {"<b/>", "<b> </b>", "<b c='d'/>", "<b>text</b>", "<b><c/></b>"})
    void theMemoryOfOneMessageIsBounded(String element) {
        XmlLimits tight = new XmlLimits(64L << 20, 400, 1_000, 1 << 20);
        assertThat(open("<a>" + element.repeat(1_000) + "</a>", tight).element())
                .isNotNull();
        assertThatThrownBy(() ->
                        open("<a>" + element.repeat(20_000) + "</a>", tight).element())
                .isInstanceOf(XmlFormatException.class)
                .hasMessageContaining("take more than 1024 KiB of memory");
    }

    /** Numbers, as generated code reads them. */
    private static final class Marks extends XmlObject {
        @Override
        protected void readElements(XmlInput in) {
            for (int place = 0; in.at("", "b"); place++) {
                if (!in.takeSimpleNil()) {
                    in.toInt(in.text());
                }
                if (in.isOdd()) {
                    keepText(in, "b", place, "1");
                }
            }
        }
    }

    /** How values were written, and the types that they named, is kept beside them and takes memory, too. */
    @ParameterizedTest
    @ValueSource(strings = {"<b>01</b>", "<b i:type='x:int'>1</b>", "<b i:nil='true' i:type='x:int'/>"})
    void theMemoryOfWhatIsKeptBesideValuesIsBounded(String element) {
        XmlLimits tight = new XmlLimits(64L << 20, 400, 1_000, 1 << 20);
        String head =
                "<a xmlns:i='http://www.w3.org/2001/XMLSchema-instance' xmlns:x='http://www.w3.org/2001/XMLSchema'>";
        assertThat(open(head + element.repeat(1_000) + "</a>", tight).object(Marks.class, new Marks()))
                .isNotNull();
        assertThatThrownBy(
                        () -> open(head + element.repeat(6_000) + "</a>", tight).object(Marks.class, new Marks()))
                .isInstanceOf(XmlFormatException.class)
                .hasMessageContaining("take more than 1024 KiB of memory");
    }

    @Test
    void attributesAreTakenOnceAndTheRestRefusedOrKept() {
        XmlInput in = open("<a x='1' p:y='2' xmlns:p='urn:p'/>");
        Map<QName, String> rest = new LinkedHashMap<>();
        XmlObject value = new XmlObject() {
            @Override
            protected void readAttributes(XmlInput input) {
                assertThat(input.attribute("", "y")).isNull();
                assertThat(input.requiredAttribute("", "x")).isEqualTo("1");
                input.otherAttributes(rest, "urn:p");
                input.attributesOf(rest, "urn:q", "");
                assertThat(rest).isEmpty();
                input.anyAttributes(rest);
                assertThatThrownBy(() -> input.requiredAttribute("", "z"))
                        .hasMessageContaining("attribute z is missing");
            }
        };
        in.object(XmlObject.class, value);
        assertThat(rest).containsExactly(Map.entry(new QName("urn:p", "y"), "2"));
    }

    @Test
    void whatCannotStandInXmlIsNotWritten() {
        for (String text : List.of("\u0000", "\u001f", "\ufffe", "\ud800", "\udc00x")) {
            XmlOutput out = new XmlOutput(XmlTypes.NONE);
            assertThatThrownBy(() -> out.element("", "a", text))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("cannot stand in XML");
        }
        String fine = "\u00e9\u0800\ufffd\ud83d\ude00\r\n\t]]>";
        XmlOutput out = new XmlOutput(XmlTypes.NONE);
        out.element("", "a", fine);
        assertThat(XmlInput.open(new ByteArrayInputStream(out.finish()), null, XmlTypes.NONE, XmlLimits.DEFAULT)
                        .text())
                .isEqualTo(fine);
    }

    @Test
    void nilStandsBesideAttributesOnly() {
        String nil = "xmlns:i='http://www.w3.org/2001/XMLSchema-instance' i:nil='true'";
        assertThat(open("<a " + nil + "/>").takeNil()).isTrue();
        assertThat(open("<a b='1' " + nil + "/>").takeNil()).isFalse();
        XmlObject value = open("<a b='1' " + nil + "/>").any();
        assertThat(value.nil()).isTrue();
        XmlOutput out = new XmlOutput(XmlTypes.NONE);
        out.any("", "a", value);
        assertThat(new String(out.finish(), StandardCharsets.UTF_8))
                .contains("xsi:nil=\"true\"")
                .contains("b=\"1\"");
        assertThatThrownBy(() -> open("<a " + nil + "><b/></a>").any()).hasMessageContaining("<b> is not expected");
    }
}
