package org.protypos.message;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.runtime.parse.MessageScanner;
import org.protypos.testing.RandomContract;

/** Our scanner against the platform's parser: the same documents are sound, and say the same. */
class ScannerTest {
    private static final Pattern ODD_COLON = Pattern.compile("[\\s</'\"]:|:[\\s=/>:0-9.'\"<?&-]");

    private static final List<String> SEEDS = List.of(
            "<a/>",
            "<a b='1' c=\"2\">text</a>",
            "<?xml version='1.0' encoding='UTF-8' standalone='yes'?>\n<!-- c --><?p i?>\n<a>\r\n<b/>\r</a>\n<!-- e -->\n",
            "<p:a xmlns:p='urn:p' p:b=' x\ty\nz\r\nw '><p:c xmlns:p='urn:q' xmlns='urn:d'><d/><e xmlns=''/></p:c></p:a>",
            "<a>&lt;&gt;&amp;&apos;&quot;&#65;&#x42;&#x1F600;&#13;&#10;</a>",
            "<a>x<![CDATA[<y>&amp;]]]]><![CDATA[>]]>z</a>",
            "<a b='&lt;&#9;&#10;&#13; &amp;'>  <!-- - --> <?pi?> ]] > </a>",
            "<\u00e9l\u00e8ve \u4e2d='\u00fc\ud83d\ude00'>\u00e4\ud83d\ude00\u2028</\u00e9l\u00e8ve>",
            "<a xml:lang='en' xmlns:xml='http://www.w3.org/XML/1998/namespace' xml:space='preserve'> </a>",
            "<a xmlns:p='urn:1' xmlns:q='urn:1' p:x='1' q:y='2' x='3'><b p:x='&#38;'/></a>",
            "<_a-b.c1 d:e=''  xmlns:d = 'x' f\n=\n'g'\n></_a-b.c1\n>");

    /** What a document says: events with names, attributes and text, or "broken". */
    private static String said(XMLStreamReader reader) {
        StringBuilder said = new StringBuilder();
        StringBuilder text = new StringBuilder();
        try {
            while (reader.hasNext()) {
                int event = reader.next();
                if (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA) {
                    text.append(reader.getText());
                    assertThat(reader.isWhiteSpace())
                            .isEqualTo(reader.getText().chars().allMatch(c -> " \t\r\n".indexOf(c) >= 0));
                    continue;
                }
                if (event == XMLStreamConstants.DTD || event == XMLStreamConstants.ENTITY_REFERENCE) {
                    return "broken";
                }
                if (event != XMLStreamConstants.START_ELEMENT && event != XMLStreamConstants.END_ELEMENT) {
                    continue;
                }
                said.append('[').append(text).append(']');
                text.setLength(0);
                if (event == XMLStreamConstants.START_ELEMENT) {
                    said.append('<').append(name(reader.getNamespaceURI(), reader.getLocalName()));
                    TreeSet<String> all = new TreeSet<>();
                    for (int i = 0; i < reader.getAttributeCount(); i++) {
                        all.add(" " + name(reader.getAttributeNamespace(i), reader.getAttributeLocalName(i)) + "="
                                + reader.getAttributeValue(i));
                    }
                    for (int i = 0; i < reader.getNamespaceCount(); i++) {
                        String prefix = reader.getNamespacePrefix(i);
                        String namespace = reader.getNamespaceURI(i);
                        all.add(" :" + (prefix == null ? "" : prefix) + "=" + (namespace == null ? "" : namespace));
                    }
                    said.append(String.join("", all));
                    for (String prefix : List.of("p", "q", "xml")) {
                        said.append(' ').append(reader.getNamespaceURI(prefix));
                    }
                }
                said.append('@').append(reader.getLocation().getLineNumber());
            }
        } catch (XMLStreamException e) {
            assertThat(e.getMessage()).isNotBlank();
            return "broken";
        }
        return said.toString();
    }

    private static String name(String namespace, String local) {
        return "{" + (namespace == null ? "" : namespace) + "}" + local;
    }

    private static String platform(byte[] document) {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        // Without a reporter it prints what it meets.
        factory.setXMLReporter((message, kind, about, location) -> {});
        try {
            return said(factory.createXMLStreamReader(new ByteArrayInputStream(document)));
        } catch (XMLStreamException | RuntimeException e) {
            return "broken";
        }
    }

