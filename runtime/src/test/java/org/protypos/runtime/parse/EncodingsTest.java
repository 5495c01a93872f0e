package org.protypos.runtime.parse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Bytes become characters as XML 1.0, section 4.3.3 and appendix F say, wherever they are cut. */
class EncodingsTest {
    private static final String TEXT = "Größe \u4e2d\ud83d\ude00\u00e9";

    private static String read(byte[] document, String named) throws XMLStreamException {
        return read(new ByteArrayInputStream(document), named);
    }

    private static String read(InputStream in, String named) throws XMLStreamException {
        MessageScanner scanner = new MessageScanner();
        scanner.begin(in, named);
        StringBuilder text = new StringBuilder();
        for (int event = scanner.next(); event != XMLStreamConstants.END_DOCUMENT; event = scanner.next()) {
            if (event == XMLStreamConstants.CHARACTERS) {
                text.append(scanner.getText());
            }
        }
        return text.toString();
    }

    private static byte[] bytes(String document, String charset) {
        return document.getBytes(Charset.forName(charset));
    }

    @ParameterizedTest
    @CsvSource({
        "UTF-8, ''",
        "UTF-8, UTF-8",
        "UTF-16, UTF-16",
        "UTF-16BE, UTF-16",
        "UTF-16LE, UTF-16",
        "UTF-16, ''",
    })
    void documentsShowTheirEncoding(String charset, String declared) throws XMLStreamException {
        String declaration = declared.isEmpty() ? "" : "<?xml version='1.0' encoding='" + declared + "'?>";
        assertThat(read(bytes(declaration + "<a>" + TEXT + "</a>", charset), null))
                .isEqualTo(TEXT);
    }

    @ParameterizedTest
    @CsvSource({"ISO-8859-1, Größe é", "windows-1252, 12 €", "US-ASCII, quay", "ISO-8859-15, €", "Shift_JIS, 港"})
    void documentsNameTheirEncoding(String charset, String text) throws XMLStreamException {
        byte[] document = bytes("<?xml version=\"1.0\" encoding=\"" + charset + "\"?><a>" + text + "</a>", charset);
        assertThat(read(document, null)).isEqualTo(text);
    }

    /** RFC 7303, section 3: what the transport says goes before what the document says. */
    @Test
    void theTransportIsBelievedBeforeTheDocument() throws XMLStreamException {
        byte[] document = bytes("<?xml version='1.0' encoding='UTF-8'?><a>é</a>", "ISO-8859-1");
        assertThat(read(document, "ISO-8859-1")).isEqualTo("é");
        assertThatThrownBy(() -> read(document, null)).isInstanceOf(XMLStreamException.class);
    }

    @Test
    void aByteOrderMarkIsNoText() throws XMLStreamException {
        assertThat(read(bytes("\ufeff<a>x</a>", "UTF-8"), null)).isEqualTo("x");
        assertThat(read(bytes("\ufeff<a>x</a>", "UTF-16LE"), null)).isEqualTo("x");
        assertThat(read(bytes("<a>\ufeffx</a>", "UTF-8"), null)).isEqualTo("\ufeffx");
    }

    /** Overlong forms, surrogates, cut sequences and bytes that begin nothing (RFC 3629, section 3). */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "C0 AF",
                "C1 81",
                "E0 80 AF",
                "ED A0 80",
                "F0 80 80 AF",
                "F4 90 80 80",
                "F5 80 80 80",
                "80",
                "E4 B8",
                "FF"
            })
    void bytesThatAreNoUtf8AreRefused(String hex) {
        byte[] document = bytes("<a>xxxxxxxx</a>", "US-ASCII");
        String[] wrong = hex.split(" ");
        for (int i = 0; i < wrong.length; i++) {
            document[5 + i] = (byte) Integer.parseInt(wrong[i], 16);
        }
        assertThatThrownBy(() -> read(document, null)).isInstanceOf(XMLStreamException.class);
    }

    /** Characters of two places and of several bytes at every offset from the end of a buffer. */
    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "UTF-16LE"})
    void textIsTheSameWhereverItIsCut(String charset) throws XMLStreamException {
        for (int before = 4080; before < 4112; before++) {
            String text = "x".repeat(before) + TEXT + "\r\ny]]&amp;" + TEXT;
            byte[] document = bytes((charset.equals("UTF-8") ? "" : "\ufeff") + "<a>" + text + "</a>", charset);
            String expected = text.replace("\r\n", "\n").replace("&amp;", "&");
            assertThat(read(document, null)).isEqualTo(expected);
            int step = 1 + before % 7;
            InputStream slow = new ByteArrayInputStream(document) {
                @Override
                public synchronized int read(byte[] to, int offset, int length) {
                    return super.read(to, offset, Math.min(length, step));
                }
            };
            assertThat(read(slow, null)).isEqualTo(expected);
        }
    }

    @Test
    void encodingsThatNobodyKnowsAreNamed() {
        byte[] document = bytes("<?xml version='1.0' encoding='x-nobody'?><a/>", "UTF-8");
        assertThatThrownBy(() -> read(document, null))
                .isInstanceOf(XMLStreamException.class)
                .hasMessageContaining("x-nobody");
    }

    /** A scanner is used for one message after the other, and what one leaves behind does not reach the next. */
    @Test
    void aScannerForgetsTheMessageBefore() throws XMLStreamException {
        MessageScanner scanner = new MessageScanner();
        for (String document : List.of(
                "<p:a xmlns:p='urn:1' xmlns='urn:2'><b p:c='1'/></p:a>",
                "<a><b/></a>",
                "<p:a xmlns:p='urn:3'/>",
                "<a " + "x".repeat(9_000) + "='1'/>")) {
            scanner.begin(new ByteArrayInputStream(document.getBytes(StandardCharsets.UTF_8)), null);
            scanner.next();
            assertThat(scanner.getNamespaceURI("q")).isNull();
            assertThat(scanner.getNamespaceURI())
                    .isEqualTo(document.startsWith("<p:a") ? document.contains("urn:1") ? "urn:1" : "urn:3" : "");
            while (scanner.hasNext()) {
                scanner.next();
            }
            scanner.close();
        }
        scanner.begin(new ByteArrayInputStream("<p:a/>".getBytes(StandardCharsets.UTF_8)), null);
        assertThatThrownBy(scanner::next).hasMessageContaining("the prefix p is not declared");
    }
}
