package org.protypos.runtime.soap;

import java.util.Map;

/** Sees the messages of a client as they travel, and may change them: to sign what is sent, to keep what came. */
public interface SoapInterceptor {
    /**
     * A call on its way.
     *
     * @param service the local name of the service
     * @param port the local name of the port
     * @param operation the name of the operation's method
     * @param address where the message goes; without SOAP with what the call puts into it
     * @param headers the HTTP headers of the request, which may be changed before it is sent
     * @param answerHeaders the HTTP headers of the answer, once there is one, and its status as {@code :status} (RFC 9113,
     *     section 8.3.2)
     * @param messageId the identifier that addresses the request, or null when it is not addressed (WS-Addressing 1.0 Core,
     *     section 3.1)
     */
    record Call(
            String service,
            String port,
            String operation,
            String address,
            Map<String, String> headers,
            Map<String, String> answerHeaders,
            String messageId) {
        /** The same call to another address. */
        Call at(String target) {
            return new Call(service, port, operation, target, headers, answerHeaders, messageId);
        }
    }

    /**
     * Sees a request before it is sent.
     *
     * @param envelope the message in UTF-8
     * @return what is sent
     */
    default byte[] request(Call call, byte[] envelope) {
        return envelope;
    }

    /**
     * Sees an answer before it is read, whatever it is.
     *
     * @param body what came, no longer compressed
     * @param charset the encoding that the transport names, or null when the message says it itself
     * @return what is read
     * @throws SecurityException when it must not be read; the call fails and says why
     */
    default byte[] answer(Call call, byte[] body, String charset) {
        return body;
    }
}