    private static String ours(MessageScanner scanner, InputStream document) {
        try {
            scanner.begin(document, null);
            String said = said(scanner);
            scanner.close();
            return said;
        } catch (XMLStreamException e) {
            return "broken";
        }
    }

    /** Gives a few bytes at a time, so that everything is cut in the middle once. */
    private static InputStream slow(byte[] document, int most) {
        return new ByteArrayInputStream(document) {
            @Override
            public synchronized int read(byte[] to, int offset, int length) {
                return super.read(to, offset, Math.min(length, most));
            }
        };
    }

    private static void compare(MessageScanner scanner, byte[] document, Random random) {
        String wanted = platform(document);
        String text = new String(document, StandardCharsets.UTF_8);
        if (ODD_COLON.matcher(text).find() || text.contains("UTF8")) {
            // The platform takes some names that are none in a document with namespaces, and not each name of an
            // encoding.
            return;
        }
        assertThat(ours(scanner, new ByteArrayInputStream(document))).as(text).isEqualTo(wanted);
        assertThat(ours(new MessageScanner(), slow(document, 1 + random.nextInt(7))))
                .as("in pieces: " + text)
                .isEqualTo(wanted);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void spoiledDocumentsAreSeenAlike(long seed) {
        Random random = new Random(seed);
        MessageScanner scanner = new MessageScanner();
        RandomContract contract = new RandomContract(seed, 20);
        String[] pieces = {
            "<",
            ">",
            "/",
            "=",
            "'",
            "\"",
            "&",
            ";",
            "]]>",
            "<!--",
            "-->",
            "--",
            "<![CDATA[",
            "<?",
            "?>",
            " ",
            "\n",
            "\r",
            "\t",
            "a",
            ":",
            "p:",
            "xmlns",
            "xmlns:p='u'",
            "&#0;",
            "&#x41;",
            "&lt;",
            "<!DOCTYPE a>",
            "\u0001",
            "\uFFFE",
            "1",
            "-",
            ".",
            "<a>",
            "</a>",
            "xml",
            "<?xml version='1.0'?>"
        };
        int sound = 0;
        for (int i = 0; i < 4_000; i++) {
            StringBuilder text =
                    new StringBuilder(i % 40 == 0 ? contract.message() : SEEDS.get(random.nextInt(SEEDS.size())));
            for (int changes = random.nextInt(4); changes > 0; changes--) {
                int at = random.nextInt(text.length() + 1);
                switch (random.nextInt(3)) {
                    case 0 -> text.insert(at, pieces[random.nextInt(pieces.length)]);
                    case 1 -> text.delete(at, Math.min(text.length(), at + 1 + random.nextInt(3)));
                    default -> {
                        int from = random.nextInt(text.length() + 1);
                        text.insert(at, text.substring(Math.min(from, at), Math.max(from, at)));
                    }
                }
                if (text.isEmpty()) {
                    break;
                }
            }
            byte[] document = text.toString().getBytes(StandardCharsets.UTF_8);
            compare(scanner, document, random);
            sound += platform(document).equals("broken") ? 0 : 1;
        }
        assertThat(sound).isBetween(800, 3_500);
    }

    /** Bytes that are no characters, and characters of every length at every place of the buffer. */
    @Test
    void bytesAreDecodedAlike() {
        Random random = new Random(5);
        MessageScanner scanner = new MessageScanner();
        byte[] document = ("<a b='\u00fc\u4e2d\ud83d\ude00'>" + "\u00e9\u20ac\ud83d\ude00x".repeat(20) + "</a>")
                .getBytes(StandardCharsets.UTF_8);
        for (int i = 0; i < 2_000; i++) {
            byte[] spoiled = document.clone();
            spoiled[8 + random.nextInt(spoiled.length - 12)] = (byte) random.nextInt(256);
            compare(scanner, spoiled, random);
        }
        for (int length = 4_080; length < 4_110; length++) {
            String text = "<a b='" + "y".repeat(length) + "\u00fc\ud83d\ude00'>" + "x".repeat(length)
                    + "\r\n\u4e2d&amp;]]</a>";
            compare(scanner, text.getBytes(StandardCharsets.UTF_8), random);
            compare(
                    scanner,
                    ("<a>" + " ".repeat(length - 20) + "<" + "n".repeat(40) + "/></a>")
                            .getBytes(StandardCharsets.UTF_8),
                    random);
        }
    }

    /** Names that are longer than any buffer, with characters of two places where a buffer ends. */
    @Test
    @Timeout(60)
    void longNamesEndWhereTheyEnd() throws XMLStreamException {
        for (int length : new int[] {2_040, 4_088, 8_184}) {
            for (int more = 0; more < 16; more++) {
                String name = "n".repeat(length + more) + "\ud840\udc00" + "m".repeat(length);
                for (Charset encoding : List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16)) {
                    // With a buffer that has not grown yet.
                    MessageScanner scanner = new MessageScanner();
                    scanner.begin(new ByteArrayInputStream(("<" + name + "/>").getBytes(encoding)), null);
                    scanner.next();
                    assertThat(scanner.getLocalName()).isEqualTo(name);
                }
            }
        }
    }

