package org.protypos.runtime.soap;

import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletionException;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.runtime.attach.Gzip;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlTypes;

/** A connection that speaks SOAP over HTTP (SOAP 1.1, section 6; SOAP 1.2 Part 2, section 7). */
public final class SoapConnection extends Connection {
    private final SoapPort<?> port;

    private SoapConnection(SoapPort<?> port, SoapSettings settings, HttpClient client, XmlTypes types) {
        super(settings, client, types);
        this.port = port;
    }

    /**
     * Gives a connection. Nothing is sent before the first call.
     *
     * @param port the port of the contract
     * @param with says what differs from the contract and the defaults
     * @param types what the contract declares by name
     */
    public static SoapConnection to(SoapPort<?> port, UnaryOperator<SoapSettings> with, XmlTypes types) {
        SoapSettings settings = with.apply(SoapSettings.of(port));
        return new SoapConnection(port, settings, settings.client(), types);
    }

    /** Gives a connection to the same port that differs in some setting; this one stays as it is. */
    public SoapConnection with(UnaryOperator<SoapSettings> with) {
        SoapSettings changed = with.apply(settings());
        return new SoapConnection(
                port, changed, changed.sharesClient(settings()) ? client() : changed.client(), types());
    }

    @Override
    HttpRequest request(SoapInterceptor.Call call, String standard, SoapMessage message) {
        String action = port.action(call.operation(), standard);
        Map<String, String> headers = call.headers();
        String alone = port.version().contentType(action);
        headers.put("Content-Type", alone);
        String optimized = settings().optimizedFrom() < 0 ? "" : ", application/xop+xml";
        headers.put("Accept", port.version().mediaType() + ", multipart/related" + optimized + ", */*;q=0.1");
        if (port.version() == SoapVersion.SOAP_1_1) {
            headers.put("SOAPAction", "\"" + action + "\"");
        }
        if (settings().isCompressed()) {
            headers.put("Accept-Encoding", "gzip");
        }
        List<XmlElement<?>> blocks = new ArrayList<>(settings().soapHeaders());
        String addressed = message.action() == null ? action : message.action();
        // An action is an address itself (WS-Addressing 1.0 Core, section 3.1): without one there is nothing to say.
        if (settings().isAddressed() && !addressed.isEmpty()) {
            blocks.addAll(Addressing.ofRequest(address(), addressed, call.messageId()));
        }
        OutgoingPackage parts = new OutgoingPackage(settings().optimizedFrom());
        byte[] envelope = message.whole(blocks);
        if (envelope == null) {
            envelope = Envelope.write(port.version(), message, blocks, parts, types());
        } else {
            message.writeAttachments(parts);
        }
        for (SoapInterceptor interceptor : settings().interceptors()) {
            envelope = interceptor.request(call, envelope);
        }
        WireLog.request(call, envelope);
        if (!parts.isEmpty()) {
            headers.put("Content-Type", parts.contentType(alone));
            return builder(address(), headers)
                    .POST(parts.publisher(envelope, alone))
                    .build();
        }
        if (settings().isCompressed()) {
            headers.put("Content-Encoding", "gzip");
            envelope = Gzip.pack(envelope);
        }
        return builder(address(), headers)
                .POST(HttpRequest.BodyPublishers.ofByteArray(envelope))
                .build();
    }

    private static CallFailedException refused(String operation, int status, String why) {
        return new CallFailedException("the answer to " + operation + " (HTTP " + status + ") " + why, status, null);
    }

    @Override
    void interpret(SoapInterceptor.Call call, Answer came, SoapMessage answer) {
        String operation = call.operation();
        int status = came.status();
        Incoming message = came.message();
        if (answer == null && status / 100 == 2) {
            return;
        }
        if (message.body().length == 0 || !message.type().isXml()) {
            throw unusable(operation, came, "is no SOAP message", null);
        }
        try {
            boolean encoded = answer != null && answer.isEncoded();
            SoapFault fault =
                    Envelope.read(message, encoded, types(), settings().reading(), envelope -> {
                        if (call.messageId() != null && Addressing.isForAnother(envelope, call.messageId())) {
                            throw refused(operation, status, "is the answer to another message than was sent");
                        }
                        if (envelope.isFault()) {
                            return envelope.readFault(types());
                        }
                        if (answer != null) {
                            List<QName> notUnderstood = envelope.readInto(answer, true);
                            if (!notUnderstood.isEmpty()) {
                                throw refused(
                                        operation,
                                        status,
                                        "has the header block " + notUnderstood.get(0)
                                                + ", which must be understood and is not");
                            }
                        }
                        return null;
                    });
            if (fault != null) {
                DeclaredFault declared = answer == null ? null : answer.declared(fault);
                throw declared == null
                        ? new UndeclaredFaultException(operation, fault, status)
                        : new CompletionException(declared);
            }
            if (answer != null) {
                AttachedParts.read(message.parts(), answer, settings().reading());
            }
        } catch (XmlFormatException e) {
            throw new CallFailedException(
                    "the answer to " + operation + " (HTTP " + status + ") cannot be read: " + e.getMessage(),
                    status,
                    e);
        } catch (Envelope.NotAnEnvelopeException e) {
            throw unusable(operation, came, "is no SOAP message: " + e.getMessage(), e);
        }
    }
}
