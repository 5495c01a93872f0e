package org.protypos.wire;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.Protocol;

/**
 * The request or the answer of an operation as a binding carries it (WSDL 1.1, sections 3 to 5).
 *
 * @param protocol what the binding speaks
 * @param message the message of the contract
 * @param use its use in the operation
 * @param isAnswer whether it is the answer rather than the request
 * @param form what it is put into
 * @param arrangement how its parts stand in the body
 * @param wrapper the element that holds all parts and that no schema declares; null when there is none. Without SOAP there
 *     is no such element on the wire: fields, texts and bytes are seen as if they stood in one called like the operation
 * @param isEncoded whether the body is in the SOAP encoding (SOAP 1.1, section 5)
 * @param parts the parts in the body
 * @param blocks the parts that travel as header blocks
 * @param attachments the parts that travel beside the envelope
 * @param action the action that addresses it, or null when nothing in the contract asks for addressing
 */
public record WireMessage(
        Protocol protocol,
        Message message,
        Operation.Use use,
        boolean isAnswer,
        Form form,
        Arrangement arrangement,
        QName wrapper,
        boolean isEncoded,
        List<WirePart> parts,
        List<WirePart> blocks,
        List<WirePart> attachments,
        String action) {
    /** What a message is put into. */
    public enum Form {
        /** A SOAP envelope, or the root of a MIME package that is one (WSDL 1.1, sections 3.5 and 5.3). */
        ENVELOPE,
        /** Names and values as in an HTML form (WSDL 1.1, section 4.5). */
        FIELDS,
        /** Values that replace their names in the location (WSDL 1.1, section 4.6). */
        REPLACED,
        /** An XML document (WSDL 1.1, section 5.6). */
        DOCUMENT,
        /** Plain text (WSDL 1.1, section 5.2). */
        TEXT,
        /** Bytes of any media type, likewise. */
        BYTES
    }

    /** How the parts of a message stand in its body. */
    public enum Arrangement {
        /** In an element that holds all of them. */
        WRAPPED,
        /** Each as its element, side by side. */
        ELEMENTS,
        /** The body itself is of the type of the only part (WSDL 1.1, section 3.5). */
        OF_TYPE
    }

    /** The same message with header blocks that it has in other bindings too. */
    WireMessage with(WireMessage other) {
        List<WirePart> all = new ArrayList<>(blocks);
        other.blocks.stream().filter(block -> block(block.element()) == null).forEach(all::add);
        return all.size() == blocks.size()
                ? this
                : new WireMessage(
                        protocol,
                        message,
                        use,
                        isAnswer,
                        form,
                        arrangement,
                        wrapper,
                        isEncoded,
                        parts,
                        List.copyOf(all),
                        attachments,
                        action);
    }

    /**
     * How another binding carries the same message otherwise, apart from header blocks; null when it does not.
     *
     * @return what this one has and what the other one, in words
     */
    String unlike(WireMessage other) {
        if (arrangement != other.arrangement) {
            return words(arrangement) + " and " + words(other.arrangement);
        }
        if (form != other.form) {
            return words(form) + " and " + words(other.form);
        }
        if (isEncoded != other.isEncoded) {
            return isEncoded ? "encoded and literal" : "literal and encoded";
        }
        if (wrapper != null && !wrapper.equals(other.wrapper)) {
            return "in " + wrapper + " and in " + other.wrapper;
        }
        if (!names(parts).equals(names(other.parts))) {
            return "with the parts " + names(parts) + " and " + names(other.parts) + " in the body";
        }
        return names(attachments).equals(names(other.attachments))
                ? null
                : "with " + names(attachments) + " and " + names(other.attachments) + " beside it";
    }

    private static String words(Arrangement arrangement) {
        return arrangement == Arrangement.WRAPPED ? "as a call" : "as a document";
    }

    private static String words(Form form) {
        return switch (form) {
            case ENVELOPE -> "in an envelope";
            case FIELDS -> "as names and values";
            case REPLACED -> "in the location";
            case DOCUMENT -> "as XML";
            case TEXT -> "as text";
            case BYTES -> "as bytes";
        };
    }

    private static List<String> names(List<WirePart> parts) {
        return parts.stream().map(WirePart::name).toList();
    }

    /** Whether it travels in an envelope. */
    public boolean isSoap() {
        return protocol.isSoap();
    }

    /** Whether it travels as a document in XML, rather than as names and values, text or bytes. */
    public boolean isDocument() {
        return isSoap() || form == Form.DOCUMENT;
    }

    /** Whether an element that no schema declares holds all parts. */
    public boolean isWrapped() {
        return arrangement == Arrangement.WRAPPED;
    }

    /** Whether the body itself is of the type of the only part. */
    public boolean isOfType() {
        return arrangement == Arrangement.OF_TYPE;
    }

    /** Whether something stands in the body for which no schema has one element: what begins it may be left out. */
    public boolean isGroup() {
        return isOfType()
                || !isWrapped()
                        && (parts.size() > 1
                                || !parts.isEmpty() && !parts.get(0).isGlobal());
    }

    /** What may stand first in the body; an empty name stands for nothing at all. */
    public Set<QName> beginnings() {
        if (isWrapped()) {
            return Set.of(wrapper);
        }
        if (parts.isEmpty()) {
            return Set.of(new QName(""));
        }
        WirePart first = parts.get(0);
        return isOfType() ? new LinkedHashSet<>(first.beginnings()) : Set.of(first.element());
    }

    /** The header block of a name, or null when the message has none. */
    public WirePart block(QName name) {
        return blocks.stream()
                .filter(block -> block.element().equals(name))
                .findFirst()
                .orElse(null);
    }
}
