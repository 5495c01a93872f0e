package org.protypos.exchange.standin;

import org.protypos.exchange.call.CalledOperation;
import org.protypos.message.tree.MessageElement;

/** Decides what is answered to requests that are what the contract says. It is asked by several threads. */
public interface Responder {
    /**
     * The answer to a request; it may take its time.
     *
     * @param request the whole message; without SOAP the only element of it, or null when there is none
     */
    Outcome respond(CalledOperation called, MessageElement request);
}
