package org.protypos.runtime.xml;

/** The namespaces that XML, XML Schema and the formats of messages fix. */
final class Names {
    /** XML Schema Part 1, section 1.2. */
    static final String XSD = "http://www.w3.org/2001/XMLSchema";

    /** XML Schema Part 1, section 2.6. */
    static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";

    /** Namespaces in XML, section 3. */
    static final String XML = "http://www.w3.org/XML/1998/namespace";

    /** SOAP 1.1, section 5. */
    static final String SOAP_ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";

    /** Marks elements that are copies of one that the message refers to; never on the wire. */
    static final String SHARED = "urn:shared-value";

    /** XML-binary Optimized Packaging, section 2.1. */
    static final String XOP = "http://www.w3.org/2004/08/xop/include";

    private Names() {}
}
