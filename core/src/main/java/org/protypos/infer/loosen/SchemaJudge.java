package org.protypos.infer.loosen;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import javax.xml.XMLConstants;
import javax.xml.transform.Source;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import org.w3c.dom.bootstrap.DOMImplementationRegistry;
import org.w3c.dom.ls.DOMImplementationLS;
import org.w3c.dom.ls.LSInput;
import org.xml.sax.SAXException;

/** Has the platform judge schemas that lie in files, with nothing fetched from elsewhere. */
final class SchemaJudge {
    /** That a document type is described elsewhere too; what the document itself says of it stays. */
    private static final Pattern EXTERNAL = Pattern.compile(
            "(<!DOCTYPE\\s+[^\\s\\[>]+)\\s+(?:PUBLIC\\s+(?:\"[^\"]*\"|'[^']*')|SYSTEM)\\s+(?:\"[^\"]*\"|'[^']*')");

    private SchemaJudge() {}

    /** What is wrong with them, or null. */
    static String complaint(List<Path> schemas) {
        try {
            SchemaFactory factory = SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI);
            factory.setProperty(XMLConstants.ACCESS_EXTERNAL_DTD, "");
            factory.setProperty(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "file");
            DOMImplementationLS inputs = (DOMImplementationLS)
                    DOMImplementationRegistry.newInstance().getDOMImplementation("LS");
            factory.setResourceResolver((type, namespace, publicId, systemId, base) -> input(inputs, systemId, base));
            List<Source> sources = new ArrayList<>();
            for (Path schema : schemas) {
                sources.add(new StreamSource(alone(schema), schema.toUri().toString()));
            }
            factory.newSchema(sources.toArray(Source[]::new));
            return null;
        } catch (SAXException | IOException | UncheckedIOException e) {
            return e.getMessage();
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("the platform reads documents", e);
        }
    }

    /** A schema beside another; anything else is left to the platform, which refuses it. */
    private static LSInput input(DOMImplementationLS inputs, String systemId, String base) {
        if (systemId == null || base == null) {
            return null;
        }
        try {
            URI location = URI.create(base).resolve(systemId);
            Path file = "file".equals(location.getScheme()) ? Path.of(location) : null;
            if (file == null || !Files.isRegularFile(file)) {
                return null;
            }
            LSInput input = inputs.createLSInput();
            input.setByteStream(alone(file));
            input.setSystemId(location.toString());
            return input;
        } catch (IllegalArgumentException e) {
            return null;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A document without what is elsewhere. Its declarations are of letters that most encodings write alike. */
    private static InputStream alone(Path file) throws IOException {
        String text = new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1);
        return new ByteArrayInputStream(
                EXTERNAL.matcher(text).replaceFirst("$1").getBytes(StandardCharsets.ISO_8859_1));
    }
}
