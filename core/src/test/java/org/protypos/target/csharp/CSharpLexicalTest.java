package org.protypos.target.csharp;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.protypos.generator.GeneratedCode;
import org.protypos.testing.CSharp;
import org.protypos.testing.Infoset;
import org.xml.sax.SAXException;

/** The lexical forms of the built-in types in C#: the values of the table that Java is tried with, changed at random. */
class CSharpLexicalTest {
    private static final Path TABLE = Path.of("../runtime/src/test/resources/lexical.csv");
    private static final String ALPHABET = "0123456789+-.:TZPDHMSYEe=aF \u0662\uff11\u00a0\u2212";

    /** A type of the platform here, and a big integer with a facet in Java. */
    private static final String UNSIGNED_LONG = "unsignedLong, 18446744073709551615";

    private static final int ROUNDS = 60;

    @TempDir
    private Path folder;

    private static boolean isValid(Schema schema, String message) throws IOException {
        try {
            schema.newValidator().validate(new StreamSource(new StringReader(message)));
            return true;
        } catch (SAXException | ArrayIndexOutOfBoundsException e) {
            // The validator looks letters beyond ASCII up in tables that end there.
            return false;
        }
    }

    private static String changed(String seed, Random random) {
        StringBuilder text = new StringBuilder(seed);
        for (int change = random.nextInt(4); change > 0; change--) {
            int at = random.nextInt(text.length());
            char c = ALPHABET.charAt(random.nextInt(ALPHABET.length()));
            switch (random.nextInt(3)) {
                case 0 -> text.setCharAt(at, c);
                case 1 -> text.insert(at, c);
                default -> text.deleteCharAt(text.length() > 1 ? at : 0).append(text.isEmpty() ? "1" : "");
            }
        }
        return text.toString();
    }

    @Test
    void agreesWithTheValidatorOnRandomText() throws Exception {
        CSharp.assumed();
        StringBuilder elements = new StringBuilder();
        List<String[]> rows = new ArrayList<>();
        List<String> table = new ArrayList<>(Files.readAllLines(TABLE));
        table.add(UNSIGNED_LONG);
        for (String row : table) {
            String[] parts = row.split(", ", 2);
            rows.add(parts);
            elements.append("<xs:element name='v-%1$s' type='xs:%1$s'/>".formatted(parts[0]));
        }
        String text = "<xs:schema xmlns:xs='http://www.w3.org/2001/XMLSchema'>" + elements + "</xs:schema>";
        Schema schema = SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI)
                .newSchema(new StreamSource(new StringReader(text)));
        GeneratedCode code = CSharp.library(Files.writeString(folder.resolve("values.xsd"), text), null, folder);
        Path messages = Files.createDirectory(folder.resolve("messages"));
        Random random = new Random(20270509);
        for (String[] row : rows) {
            for (int round = 0; round < ROUNDS; round++) {
                Files.writeString(
                        messages.resolve(row[0] + round + ".xml"),
                        "<v-%1$s>%2$s</v-%1$s>".formatted(row[0], changed(row[1], random)));
            }
        }
        CSharp.roundTrip(code, folder, messages);
        for (String[] row : rows) {
            for (int round = 0; round < ROUNDS; round++) {
                Path message = messages.resolve(row[0] + round + ".xml");
                String content = Files.readString(message);
                Path copy = messages.resolve(row[0] + round + ".copy");
                assertThat(Files.exists(copy)).as(content).isEqualTo(isValid(schema, content));
                if (Files.exists(copy)) {
                    assertThat(Infoset.of(Files.readString(copy))).isEqualTo(Infoset.of(content));
                }
            }
        }
    }
}
