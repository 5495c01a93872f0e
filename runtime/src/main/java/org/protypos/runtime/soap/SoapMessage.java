package org.protypos.runtime.soap;

import java.util.List;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlOutput;

/** The input or output of one operation: its header blocks and its body. Generated code has one for each message. */
public abstract class SoapMessage {
    /** For generated messages. */
    protected SoapMessage() {}

    /** Whether the body is in the SOAP encoding (SOAP 1.1, section 5). */
    protected boolean isEncoded() {
        return false;
    }

    /** What a message of an HTTP binding is put into (WSDL 1.1, sections 4 and 5). */
    public enum Form {
        /** A SOAP envelope, or no message at all. */
        ENVELOPE,
        /** Names and values as in an HTML form. */
        FIELDS,
        /** Values that replace their names in the location. */
        REPLACED,
        /** An XML document. */
        DOCUMENT,
        /** Plain text. */
        TEXT,
        /** Bytes of any media type. */
        BYTES
    }

    /** What the message is put into. */
    protected Form form() {
        return Form.ENVELOPE;
    }

    /** The part that a text is, for messages that are put into plain text. */
    protected String textPart() {
        return "";
    }

    /** The action that addresses the message, or null when the contract asks for no addressing. */
    protected String action() {
        return null;
    }

    /** Whether no answer follows it; only asked where messages are addressed. */
    protected boolean isOneWay() {
        return false;
    }

    /** The action that addresses a fault of the operation of which this is the input, or null. */
    protected String action(DeclaredFault fault) {
        return null;
    }

    /** Adds the parts that travel beside the message. */
    protected void writeAttachments(OutgoingPackage out) {}

    /** Takes the parts that came beside the message. */
    protected void readAttachments(AttachedParts in) {}

    /**
     * The whole envelope, for a message that is there already and is not to be written anew.
     *
     * @param blocks header blocks that the settings of the connection add
     * @return the envelope in UTF-8, or null when one is to be written around header and body
     */
    protected byte[] whole(List<XmlElement<?>> blocks) {
        return null;
    }

    /** Whether any header block will be written. */
    protected boolean hasHeaders() {
        return false;
    }

    /** Writes the header blocks. */
    protected void writeHeaders(XmlOutput out) {}

    /** Writes what stands in the body. */
    protected void writeBody(XmlOutput out) {}

    /**
     * Takes a header block that came.
     *
     * @return whether the operation knows the block
     */
    protected boolean takeHeader(XmlElement<?> block) {
        return false;
    }

    /** Reads what stands in the body. */
    protected void readBody(XmlInput in) {}

    /**
     * Turns a fault into the exception that the contract declares for it.
     *
     * @return the exception, or null when the contract declares none for this fault
     */
    protected DeclaredFault declared(SoapFault fault) {
        return null;
    }
}
