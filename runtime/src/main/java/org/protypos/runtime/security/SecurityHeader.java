package org.protypos.runtime.security;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.transform.OutputKeys;
import javax.xml.transform.Transformer;
import javax.xml.transform.TransformerException;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.protypos.runtime.parse.DecodedText;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.ErrorHandler;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import org.xml.sax.SAXParseException;

/** An envelope with its security header block (OASIS Web Services Security: SOAP Message Security 1.1, section 5). */
final class SecurityHeader {
    private static final String OASIS = "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-";
    static final String SECEXT = OASIS + "wssecurity-secext-1.0.xsd";
    static final String UTILITY = OASIS + "wssecurity-utility-1.0.xsd";
    static final String USERNAME = OASIS + "username-token-profile-1.0#";
    static final String X509 = OASIS + "x509-token-profile-1.0#X509v3";
    static final String BASE64 = OASIS + "soap-message-security-1.0#Base64Binary";

    /** How long a message is good for. */
    static final Duration LIFE = Duration.ofMinutes(5);

    /** How far the clocks of two machines may differ. */
    private static final Duration SKEW = Duration.ofMinutes(1);

    private static final String DEPTH = "400";

    private static final String ATTRIBUTES = "10000";

    private final Document document;
    private final Element envelope;

    private SecurityHeader(Document document) {
        this.document = document;
        this.envelope = document.getDocumentElement();
    }

