package org.protypos.runtime.soap;

import java.lang.System.Logger.Level;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlLimits;
import org.protypos.runtime.xml.XmlTypes;

/**
 * The server's end of an interface: reads a message, has the operation carried out and writes the answer. A generated
 * subclass knows the operations. Safe for use by several threads if the implementation is.
 */
public abstract class SoapEndpoint {
    private static final int BAD_REQUEST = 400;
    private static final int SERVER_ERROR = 500;

    /** For the generated subclass. */
    protected SoapEndpoint() {}

    /** What the contract declares by name. */
    protected abstract XmlTypes types();

    /**
     * Finds the operation that a message is for.
     *
     * @param namespace the namespace of the first element in the body, empty when there is none
     * @param name its local name, empty when there is none
     * @param action the SOAP action of the request, empty when there is none
     * @return an empty input message, or null when no operation fits
     */
    protected abstract SoapMessage input(String namespace, String name, String action);

    /**
     * Carries an operation out.
     *
     * @param input the message that came
     * @return the message to answer with, or null for a one-way operation
     * @throws Exception a declared fault or whatever else the implementation throws
     */
    protected abstract SoapMessage perform(SoapMessage input) throws Exception;

    /** Whether messages come in the SOAP encoding (SOAP 1.1, section 5). */
    protected boolean isEncoded() {
        return false;
    }

    /** The documents of the contract, to be shown on request. */
    protected abstract ContractDocuments documents();

    /** The name under which the documents speak of the ports that this endpoint serves. */
    protected abstract String portType();

    /**
     * An answer to an HTTP request.
     *
     * @param status the HTTP status
     * @param contentType the content type
     * @param body the content, empty for none
     */
    record Reply(int status, String contentType, byte[] body) {}

    final Reply handle(byte[] message, String encoding, String action, XmlLimits limits, SoapVersion spoken) {
        SoapVersion version = spoken;
        try {
            byte[] literal = isEncoded() ? EncodedMessage.literal(message, encoding, limits) : message;
            Envelope envelope = Envelope.open(literal, isEncoded() ? null : encoding, types(), limits);
            version = envelope.version();
            boolean empty = !envelope.content().atElement();
            String namespace = empty ? "" : envelope.content().namespace();
            String name = empty ? "" : envelope.content().localName();
            SoapMessage input = input(namespace, name, action);
            if (input == null) {
                return senderFault(version, unknown(namespace, name, action));
            }
            String notUnderstood = envelope.readInto(input);
            if (notUnderstood != null) {
                return fault(
                        version, "MustUnderstand", "the header block " + notUnderstood + " is not understood", null);
            }
            return answer(version, perform(input));
        } catch (XmlFormatException e) {
            return senderFault(version, e.getMessage());
        } catch (Envelope.NotAnEnvelopeException e) {
            return fault(version, "VersionMismatch", e.getMessage(), null);
        } catch (DeclaredFault e) {
            return fault(version, version.receiverCode(), String.valueOf(e.getMessage()), e);
        } catch (UnsupportedOperationException e) {
            String what = e.getMessage() == null ? "the operation is not implemented" : e.getMessage();
            return fault(version, version.receiverCode(), what, null);
        } catch (Exception e) {
            System.getLogger(getClass().getName()).log(Level.ERROR, "an operation failed", e);
            return fault(version, version.receiverCode(), "the service failed", null);
        }
    }

    private static String unknown(String namespace, String name, String action) {
        return "no operation takes "
                + (name.isEmpty() ? "an empty body" : "the element {" + namespace + "}" + name)
                + (action.isEmpty() ? "" : " with the action \"" + action + "\"");
    }

    private Reply answer(SoapVersion version, SoapMessage output) {
        return output == null
                ? new Reply(202, version.contentType(""), new byte[0])
                : new Reply(200, version.contentType(""), Envelope.write(version, output, types()));
    }

    private Reply senderFault(SoapVersion version, String reason) {
        return fault(version, version.senderCode(), reason, null);
    }

    /** SOAP 1.1, section 6.2 sends every fault with status 500; SOAP 1.2 Part 2, table 20 blames the sender with 400. */
    final Reply fault(SoapVersion version, String code, String reason, DeclaredFault detail) {
        boolean blamesSender = version == SoapVersion.SOAP_1_2 && code.equals(version.senderCode());
        return new Reply(
                blamesSender ? BAD_REQUEST : SERVER_ERROR,
                version.contentType(""),
                Envelope.writeFault(version, code, reason, types(), detail == null ? null : detail::writeDetail));
    }
}
