package org.protypos.target;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.lang.reflect.InvocationTargetException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageReader;
import org.protypos.testing.Generated;
import org.protypos.testing.Infoset;
import org.protypos.testing.Overlay;
import org.protypos.testing.RandomTypes;

/** What simple types with facets take is what the platform's validator says: as elements, as attributes and as text. */
class RandomTypesTest {
    private static final String START = "<xs:schema xmlns:xs=\"http://www.w3.org/2001/XMLSchema\" xmlns=\"urn:types\""
            + " targetNamespace=\"urn:types\" elementFormDefault=\"qualified\">\n";

    private static String schema(RandomTypes random) {
        StringBuilder schema = new StringBuilder(START);
        for (RandomTypes.Type type : random.types()) {
            schema.append(type.markup())
                    .append("<xs:element name=\"in")
                    .append(type.name())
                    .append("\"><xs:complexType><xs:sequence><xs:element name=\"v\" type=\"")
                    .append(type.name())
                    .append("\" minOccurs=\"0\" maxOccurs=\"2\"/></xs:sequence><xs:attribute name=\"a\" type=\"")
                    .append(type.name())
                    .append("\"/></xs:complexType></xs:element>\n<xs:element name=\"text")
                    .append(type.name())
                    .append("\"><xs:complexType><xs:simpleContent><xs:extension base=\"")
                    .append(type.name())
                    .append("\"><xs:attribute name=\"n\" type=\"xs:int\"/></xs:extension>")
                    .append("</xs:simpleContent></xs:complexType></xs:element>\n");
        }
        return schema.append("</xs:schema>").toString();
    }

    private static boolean isSchema(Path scratch, String types) {
        try {
            Infoset.validator(Files.writeString(scratch, START + types + "</xs:schema>"));
            return true;
        } catch (IllegalArgumentException e) {
            return false;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void textsAreTakenAndToldOfAsTheValidatorDoes(long seed, @TempDir Path folder) throws Exception {
        RandomTypes random = new RandomTypes(seed, 40, types -> isSchema(folder.resolve("scratch.xsd"), types));
        Path schema = Files.writeString(folder.resolve("types.xsd"), schema(random));
        Infoset.Validator oracle = Infoset.validator(schema);
        int valid = 0;
        try (Generated generated = Generated.from(schema, folder.resolve("out"), null)) {
            MessageChecker checker =
                    new MessageChecker(new Vocabulary(generated.contract().schema()));
            Overlay overlay = new Overlay(generated);
            for (RandomTypes.Type type : random.types()) {
                for (String text : type.values()) {
                    for (String message : messages(type.name(), text)) {
                        String complaint = oracle.complaint(message);
                        String about = type.markup() + message + " " + complaint;
                        assertThat(isTaken(checker, message)).as(about).isEqualTo(complaint == null);
                        assertThat(isTaken(generated, message)).as(about).isEqualTo(complaint == null);
                        // A list with a pattern of its own may want its items written in a way that none of them wants.
                        if (complaint == null && !type.isList()) {
                            valid++;
                            String anew = overlay.changedInto(message);
                            assertThat(oracle.complaint(anew)).as(about + anew).isNull();
                        }
                    }
                }
            }
        }
        assertThat(valid).isGreaterThan(300);
    }

    private static List<String> messages(String name, String text) {
        String namespace = " xmlns=\"urn:types\"";
        return List.of(
                "<in" + name + namespace + "><v>" + text + "</v></in" + name + ">",
                "<in" + name + namespace + " a=\"" + text + "\"/>",
                "<text" + name + namespace + ">" + text + "</text" + name + ">");
    }

    private static boolean isTaken(MessageChecker checker, String message) {
        return checker.check(MessageReader.read("message", message.getBytes(StandardCharsets.UTF_8), new Findings()))
                .deviations()
                .isEmpty();
    }

    private static boolean isTaken(Generated generated, String message) throws ReflectiveOperationException {
        try {
            return generated.violations(generated.read(message)).isEmpty();
        } catch (InvocationTargetException e) {
            assertThat(e.getCause().getClass().getSimpleName()).isEqualTo("XmlFormatException");
            return false;
        }
    }
}
