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
    private final UnaryOperator<SoapSettings> with;

    /**
     * What came back.
     *
     * @param text the answer, or null when there is none
     * @param fault the fault that it is, or null
     * @param failure why there is no answer that could be looked at, or null
     */
    public record Answer(String text, UndeclaredFaultException fault, CallFailedException failure) {}

    /** Prepares to call. */
    public Caller(CalledOperation called, UnaryOperator<SoapSettings> with) {
        this.called = called;
        this.with = with;
    }

    /** Sends a whole envelope and waits for the answer. */
    public Answer call(String envelope) {
        SoapVersion version =
                called.binding().protocol() == Protocol.SOAP_1_2 ? SoapVersion.SOAP_1_2 : SoapVersion.SOAP_1_1;
        SoapPort<Object> port = new SoapPort<>(
                called.service().name().getLocalPart(),
                called.port().name(),
                called.port().address(),
                version,
                Map.of());
        String[] came = new String[1];
        SoapInterceptor exchanged = new SoapInterceptor() {
            @Override
            public byte[] request(Call call, byte[] ignored) {
                return envelope.getBytes(StandardCharsets.UTF_8);
            }

            @Override
            public byte[] answer(Call call, byte[] answer) {
                came[0] = new String(answer, StandardCharsets.UTF_8);
                return answer;
            }
        };
        SoapConnection connection =
                SoapConnection.to(port, settings -> with.apply(settings).interceptor(exchanged), XmlTypes.NONE);
        boolean oneWay = called.operation().output() == null;
        try {
            connection.callPlain(
                    called.operation().name(),
                    called.bound().soapAction(),
                    new SoapMessage() {},
                    oneWay ? null : new Whatever());
            return new Answer(came[0], null, null);
        } catch (UndeclaredFaultException e) {
            return new Answer(came[0], e, null);
        } catch (CallFailedException e) {
            return new Answer(came[0], null, e);
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
