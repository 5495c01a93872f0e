package org.protypos.wsdl;

/** What a binding speaks. */
public enum Protocol {
    /** SOAP 1.1 (WSDL 1.1, section 3). */
    SOAP_1_1("SOAP 1.1"),
    /** SOAP 1.2 (WSDL 1.1 Binding Extension for SOAP 1.2). */
    SOAP_1_2("SOAP 1.2"),
    /** HTTP without SOAP (WSDL 1.1, section 4). */
    HTTP("HTTP"),
    /** Something else. */
    OTHER("unknown");

    private final String title;

    Protocol(String title) {
        this.title = title;
    }

    /** The protocol's name for a person. */
    public String title() {
        return title;
    }

    /** Whether it is a version of SOAP. */
    public boolean isSoap() {
        return this == SOAP_1_1 || this == SOAP_1_2;
    }
}
