package org.protypos.runtime.soap;

/** What the policies of a port ask for beyond SOAP itself. */
public enum SoapFeature {
    /** Binary content travels beside the message (SOAP Message Transmission Optimization Mechanism). */
    MTOM,
    /** Messages say where they go and what they answer (WS-Addressing 1.0). */
    ADDRESSING
}
