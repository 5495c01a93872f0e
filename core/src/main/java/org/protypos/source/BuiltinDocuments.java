package org.protypos.source;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.SourceText;

/** Documents of the standards that every contract may refer to and that need not be fetched: their content is known. */
public final class BuiltinDocuments {
    private static final Set<String> KNOWN = Set.of(
            "http://www.w3.org/2001/xml.xsd",
            "https://www.w3.org/2001/xml.xsd",
            "http://www.w3.org/2001/03/xml.xsd",
            "http://www.w3.org/2004/10/xml.xsd",
            "http://www.w3.org/2005/08/xml.xsd",
            "http://www.w3.org/2009/01/xml.xsd",
            "http://www.w3.org/XML/1998/namespace",
            Xml.SOAP_ENCODING);

    private BuiltinDocuments() {}

    static boolean has(URI location) {
        return KNOWN.contains(location.toString());
    }

    /** The schema of the SOAP encoding, which contracts often use without importing it. */
    public static Document soapEncoding() {
        return standard(Xml.SOAP_ENCODING, "soap-encoding.xsd");
    }

    /** Of the schema for schemas the element that holds a schema, to which contracts refer that import no document of it. */
    public static Document schemas() {
        return standard(Xml.XSD, "schemas.xsd");
    }

    private static Document standard(String namespace, String file) {
        try (InputStream stream = BuiltinDocuments.class.getResourceAsStream("/standards/" + file)) {
            byte[] bytes = stream.readAllBytes();
            SourceText text = new SourceText(namespace, new String(bytes, StandardCharsets.UTF_8));
            Document document = new Document(URI.create(namespace), namespace, bytes, text);
            new DocumentParser((publicId, systemId) -> null, new Findings()).parse(document);
            return document;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