    @ParameterizedTest
    @CsvSource({
        "UTF-8, ''",
        "UTF-8, UTF-8",
        "UTF-16, ''",
        "UTF-16, UTF-16",
        "UTF-16BE, ''",
        "UTF-16LE, UTF-16",
        "ISO-8859-1, ISO-8859-1",
        "windows-1252, windows-1252",
        "IBM037, IBM037",
        "US-ASCII, US-ASCII"
    })
    void encodingsAreFound(String encoding, String declared) throws XMLStreamException {
        String special =
                encoding.startsWith("UTF") ? "\u4e2d\ud83d\ude00" : encoding.equals("US-ASCII") ? "" : "\u00fc";
        String text = "<?xml version=\"1.0\"" + (declared.isEmpty() ? "" : " encoding=\"" + declared + "\"") + "?><a>"
                + special + "</a>";
        byte[] document = text.getBytes(Charset.forName(encoding));
        MessageScanner scanner = new MessageScanner();
        scanner.begin(new ByteArrayInputStream(document), null);
        assertThat(scanner.next()).isEqualTo(XMLStreamConstants.START_ELEMENT);
        if (!special.isEmpty()) {
            scanner.next();
            assertThat(scanner.getText()).isEqualTo(special);
        }
        // What the transport says counts more than what the document says.
        byte[] other = "<?xml version='1.0' encoding='UTF-8'?><a>\u00fc</a>".getBytes(StandardCharsets.ISO_8859_1);
        scanner.begin(new ByteArrayInputStream(other), "ISO-8859-1");
        scanner.next();
        scanner.next();
        assertThat(scanner.getText()).isEqualTo("\u00fc");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<?xml version='1.0' encoding='utf-99'?><a/> | the encoding utf-99 is not known",
                "<?xml version='1.0' encoding='UTF-16'?><a/> | the document says that it is in UTF-16, but it is not",
                "<?xml version='2.0'?><a/>                   | the XML declaration says no version of XML that is known",
                "<a><b></a>                                  | </a> stands where </b> is due",
                "<a>                                         | it ends inside <a>",
                "<a b='1' b='2'/>                            | the attribute b is there twice",
                "<p:a/>                                      | the prefix p is not declared",
                "<a>&b;</a>                                  | the entity b is not declared",
                "<!DOCTYPE a><a/>                            | a message must not have a document type declaration",
                "<a/><b/>                                    | another element follows the root"
            })
    void whatIsWrongIsSaid(String document, String wanted) {
        assertThatThrownBy(() -> {
                    MessageScanner scanner = new MessageScanner();
                    scanner.begin(new ByteArrayInputStream(document.strip().getBytes(StandardCharsets.UTF_8)), null);
                    while (scanner.hasNext()) {
                        scanner.next();
                    }
                })
                .isInstanceOf(XMLStreamException.class)
                .hasMessage(wanted);
    }

    /** Every document that lies about here, contracts among them. */
    @Test
    void wholeDocumentsAreSeenAlike() throws IOException {
        MessageScanner scanner = new MessageScanner();
        Random random = new Random(6);
        List<Path> documents = new ArrayList<>();
        for (String root : Arrays.asList("../examples", "src/test/resources")) {
            try (var files = Files.walk(Path.of(root))) {
                files.filter(file -> file.toString().matches(".*\\.(xml|xsd|wsdl)"))
                        .forEach(documents::add);
            }
        }
        assertThat(documents).hasSizeGreaterThan(20);
        for (Path document : documents) {
            compare(scanner, Files.readAllBytes(document), random);
        }
    }
}
