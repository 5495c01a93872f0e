package org.protypos.junit;

import java.io.StringReader;
import java.io.StringWriter;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.transform.OutputKeys;
import javax.xml.transform.Transformer;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.protypos.exchange.standin.StandIn;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;

/** A request that came while a test ran, with what was answered. */
public final class Received {
    private final StandIn.Seen seen;
    private final TypedMessages types;

    Received(StandIn.Seen seen, TypedMessages types) {
        this.seen = seen;
        this.types = types;
    }

    /** The operation; null when the contract has none for what came. */
    public String operation() {
        return seen.operation();
    }

    /** The port of the contract that it came to. */
    public String port() {
        return seen.port();
    }

    /** The whole message, as it came. */
    public String xml() {
        return seen.request();
    }

    /** The whole answer, as it went; empty when there is none. */
    public String answer() {
        return seen.answer();
    }

    /** Where it is not what the contract says. */
    public List<String> deviations() {
        return seen.deviations().stream()
                .map(deviation -> deviation.path() + ": " + deviation.came())
                .toList();
    }

    /** The element in the body as a value of its generated class. */
    public <T> T as(Class<T> type) {
        if (types == null) {
            throw new IllegalStateException(
                    "values of generated classes need their registry: PlayedContract.of(...).types(Documents.INSTANCE)");
        }
        Object value = types.value(body());
        if (!type.isInstance(value)) {
            throw new AssertionError(operation() + " was called with a "
                    + value.getClass().getSimpleName() + ", not a " + type.getSimpleName());
        }
        return type.cast(value);
    }

    /** The element in the body as a document of its own, with the prefixes that it had. */
    private String body() {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            Document document = factory.newDocumentBuilder().parse(new InputSource(new StringReader(xml())));
            Element body = document.getDocumentElement();
            if (body.getLocalName().equals("Envelope")) {
                body = child(child(body, "Body"), null);
            }
            for (Node at = body.getParentNode(); at instanceof Element around; at = at.getParentNode()) {
                for (int i = 0; i < around.getAttributes().getLength(); i++) {
                    Attr attribute = (Attr) around.getAttributes().item(i);
                    if (XMLConstants.XMLNS_ATTRIBUTE_NS_URI.equals(attribute.getNamespaceURI())
                            && !body.hasAttribute(attribute.getName())) {
                        body.setAttributeNS(
                                XMLConstants.XMLNS_ATTRIBUTE_NS_URI, attribute.getName(), attribute.getValue());
                    }
                }
            }
            Transformer transformer = TransformerFactory.newInstance().newTransformer();
            transformer.setOutputProperty(OutputKeys.OMIT_XML_DECLARATION, "yes");
            StringWriter text = new StringWriter();
            transformer.transform(new DOMSource(body), new StreamResult(text));
            return text.toString();
        } catch (javax.xml.parsers.ParserConfigurationException
                | org.xml.sax.SAXException
                | java.io.IOException
                | javax.xml.transform.TransformerException e) {
            throw new IllegalStateException("what came is no XML: " + e.getMessage(), e);
        }
    }

    private static Element child(Element parent, String name) {
        for (Node at = parent.getFirstChild(); at != null; at = at.getNextSibling()) {
            if (at instanceof Element element && (name == null || name.equals(element.getLocalName()))) {
                return element;
            }
        }
        throw new IllegalStateException("there is nothing in the " + parent.getLocalName());
    }
}