    /**
     * Takes an envelope apart.
     *
     * @param charset the encoding that the transport names, or null to take it from the message itself
     * @throws SecurityException when it is no envelope
     */
    static SecurityHeader of(byte[] message, String charset) {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newDefaultNSInstance();
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setAttribute("jdk.xml.maxElementDepth", DEPTH);
            // Newer platforms take 200 of them, unless somebody says otherwise.
            factory.setAttribute("jdk.xml.elementAttributeLimit", ATTRIBUTES);
            factory.setCoalescing(true);
            DocumentBuilder builder = factory.newDocumentBuilder();
            builder.setErrorHandler(new Strict());
            InputSource source = new InputSource(new ByteArrayInputStream(message));
            source.setEncoding(DecodedText.encoding(message, charset));
            return new SecurityHeader(builder.parse(source));
        } catch (SAXException | IOException e) {
            throw new SecurityException(
                    "the message is not well-formed, is nested too deeply or has a document type declaration", e);
        } catch (ParserConfigurationException e) {
            throw new IllegalStateException("the platform's own parser can do this", e);
        }
    }

    /** The platform's handler would print what is wrong. */
    private static final class Strict implements ErrorHandler {
        @Override
        public void warning(SAXParseException e) {
            // A warning changes nothing about what was read.
        }

        @Override
        public void error(SAXParseException e) throws SAXException {
            throw e;
        }

        @Override
        public void fatalError(SAXParseException e) throws SAXException {
            throw e;
        }
    }

    /** The bytes in UTF-8. */
    byte[] write() {
        try {
            Transformer copy = TransformerFactory.newDefaultInstance().newTransformer();
            copy.setOutputProperty(OutputKeys.OMIT_XML_DECLARATION, "yes");
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            copy.transform(new DOMSource(document), new StreamResult(bytes));
            return bytes.toByteArray();
        } catch (TransformerException e) {
            throw new IllegalStateException("a tree in memory can be written", e);
        }
    }

    /** The body of the envelope: the one that its place shows, whatever else is called so. */
    Element body() {
        Element body = child(envelope, envelope.getNamespaceURI(), "Body");
        if (body == null) {
            throw new SecurityException("the message has no body");
        }
        return body;
    }

    /** The header blocks of a name. */
    List<Element> blocks(String namespace, String name) {
        Element header = child(envelope, envelope.getNamespaceURI(), "Header");
        return header == null ? List.of() : children(header, namespace, name);
    }

    /** The security header block for the receiver, or null when there is none. */
    Element security() {
        for (Element block : blocks(SECEXT, "Security")) {
            if (attribute(block, envelope.getNamespaceURI(), "actor").isEmpty()
                    && attribute(block, envelope.getNamespaceURI(), "role").isEmpty()) {
                return block;
            }
        }
        return null;
    }

    /** The security header block, made if there is none. */
    Element madeSecurity() {
        Element security = security();
        if (security == null) {
            String prefix = envelope.getPrefix() == null ? "" : envelope.getPrefix() + ":";
            Element header = child(envelope, envelope.getNamespaceURI(), "Header");
            if (header == null) {
                header = document.createElementNS(envelope.getNamespaceURI(), prefix + "Header");
                envelope.insertBefore(header, body());
            }
            security = document.createElementNS(SECEXT, "wsse:Security");
            header.appendChild(security);
        }
        declare(security, "wsse", SECEXT);
        declare(security, "wsu", UTILITY);
        return security;
    }

    private static void declare(Element on, String prefix, String namespace) {
        on.setAttributeNS(XMLConstants.XMLNS_ATTRIBUTE_NS_URI, "xmlns:" + prefix, namespace);
    }

    /** Adds an element to another, before what is in it already or after. */
    Element add(Element to, String namespace, String name, String text, boolean first) {
        Element element = document.createElementNS(namespace, (namespace.equals(SECEXT) ? "wsse:" : "wsu:") + name);
        if (text != null) {
            element.setTextContent(text);
        }
        to.insertBefore(element, first ? to.getFirstChild() : null);
        return element;
    }

    /** Adds the time at which the message was made and until which it is good. */
    Element addTimestamp(Element security, Instant now) {
        Element stamp = add(security, UTILITY, "Timestamp", null, true);
        add(stamp, UTILITY, "Created", now.toString(), false);
        add(stamp, UTILITY, "Expires", now.plus(LIFE).toString(), false);
        return stamp;
    }

    /** Makes sure that the message is of now, as far as it says so. */
    static void checkTime(Element security) {
        Element stamp = child(security, UTILITY, "Timestamp");
        if (stamp != null) {
            Element created = child(stamp, UTILITY, "Created");
            Element expires = child(stamp, UTILITY, "Expires");
            if (created != null && instant(created).isAfter(Instant.now().plus(SKEW))) {
                throw new SecurityException("the message is from the future");
            }
            if (expires != null && instant(expires).isBefore(Instant.now().minus(SKEW))) {
                throw new SecurityException("the message has expired");
            }
        }
    }

    /** When a message with a time stamp is refused for its age. */
    static Instant end(Element stamp) {
        Element expires = child(stamp, UTILITY, "Expires");
        return expires == null ? Instant.MAX : instant(expires).plus(SKEW);
    }

    /** Makes sure that something was made so short a time ago that nobody can have kept it for later. */
    static void checkFresh(Instant created) {
        Instant now = Instant.now();
        if (created.isBefore(now.minus(LIFE)) || created.isAfter(now.plus(SKEW))) {
            throw new SecurityException("the message is not of now");
        }
    }

    static Instant instant(Element element) {
        String text = element.getTextContent().strip();
        try {
            return OffsetDateTime.parse(text).toInstant();
        } catch (DateTimeException e) {
            throw new SecurityException("a time in the security header cannot be read", e);
        }
    }

    static List<Element> children(Element of, String namespace, String name) {
        List<Element> found = new ArrayList<>();
        for (Node node = of.getFirstChild(); node != null; node = node.getNextSibling()) {
            if (node instanceof Element element
                    && name.equals(element.getLocalName())
                    && namespace.equals(Objects.requireNonNullElse(element.getNamespaceURI(), ""))) {
                found.add(element);
            }
        }
        return found;
    }

    /** The only child of a name, or null when there is none. */
    static Element child(Element of, String namespace, String name) {
        List<Element> found = children(of, namespace, name);
        if (found.size() > 1) {
            throw new SecurityException("<" + name + "> is there more than once");
        }
        return found.isEmpty() ? null : found.get(0);
    }

    /** The reason in a fault, or null when the body is none. */
    String faultReason() {
        Element fault = child(body(), envelope.getNamespaceURI(), "Fault");
        if (fault == null) {
            return null;
        }
        Node text =
                fault.getElementsByTagNameNS(envelope.getNamespaceURI(), "Text").item(0);
        Element plain = child(fault, "", "faultstring");
        return text != null ? text.getTextContent() : plain != null ? plain.getTextContent() : "without a reason";
    }

    static String attribute(Element of, String namespace, String name) {
        return of.getAttributeNS(namespace, name);
    }

    /** All elements by the identifier that they carry; one that is there twice could pass off one for the other. */
    Map<String, Element> identified() {
        Map<String, Element> found = new HashMap<>();
        Node node = envelope;
        while (node != null) {
            if (node instanceof Element element) {
                Attr id = element.getAttributeNodeNS(UTILITY, "Id");
                if (id != null) {
                    if (found.put(id.getValue(), element) != null) {
                        throw new SecurityException("an identifier is there twice");
                    }
                    element.setIdAttributeNode(id, true);
                }
            }
            Node next = node.getFirstChild();
            while (next == null && node != null) {
                next = node.getNextSibling();
                node = next == null ? node.getParentNode() : node;
            }
            node = next;
        }
        return found;
    }
}
