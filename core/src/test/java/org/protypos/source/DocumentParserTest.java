package org.protypos.source;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import javax.xml.stream.XMLStreamException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.SourceText;

/** Documents without declarations are read by a parser of ours; the platform's is the judge of what it makes of them. */
class DocumentParserTest {
    private static final int SPOILT = 400;

    /**
     * What documents are spoiled with: markup, references, white space, names, and what is no character. Letters beyond the first
     * plane are not among it: ours has names as of the fifth edition of the standard, the platform's parser does not.
     */
    private static final List<String> PIECES = List.of(
            "<",
            ">",
            "/>",
            "</",
            "\"",
            "'",
            "&",
            "&amp;",
            "&#10;",
            "&#x85;",
            "&#0;",
            "&lt;",
            "&who;",
            "<!--",
            "-->",
            "--",
            "<![CDATA[",
            "]]>",
            "<?",
            "?>",
            "<?xml version=\"1.0\"?>",
            "xmlns",
            "xmlns:x=\"\"",
            " xmlns=\"\"",
            ":",
            "a:b",
            " x=\"1\"",
            "\r",
            "\r\n",
            "\n",
            "\t",
            " ",
            "\u0001",
            "\u00e9",
            "\u2028",
            "\ufffe",
            "=",
            "<a>",
            "</a>",
            "text",
            "xml:lang=\"de\" ");

    @ParameterizedTest
    @ValueSource(
            strings = {
                "../examples/harbour/contract/desk.wsdl",
                "../examples/harbour/contract/vessels.xsd",
                "../examples/tables/tables.wsdl",
                "src/test/resources/declared/inside.xsd",
                "src/test/resources/declared/table.wsdl",
                "src/main/resources/standards/schemas.xsd"
            })
    void bothParsersMakeTheSameOfADocument(String file) throws IOException {
        String text = Files.readString(Path.of(file));
        String read = ours(text);
        assertThat(read).as("read by ours").isNotNull().isEqualTo(platforms(text));
        Random random = new Random(text.length());
        int accepted = 0;
        int declined = 0;
        for (int i = 0; i < SPOILT; i++) {
            String spoilt = spoilt(text, random);
            String ours = ours(spoilt);
            String platforms = platforms(spoilt);
            if (ours != null) {
                assertThat(ours).as("%s", spoilt).isEqualTo(platforms);
                accepted++;
            } else if (platforms != null) {
                // The platform's is asked then: that costs time and nothing else.
                declined++;
            }
        }
        assertThat(accepted).isBetween(SPOILT / 20, SPOILT * 19 / 20);
        assertThat(declined).isLessThan(SPOILT / 20);
    }

    private static String spoilt(String text, Random random) {
        StringBuilder spoilt = new StringBuilder(text);
        for (int edits = 1 + random.nextInt(2); edits > 0; edits--) {
            int at = random.nextInt(spoilt.length());
            switch (random.nextInt(3)) {
                case 0 -> spoilt.delete(at, Math.min(spoilt.length(), at + 1 + random.nextInt(3)));
                case 1 -> spoilt.insert(at, PIECES.get(random.nextInt(PIECES.size())));
                default -> {
                    int quote = Math.max(spoilt.indexOf("\"", at), 0);
                    spoilt.insert(quote, PIECES.get(random.nextInt(PIECES.size())));
                }
            }
        }
        return spoilt.toString();
    }

    private static String ours(String text) {
        Document document = document(text);
        try {
            boolean read = new DocumentParser((publicId, systemId) -> null, null).readScanned(document);
            return read ? shown(document) : null;
        } catch (XMLStreamException e) {
            return null;
        }
    }

    private static String platforms(String text) {
        Document document = document(text);
        try {
            DocumentParser.read(document, false, (publicId, systemId) -> null);
            return shown(document);
        } catch (XMLStreamException e) {
            return null;
        }
    }

    private static Document document(String text) {
        return new Document(
                URI.create("file:/a.wsdl"),
                "a.wsdl",
                text.getBytes(StandardCharsets.UTF_8),
                new SourceText("a.wsdl", text));
    }

    private static String shown(Document document) {
        StringBuilder all = new StringBuilder().append(document.isBound()).append('\n');
        show(document.root(), all);
        return all.toString();
    }

    private static void show(Element element, StringBuilder all) {
        all.append(element.place().offset())
                .append(' ')
                .append(element.namespace())
                .append(' ')
                .append(element.name());
        element.attributeNames()
                .forEach(name -> all.append(' ').append(name).append('=').append(element.attribute(name)));
        all.append(' ').append(element.attribute("http://www.w3.org/XML/1998/namespace", "lang"));
        for (String prefix : List.of("", "d", "xs", "xml", "x", "wsdl")) {
            all.append(' ').append(element.namespaceOf(prefix));
        }
        // Where text means nothing the platform's parser may give a first piece of it.
        boolean read = element.name().equals("documentation") || Xml.isBinding(element.namespace());
        all.append(" '")
                .append(read ? element.text() : element.text().isEmpty())
                .append("'\n");
        element.children().forEach(child -> show(child, all));
        all.append("-\n");
    }
}
