package org.protypos.testing;

import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.MissingResourceException;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.transform.Source;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.w3c.dom.Element;
import org.w3c.dom.NamedNodeMap;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;

/** Independent judges of messages: the platform's validator, and a plain text of what a message says. */
public final class Infoset {
    private Infoset() {}

    /** The infoset as text: names expanded, attributes sorted, prefixes and white space between elements left out. */
    public static String of(String xml) {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            StringBuilder text = new StringBuilder();
            append(
                    factory.newDocumentBuilder()
                            .parse(new InputSource(new StringReader(xml)))
                            .getDocumentElement(),
                    text,
                    "");
            return text.toString();
        } catch (ParserConfigurationException | SAXException | IOException e) {
            throw new IllegalArgumentException(xml, e);
        }
    }

    private static void append(Element element, StringBuilder text, String indent) {
        text.append(indent)
                .append('{')
                .append(element.getNamespaceURI())
                .append('}')
                .append(element.getLocalName());
        Map<String, String> attributes = new TreeMap<>();
        NamedNodeMap map = element.getAttributes();
        for (int i = 0; i < map.getLength(); i++) {
            Node attribute = map.item(i);
            if (!XMLConstants.XMLNS_ATTRIBUTE_NS_URI.equals(attribute.getNamespaceURI())) {
                String name = "{" + attribute.getNamespaceURI() + "}" + attribute.getLocalName();
                attributes.put(name, value(element, attribute.getLocalName(), attribute.getNodeValue()));
            }
        }
        text.append(attributes.isEmpty() ? "" : " " + attributes).append('\n');
        boolean mixed = hasText(element) || element.getElementsByTagName("*").getLength() == 0;
        StringBuilder run = new StringBuilder();
        for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
            if (child instanceof Element inner) {
                appendRun(element, run, text, indent, mixed);
                append(inner, text, indent + "  ");
            } else if (child.getNodeType() == Node.TEXT_NODE || child.getNodeType() == Node.CDATA_SECTION_NODE) {
                run.append(child.getNodeValue());
            }
        }
        appendRun(element, run, text, indent, mixed);
    }

    private static void appendRun(
            Element element, StringBuilder run, StringBuilder text, String indent, boolean mixed) {
        if (!run.isEmpty() && mixed) {
            String value = value(element, element.getLocalName(), run.toString());
            text.append(indent).append("  \"").append(value).append("\"\n");
        }
        run.setLength(0);
    }

    private static boolean hasText(Element element) {
        for (Node child = element.getFirstChild(); child != null; child = child.getNextSibling()) {
            if (!(child instanceof Element)
                    && child.getNodeValue() != null
                    && !child.getNodeValue().isBlank()) {
                return true;
            }
        }
        return false;
    }

    /** Qualified names in values mean the same under any prefix; test data calls what holds one type, QName, p or names. */
    private static String value(Element element, String holder, String value) {
        boolean names = Set.of("type", "QName", "p", "names").contains(holder);
        StringBuilder expanded = new StringBuilder();
        for (String token : value.split("(?<=\\s)|(?=\\s)")) {
            int colon = token.indexOf(':');
            String namespace = (names || colon > 0) && !token.isBlank()
                    ? element.lookupNamespaceURI(colon < 0 ? null : token.substring(0, colon))
                    : null;
            expanded.append(namespace == null ? token : "{" + namespace + "}" + token.substring(colon + 1));
        }
        return expanded.toString();
    }

    /** The platform's validator for one schema. */
    public interface Validator {
        /** What it says about a message: null when that is valid. */
        String complaint(String xml) throws IOException;
    }

    /** The platform's validator for a schema, or for several of different namespaces. */
    public static Validator validator(Path... schemas) {
        try {
            SchemaFactory factory = SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI);
            // Newer platforms take 200 attributes only, unless somebody says otherwise.
            factory.setProperty("jdk.xml.elementAttributeLimit", "10000");
            Schema compiled = factory.newSchema(Stream.of(schemas)
                    .map(schema -> new StreamSource(schema.toFile()))
                    .toArray(Source[]::new));
            return xml -> {
                try {
                    compiled.newValidator().validate(new StreamSource(new StringReader(xml)));
                    return null;
                } catch (SAXException e) {
                    return e.getMessage();
                } catch (MissingResourceException e) {
                    // The platform has lost the text of some complaints, not the complaints.
                    return e.getKey();
                }
            };
        } catch (SAXException e) {
            throw new IllegalArgumentException(Arrays.toString(schemas), e);
        }
    }

    /** What the platform's validator says about a message: null when it is valid. */
    public static String complaint(Path schema, String xml) throws IOException {
        return validator(schema).complaint(xml);
    }
}
