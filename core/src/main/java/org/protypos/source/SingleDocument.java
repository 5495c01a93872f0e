package org.protypos.source;

import java.io.IOException;
import java.nio.charset.UnsupportedCharsetException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;

/** Reads an XML document that belongs to a contract but is none of its documents. */
public final class SingleDocument {
    private SingleDocument() {}

    /**
     * Reads a document in a file.
     *
     * @param findings is told why it cannot be read, or is not well-formed
     * @return the document, without a root element when it is not well-formed; null when it cannot be read
     */
    public static Document read(Path file, Findings findings) {
        try {
            byte[] bytes = Files.readAllBytes(file);
            SourceText text = new SourceText(file.toString().replace('\\', '/'), Decoder.decode(bytes));
            Document document = new Document(file.toAbsolutePath().normalize().toUri(), text.name(), bytes, text);
            new DocumentParser((publicId, systemId) -> null, findings).parse(document);
            return document;
        } catch (IOException | UnsupportedCharsetException e) {
            findings.error(
                    "rules-unreadable", null, "the rules in " + file + " cannot be read", "give the path of a file");
            return null;
        }
    }
}
