package org.protypos.infer.loosen;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.protypos.authoring.DocumentEdit;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** What is said otherwise in the texts of schemas, each thing once, and the schemas that are new. */
final class SchemaEdits {
    private final Map<Document, DocumentEdit> edits = new LinkedHashMap<>();
    private final Map<Path, String> created = new LinkedHashMap<>();
    private final Set<String> done = new HashSet<>();

    /** Whether something has not been done yet; from now on it has. */
    boolean once(Element element, String what) {
        return done.add(element.place() + " " + what);
    }

    DocumentEdit of(Element element) {
        return edits.computeIfAbsent(element.document(), DocumentEdit::new);
    }

    /** Whether nothing has been said otherwise in the document of an element. */
    boolean leave(Element element) {
        return !edits.containsKey(element.document());
    }

    /** Gives an attribute a value, once. */
    boolean set(Element element, String attribute, String value) {
        if (element == null) {
            return false;
        }
        if (once(element, attribute)) {
            of(element).set(element, attribute, value);
        }
        return true;
    }

    void create(Path file, String text) {
        created.put(file, text);
    }

    boolean isCreated(Path file) {
        return created.containsKey(file) || Files.exists(file);
    }

    boolean isEmpty() {
        return edits.isEmpty() && created.isEmpty();
    }

    /** Writes the schemas as they are now. */
    void write(Findings findings) throws IOException {
        for (Map.Entry<Document, DocumentEdit> edit : edits.entrySet()) {
            byte[] bytes = edit.getValue().bytes();
            if (bytes == null) {
                findings.error(
                        "encoding",
                        null,
                        edit.getKey().name() + " is in an encoding that cannot say what is needed",
                        "write it in UTF-8 first");
                return;
            }
            Files.write(Path.of(edit.getKey().location()), bytes);
        }
        for (Map.Entry<Path, String> file : created.entrySet()) {
            Files.writeString(file.getKey(), file.getValue());
        }
    }

    /** A name of XML Schema as the document writes it. */
    static String tag(Element around, String local) {
        String prefix = around.prefixOf(Xml.XSD);
        return prefix == null || prefix.isEmpty() ? local : prefix + ":" + local;
    }
}
