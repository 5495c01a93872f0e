package org.protypos.source;

import java.io.ByteArrayInputStream;
import java.io.StringReader;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.BiFunction;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.protypos.diagnostic.Findings;
import org.protypos.runtime.parse.MessageScanner;

/**
 * Turns the text of a document into elements with places. A document type declaration is read under tight limits, its
 * external parts only as far as {@code external} has them.
 */
final class DocumentParser {
    private static final int DEPTH_LIMIT = 256;
    /** Begins the platform's complaints about its limits. */
    private static final String PLATFORM_LIMIT = "JAXP0001";

    private static final String[][] DTD_LIMITS = {
        {"jdk.xml.entityExpansionLimit", "2000"},
        {"jdk.xml.totalEntitySizeLimit", "2000000"},
        {"jdk.xml.maxGeneralEntitySizeLimit", "200000"},
        {"jdk.xml.maxParameterEntitySizeLimit", "1000000"},
        {"jdk.xml.entityReplacementLimit", "100000"},
    };

    /** Line ends and characters are others in XML 1.1. */
    private static final Pattern ORDINARY = Pattern.compile("<\\?xml\\s+version\\s*=\\s*[\"']1\\.0[\"']");

    /** Tells where the start tag stands that has just been read. */
    @FunctionalInterface
    private interface Tags {
        int start(String prefix, String name);
    }

    private final BiFunction<String, String, byte[]> external;
    private final Findings findings;
    private final MessageScanner scanner = MessageScanner.quick();

    /**
     * Makes a parser.
     *
     * @param external gives the bytes of an external entity by public and system identifier, or null
     */
    DocumentParser(BiFunction<String, String, byte[]> external, Findings findings) {
        this.external = external;
        this.findings = findings;
    }

    /** Parses and sets the document's root element; a document that is not well-formed gives a finding. */
    void parse(Document document) {
        boolean declared = document.text().text().contains("<!DOCTYPE");
        XMLStreamException complaint = null;
        if (!declared) {
            try {
                if (readScanned(document)) {
                    return;
                }
            } catch (XMLStreamException e) {
                complaint = e;
            }
        }
        try {
            read(document, declared, external);
        } catch (XMLStreamException e) {
            if (!declared || !readAlone(document)) {
                // The platform's parser speaks the language of the machine, and ours that of all findings.
                notWellFormed(document, complaint == null ? e : complaint);
            }
        }
    }

    /**
     * Reads a document that needs no parser which knows of declarations, several times as fast.
     *
     * @return whether it is one for this parser
     * @throws XMLStreamException if something is wrong with it, which the parser of the platform may see in another way
     */
    boolean readScanned(Document document) throws XMLStreamException {
        String text = document.text().text();
        if (text.startsWith("<?xml") && !ORDINARY.matcher(text).lookingAt()) {
            return false;
        }
        try {
            scanner.begin(text);
            read(scanner, document, (prefix, name) -> scanner.tagStart());
            return true;
        } finally {
            scanner.close();
        }
    }

    /**
     * Reads a document without the external part of its document type declaration: a parser that does not validate need
     * not read that (XML 1.0, section 5.1), and a mistake in it is not one in the contract.
     */
    private boolean readAlone(Document document) {
        try {
            read(document, true, (publicId, systemId) -> null);
            return true;
        } catch (XMLStreamException e) {
            return false;
        }
    }

    static void read(Document document, boolean declared, BiFunction<String, String, byte[]> external)
            throws XMLStreamException {
        String text = document.text().text();
        document.setRoot(null);
        try {
            XMLStreamReader reader = factory(declared, external).createXMLStreamReader(new StringReader(text));
            read(reader, document, new TagFinder(text)::next);
        } catch (XMLStreamException e) {
            throw e;
        } catch (RuntimeException e) {
            // The parser of the platform lets a few of its own failures through as runtime exceptions.
            throw new XMLStreamException(String.valueOf(e.getMessage()), e);
        }
    }

