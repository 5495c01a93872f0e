package org.protypos.exchange.call;

import java.nio.charset.StandardCharsets;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.parse.DecodedText;
import org.protypos.runtime.soap.CallFailedException;
import org.protypos.runtime.soap.Connection;
import org.protypos.runtime.soap.HttpConnection;
import org.protypos.runtime.soap.HttpPort;
import org.protypos.runtime.soap.SoapConnection;
import org.protypos.runtime.soap.SoapFeature;
import org.protypos.runtime.soap.SoapInterceptor;
import org.protypos.runtime.soap.SoapPort;
import org.protypos.runtime.soap.SoapSettings;
import org.protypos.runtime.soap.SoapVersion;
import org.protypos.runtime.soap.UndeclaredFaultException;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wire.Need;
import org.protypos.wsdl.Protocol;

/** Calls an operation with a request that is there as text, the way a generated client would. */
public final class Caller {
    private static final String XOP = "http://www.w3.org/2004/08/xop/include";

    private final CalledOperation called;
    private final ContractCheck check;
    private final Exchanged exchanged = new Exchanged();
    private final Connection connection;

    /**
     * What came back.
     *
     * @param text the answer as it came, or null when there is none
     * @param root the same as a tree with all binary content in it; null when there is none or it is no XML
     * @param attached the parts that came beside it, by name
     * @param fault the fault that it is, or null
     * @param failure why there is no answer that could be looked at, or null
     * @param sent the request as it went, or null when nothing was sent
     * @param call the exchange with the HTTP headers of both messages, or null when nothing was sent
     */
    public record Answer(
            String text,
            MessageElement root,
            Map<String, Attachment> attached,
            UndeclaredFaultException fault,
            CallFailedException failure,
            String sent,
            SoapInterceptor.Call call) {}

    /**
     * Prepares to call.
     *
     * @param check is locked while it is used
     * @param with the settings of the connection
     */
    public Caller(CalledOperation called, ContractCheck check, UnaryOperator<SoapSettings> with) {
        this.called = called;
        this.check = check;
        // An answer is kept before anybody refuses it, a request when all have done with it.
        UnaryOperator<SoapSettings> settings =
                plain -> with.apply(plain.interceptor(exchanged)).interceptor(new Sent());
        String service = called.service().name().getLocalPart();
        String port = called.port().name();
        String address = called.port().address();
        if (called.isSoap()) {
            SoapVersion version =
                    called.binding().protocol() == Protocol.SOAP_1_2 ? SoapVersion.SOAP_1_2 : SoapVersion.SOAP_1_1;
            connection = SoapConnection.to(
                    new SoapPort<>(service, port, address, version, Map.of(), features()), settings, XmlTypes.NONE);
        } else {
            connection = HttpConnection.to(
                    new HttpPort<>(service, port, address, called.binding().verb(), Map.of()), settings, XmlTypes.NONE);
        }
    }

    private Set<SoapFeature> features() {
        Set<SoapFeature> features = EnumSet.noneOf(SoapFeature.class);
        if (called.at().addressed().isSent()) {
            features.add(SoapFeature.ADDRESSING);
        }
        if (called.at().optimized() == Need.REQUIRED) {
            features.add(SoapFeature.MTOM);
        }
        return features;
    }

    /** Sends a whole message and waits for the answer; one call at a time. */
    public Answer call(String message) {
        return call(message, Map.of());
    }

    /**
     * Sends a whole message with parts beside it, likewise.
     *
     * @param attached the parts by name
     */
    public Answer call(String message, Map<String, Attachment> attached) {
        // An envelope goes as it is, but for content that has to leave it.
        boolean asItIs = called.isSoap() && called.at().optimized() != Need.REQUIRED;
        exchanged.begin();
        PlayedMessage request;
        synchronized (check) {
            request = asItIs
                    ? PlayedMessage.whole(called, message)
                    : PlayedMessage.of(called, called.request(), check, MessageReader.read("request", message));
        }
        PlayedMessage answer = called.answer() == null ? null : new PlayedMessage(called, called.answer());
        request.attached().putAll(attached);
        UndeclaredFaultException fault = null;
        CallFailedException failure = null;
        try {
            connection.callPlain(called.operation().name(), called.carried().target(), request, answer);
        } catch (UndeclaredFaultException e) {
            fault = e;
        } catch (CallFailedException e) {
            failure = e;
        }
        boolean readable = failure == null && answer != null;
        return new Answer(
                exchanged.came,
                readable ? root(answer, fault != null) : null,
                readable ? answer.attached() : Map.of(),
                fault,
                failure,
                exchanged.sent,
                exchanged.call);
    }

    /** An answer as it came knows its places; one with content beside it, or without an envelope, is put together. */
    private MessageElement root(PlayedMessage answer, boolean fault) {
        boolean whole = called.isSoap() && (fault || !exchanged.came.contains(XOP));
        if (whole) {
            MessageElement root = exchanged.came.isBlank() ? null : MessageReader.read("answer", exchanged.came);
            synchronized (check) {
                return called.answer() == null ? root : EncodedForm.literal(root, called.answer(), check.vocabulary());
            }
        }
        List<MessageElement> body = answer.body();
        return body.isEmpty()
                ? null
                : new RequestBuilder(called.carried(), check.vocabulary(), new Findings())
                        .envelope(body, answer.headers());
    }

    /** Keeps the request as it goes. */
    private final class Sent implements SoapInterceptor {
        @Override
        public byte[] request(Call about, byte[] message) {
            exchanged.sent = new String(message, StandardCharsets.UTF_8);
            exchanged.call = about;
            return message;
        }
    }

    /** Keeps the answer as it comes, beside the request. */
    private static final class Exchanged implements SoapInterceptor {
        private String sent;
        private Call call;
        private String came;

        private void begin() {
            sent = null;
            call = null;
            came = null;
        }

        @Override
        public byte[] answer(Call answered, byte[] answer, String charset) {
            came = DecodedText.of(answer, charset);
            return answer;
        }
    }
}
