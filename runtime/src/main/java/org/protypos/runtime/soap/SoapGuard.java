package org.protypos.runtime.soap;

import java.util.function.UnaryOperator;

/** Watches over an endpoint: looks at requests before their operation is carried out, and at answers before they are sent. */
public interface SoapGuard {
    /**
     * Sees the HTTP headers of a request before its message.
     *
     * @param headers gives the value of a header by its name, empty when it did not come
     * @throws SecurityException when the request must not pass; its message becomes the fault
     */
    default void arrived(UnaryOperator<String> headers) {}

    /**
     * Lets a request pass.
     *
     * @param envelope the message as it came
     * @param charset the encoding that the transport names, or null when the message says it itself
     * @throws SecurityException when it must not pass; its message becomes the fault
     */
    void request(byte[] envelope, String charset);

    /**
     * Sees an answer or a fault before it is sent.
     *
     * @param envelope the message in UTF-8
     * @return what is sent
     */
    default byte[] answer(byte[] envelope) {
        return envelope;
    }
}
