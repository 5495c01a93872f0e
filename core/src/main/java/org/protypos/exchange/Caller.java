package org.protypos.exchange;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.protypos.runtime.soap.CallFailedException;
import org.protypos.runtime.soap.SoapConnection;
import org.protypos.runtime.soap.SoapInterceptor;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.soap.SoapPort;
import org.protypos.runtime.soap.SoapSettings;
import org.protypos.runtime.soap.SoapVersion;
import org.protypos.runtime.soap.UndeclaredFaultException;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.wsdl.Protocol;

/** Calls an operation with a request that is there as text, the way a generated client would. */
public final class Caller {
    private final CalledOperation called;
    private final Exchanged exchanged = new Exchanged();
    private final SoapConnection connection;

    /**
     * What came back.
     *
     * @param text the answer, or null when there is none
     * @param fault the fault that it is, or null
     * @param failure why there is no answer that could be looked at, or null
     * @param call the exchange with the HTTP headers of both messages, or null when nothing was sent
     */
    public record Answer(
            String text, UndeclaredFaultException fault, CallFailedException failure, SoapInterceptor.Call call) {}

    /**
     * Prepares to call.
     *
     * @param with the settings of the connection
     */
    public Caller(CalledOperation called, UnaryOperator<SoapSettings> with) {
        this.called = called;
        SoapVersion version =
                called.binding().protocol() == Protocol.SOAP_1_2 ? SoapVersion.SOAP_1_2 : SoapVersion.SOAP_1_1;
        SoapPort<Object> port = new SoapPort<>(
                called.service().name().getLocalPart(),
                called.port().name(),
                called.port().address(),
                version,
                Map.of());
        connection = SoapConnection.to(port, settings -> with.apply(settings).interceptor(exchanged), XmlTypes.NONE);
    }

    /** Sends a whole envelope and waits for the answer; one call at a time. */
    public Answer call(String envelope) {
        exchanged.envelope = envelope.getBytes(StandardCharsets.UTF_8);
        exchanged.call = null;
        exchanged.came = null;
        UndeclaredFaultException fault = null;
        CallFailedException failure = null;
        try {
            connection.callPlain(
                    called.operation().name(),
                    called.bound().soapAction(),
                    new SoapMessage() {},
                    called.operation().output() == null ? null : new Whatever());
        } catch (UndeclaredFaultException e) {
            fault = e;
        } catch (CallFailedException e) {
            failure = e;
        }
        return new Answer(exchanged.came, fault, failure, exchanged.call);
    }

    /** Puts the request in the place of an empty one, and keeps what comes. */
    private static final class Exchanged implements SoapInterceptor {
        private byte[] envelope;
        private Call call;
        private String came;

        @Override
        public byte[] request(Call sent, byte[] ignored) {
            call = sent;
            return envelope;
        }

        @Override
        public byte[] answer(Call answered, byte[] answer) {
            came = new String(answer, StandardCharsets.UTF_8);
            return answer;
        }
    }

    /** An answer that is looked at as text: here it is only passed. */
    private static final class Whatever extends SoapMessage {
        @Override
        protected void readBody(XmlInput in) {
            while (in.atElement()) {
                in.element();
            }
        }
    }
}
