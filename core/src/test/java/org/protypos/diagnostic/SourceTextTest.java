package org.protypos.diagnostic;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamReader;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lines and columns are those that the platform's parser counts, however lines end. */
class SourceTextTest {
    @ParameterizedTest
    @ValueSource(strings = {"\n", "\r\n", "\r", "\r\r\n", "\n\r", " \r\n\n\r "})
    void lines_end_as_those_of_xml_do(String end) throws Exception {
        String text = String.join(
                end,
                "<?xml version='1.0'?>",
                "<!-- first",
                "-->",
                "<quay a='1'",
                " b='2'>",
                "\t<berth",
                "/>",
                "</quay>");
        SourceText source = new SourceText("quay.xml", text);
        XMLStreamReader parser = XMLInputFactory.newDefaultFactory().createXMLStreamReader(new StringReader(text));
        int from = 0;
        while (parser.hasNext()) {
            if (parser.next() == XMLStreamConstants.START_ELEMENT) {
                from = text.indexOf('>', text.indexOf("<" + parser.getLocalName(), from)) + 1;
                Place behind = source.at(from);
                assertThat(behind.line()).isEqualTo(parser.getLocation().getLineNumber());
                assertThat(behind.column()).isEqualTo(parser.getLocation().getColumnNumber());
                assertThat(source.at(behind.line(), behind.column())).isEqualTo(behind);
                assertThat(behind.before(1_000)).doesNotContain("\r", "\n").hasSize(behind.column() - 1);
                assertThat(behind.before(2)).isEqualTo(text.substring(from - Math.min(2, behind.column() - 1), from));
                assertThat(behind.behind(1_000)).doesNotContain("\r", "\n");
                assertThat(text.substring(from)).startsWith(behind.behind(3));
            }
        }
    }
}
