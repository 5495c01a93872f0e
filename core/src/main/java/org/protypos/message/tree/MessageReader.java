package org.protypos.message.tree;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.charset.UnsupportedCharsetException;
import javax.xml.namespace.QName;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.SourceText;
import org.protypos.runtime.parse.MessageScanner;
import org.protypos.source.Decoder;
import org.protypos.source.ParserComplaint;

/** Reads the text of a message. A message has no document type declaration, and is held to limits. */
public final class MessageReader {
    /** The deepest nesting of elements in a message. */
    public static final int MOST_DEPTH = 400;

    /** Each is kept with its place: more of them take more memory than a command should. */
    private static final int MOST_ELEMENTS = 2_000_000;

    private MessageReader() {}

    /** Reads a message that is there as text; gives null when it is not well-formed, whatever is wrong with it. */
    public static MessageElement read(String name, String text) {
        return read(new SourceText(name, text), text.getBytes(StandardCharsets.UTF_8), "UTF-8", new Findings());
    }

    /**
     * Reads a message of which the text has been decoded already, likewise.
     *
     * @param encoding the encoding that the transport names, or null when the message says it itself
     */
    public static MessageElement read(String name, byte[] bytes, String encoding, String text) {
        return read(new SourceText(name, text), bytes, encoding, new Findings());
    }

    /**
     * Reads a message.
     *
     * @param name how to call it in findings
     * @param findings takes what is wrong when it is no well-formed message
     * @return its root element, or null when it is not well-formed
     */
    public static MessageElement read(String name, byte[] bytes, Findings findings) {
        try {
            return read(new SourceText(name, Decoder.decode(bytes)), bytes, null, findings);
        } catch (UnsupportedCharsetException e) {
            findings.error(
                    "encoding",
                    new SourceText(name, "").at(0),
                    "the message names the encoding " + e.getCharsetName() + ", which this platform does not know",
                    "send it in UTF-8");
            return null;
        }
    }

    private static MessageElement read(SourceText text, byte[] bytes, String encoding, Findings findings) {
        MessageScanner scanner = new MessageScanner();
        try {
            scanner.begin(new ByteArrayInputStream(bytes), encoding);
            return read(text, scanner);
        } catch (XMLStreamException e) {
            ParserComplaint complaint = ParserComplaint.of(text, e);
            findings.error(
                    "malformed-xml",
                    complaint.place(),
                    "the message is not well-formed XML: " + complaint.reason(),
                    "get the message as it was sent");
            return null;
        }
    }

    private static MessageElement read(SourceText text, MessageScanner scanner) throws XMLStreamException {
        MessageElement root = null;
        MessageElement open = null;
        // Comments cut text into pieces, as many as somebody likes.
        StringBuilder pieces = new StringBuilder();
        int depth = 0;
        int count = 0;
        while (true) {
            int event = scanner.next();
            if (event == XMLStreamConstants.CHARACTERS) {
                pieces.append(scanner.getText());
                continue;
            }
            if (open != null) {
                open.add(pieces.toString());
            }
            pieces.setLength(0);
            switch (event) {
                case XMLStreamConstants.START_ELEMENT -> {
                    if (++count > MOST_ELEMENTS) {
                        throw new XMLStreamException(
                                "there are more than " + MOST_ELEMENTS + " elements in it", scanner.getLocation());
                    }
                    MessageElement element = element(scanner, text.at(scanner.tagStart()));
                    if (open == null) {
                        root = element;
                    } else {
                        open.add(element);
                    }
                    open = element;
                    if (++depth > MOST_DEPTH) {
                        throw new XMLStreamException(
                                "elements are nested deeper than " + MOST_DEPTH + " levels", scanner.getLocation());
                    }
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    open = open.parent();
                    depth--;
                }
                default -> {
                    return root;
                }
            }
        }
    }

    private static MessageElement element(MessageScanner scanner, Place place) {
        MessageElement element =
                new MessageElement(new QName(orEmpty(scanner.getNamespaceURI()), scanner.getLocalName()), place);
        for (int i = 0; i < scanner.getNamespaceCount(); i++) {
            element.prefixes().put(orEmpty(scanner.getNamespacePrefix(i)), orEmpty(scanner.getNamespaceURI(i)));
        }
        for (int i = 0; i < scanner.getAttributeCount(); i++) {
            QName name = new QName(orEmpty(scanner.getAttributeNamespace(i)), scanner.getAttributeLocalName(i));
            element.attributes().put(name, scanner.getAttributeValue(i));
        }
        return element;
    }

    private static String orEmpty(String value) {
        return value == null ? "" : value;
    }
}
