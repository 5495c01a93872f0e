package org.protypos.message.tree;

import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.source.Decoder;
import org.protypos.source.ParserComplaint;
import org.protypos.source.TagFinder;

/** Reads the text of a message. A message has no document type declaration, and is held to limits. */
public final class MessageReader {
    private static final int MOST_DEPTH = 400;

    private MessageReader() {}

    /** Reads a message that is there as text; gives null when it is not well-formed, whatever is wrong with it. */
    public static MessageElement read(String name, String text) {
        return read(name, text.getBytes(StandardCharsets.UTF_8), new Findings());
    }

    /**
     * Reads a message.
     *
     * @param name how to call it in findings
     * @param findings takes what is wrong when it is no well-formed message
     * @return its root element, or null when it is not well-formed
     */
    public static MessageElement read(String name, byte[] bytes, Findings findings) {
        SourceText text;
        try {
            text = new SourceText(name, Decoder.decode(bytes));
        } catch (UnsupportedCharsetException e) {
            findings.error(
                    "encoding",
                    new SourceText(name, "").at(0),
                    "the message names the encoding " + e.getCharsetName() + ", which this platform does not know",
                    "send it in UTF-8");
            return null;
        }
        try {
            return read(text, findings);
        } catch (XMLStreamException e) {
            malformed(text, e, findings);
            return null;
        }
    }

    private static void malformed(SourceText text, XMLStreamException e, Findings findings) {
        ParserComplaint complaint = ParserComplaint.of(text, e);
        findings.error(
                "malformed-xml",
                complaint.place(),
                "the message is not well-formed XML: " + complaint.reason(),
                "get the message as it was sent");
    }

    private static MessageElement read(SourceText text, Findings findings) throws XMLStreamException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        factory.setProperty("jdk.xml.maxElementDepth", "0");
        TagFinder tags = new TagFinder(text.text());
        MessageElement root = null;
        MessageElement open = null;
        int depth = 0;
        try {
            XMLStreamReader reader = factory.createXMLStreamReader(new StringReader(text.text()));
            while (reader.hasNext()) {
                switch (reader.next()) {
                    case XMLStreamConstants.START_ELEMENT -> {
                        MessageElement element = element(reader, text, tags);
                        if (open == null) {
                            root = element;
                        } else {
                            open.add(element);
                        }
                        open = element;
                        if (++depth > MOST_DEPTH) {
                            throw new XMLStreamException(
                                    "elements are nested deeper than " + MOST_DEPTH + " levels", reader.getLocation());
                        }
                    }
                    case XMLStreamConstants.END_ELEMENT -> {
                        open = open.parent();
                        depth--;
                    }
                    case XMLStreamConstants.CHARACTERS, XMLStreamConstants.SPACE -> {
                        if (open != null) {
                            open.add(reader.getText());
                        }
                    }
                    case XMLStreamConstants.DTD -> {
                        findings.error(
                                "document-type",
                                text.at(reader.getLocation().getLineNumber(), 1),
                                "a message has no document type declaration",
                                "leave <!DOCTYPE> out");
                        return null;
                    }
                    case XMLStreamConstants.ENTITY_REFERENCE ->
                        throw new XMLStreamException(
                                "the entity " + reader.getLocalName() + " is not declared", reader.getLocation());
                    default -> {
                        // comments and instructions say nothing that a contract speaks of
                    }
                }
            }
        } catch (XMLStreamException e) {
            throw e;
        } catch (RuntimeException e) {
            // The parser of the platform lets a few of its own failures through as runtime exceptions.
            throw new XMLStreamException(String.valueOf(e.getMessage()), e);
        }
        return root;
    }

    private static MessageElement element(XMLStreamReader reader, SourceText text, TagFinder tags) {
        Place place = text.at(tags.next(orEmpty(reader.getPrefix()), reader.getLocalName()));
        MessageElement element =
                new MessageElement(new QName(orEmpty(reader.getNamespaceURI()), reader.getLocalName()), place);
        for (int i = 0; i < reader.getNamespaceCount(); i++) {
            element.prefixes().put(orEmpty(reader.getNamespacePrefix(i)), orEmpty(reader.getNamespaceURI(i)));
        }
        for (int i = 0; i < reader.getAttributeCount(); i++) {
            QName name = new QName(orEmpty(reader.getAttributeNamespace(i)), reader.getAttributeLocalName(i));
            element.attributes().put(name, reader.getAttributeValue(i));
        }
        return element;
    }

    private static String orEmpty(String value) {
        return value == null ? "" : value;
    }
}