    private static XMLInputFactory factory(boolean declared, BiFunction<String, String, byte[]> external) {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, declared);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, declared);
        factory.setProperty("jdk.xml.maxElementDepth", "0");
        factory.setProperty("jdk.xml.elementAttributeLimit", "10000");
        if (declared) {
            for (String[] limit : DTD_LIMITS) {
                factory.setProperty(limit[0], limit[1]);
            }
            factory.setXMLResolver((publicId, systemId, base, entity) -> {
                byte[] known = external.apply(publicId, systemId);
                return new ByteArrayInputStream(known == null ? new byte[0] : known);
            });
        }
        return factory;
    }

    private void notWellFormed(Document document, XMLStreamException e) {
        document.setRoot(null);
        ParserComplaint complaint = ParserComplaint.of(document.text(), e);
        if (complaint.reason().startsWith(PLATFORM_LIMIT)) {
            findings.error(
                    "document-limit",
                    complaint.place(),
                    "the document type declaration holds or expands to more than is read",
                    "leave the entities out, or write what they stand for");
            return;
        }
        findings.error(
                "malformed-xml",
                complaint.place(),
                "the document is not well-formed XML: " + complaint.reason(),
                "mend it in a copy, or get the document again");
    }

    private static void read(XMLStreamReader reader, Document document, Tags tags) throws XMLStreamException {
        Deque<Element> open = new ArrayDeque<>();
        Deque<Scope> scopes = new ArrayDeque<>();
        scopes.push(Scope.ROOT);
        while (reader.hasNext()) {
            int event = reader.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                Element element = element(reader, document, tags, scopes.peek());
                if (!open.isEmpty() && open.peek().is(Xml.XSD, "appinfo") && !Xml.isBinding(element.namespace())) {
                    flat(reader, tags, true);
                    continue;
                }
                if (open.isEmpty()) {
                    document.setRoot(element);
                } else {
                    open.peek().add(element);
                }
                if (element.name().equals("documentation")) {
                    element.setText(flat(reader, tags, false));
                } else if (element.name().equals("appinfo")
                        && !element.namespace().equals(Xml.XSD)) {
                    flat(reader, tags, true);
                } else {
                    open.push(element);
                    scopes.push(element.scope());
                    if (open.size() > DEPTH_LIMIT) {
                        throw new XMLStreamException(
                                "elements are nested deeper than " + DEPTH_LIMIT + " levels", reader.getLocation());
                    }
                }
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                open.pop();
                scopes.pop();
            } else if (event == XMLStreamConstants.CHARACTERS && !open.isEmpty()) {
                text(reader, open.peek());
            } else if (event == XMLStreamConstants.ENTITY_REFERENCE) {
                throw new XMLStreamException(
                        "the entity " + reader.getLocalName() + " is not declared", reader.getLocation());
            }
        }
    }

    /** Of text where the standards have none the beginning is kept, to tell of it. */
    private static void text(XMLStreamReader reader, Element around) {
        boolean stray = (Xml.XSD.equals(around.namespace()) || Xml.WSDL.equals(around.namespace()))
                && !around.name().equals("appinfo")
                && around.text().isEmpty()
                && !reader.isWhiteSpace();
        if (stray || Xml.isBinding(around.namespace())) {
            around.addText(reader.getText());
        }
    }

    private static Element element(XMLStreamReader reader, Document document, Tags tags, Scope outer) {
        int declared = reader.getNamespaceCount();
        Scope scope = outer;
        if (declared > 0) {
            String[] declarations = new String[declared * 2];
            for (int i = 0; i < declared; i++) {
                declarations[2 * i] = orEmpty(reader.getNamespacePrefix(i));
                declarations[2 * i + 1] = orEmpty(reader.getNamespaceURI(i));
                if (Xml.isBinding(declarations[2 * i + 1])) {
                    document.setBound();
                }
            }
            scope = new Scope(outer, declarations);
        }
        int count = reader.getAttributeCount();
        String[] attributes = new String[count * 3];
        for (int i = 0; i < count; i++) {
            attributes[3 * i] = orEmpty(reader.getAttributeNamespace(i));
            attributes[3 * i + 1] = reader.getAttributeLocalName(i);
            attributes[3 * i + 2] = reader.getAttributeValue(i);
        }
        int offset = tags.start(orEmpty(reader.getPrefix()), reader.getLocalName());
        return new Element(
                document, offset, orEmpty(reader.getNamespaceURI()), reader.getLocalName(), attributes, scope);
    }

    private static String orEmpty(String value) {
        return value == null ? "" : value;
    }

    /** Reads to the end of the element and gives the text in it, unless that is of no interest. */
    private static String flat(XMLStreamReader reader, Tags tags, boolean skip) throws XMLStreamException {
        StringBuilder text = new StringBuilder();
        int open = 1;
        while (open > 0) {
            switch (reader.next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    open++;
                    tags.start(orEmpty(reader.getPrefix()), reader.getLocalName());
                }
                case XMLStreamConstants.END_ELEMENT -> open--;
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> {
                    if (!skip) {
                        text.append(reader.getText());
                    }
                }
                default -> {
                    // comments and instructions document nothing
                }
            }
            if (open > DEPTH_LIMIT) {
                throw new XMLStreamException(
                        "elements are nested deeper than " + DEPTH_LIMIT + " levels", reader.getLocation());
            }
        }
        return text.toString();
    }
}
