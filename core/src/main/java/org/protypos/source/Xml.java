package org.protypos.source;

import java.util.List;
import java.util.Set;

/** The namespaces in which contracts are written. */
public final class Xml {
    /** XML Schema Part 1, section 1.2. */
    public static final String XSD = "http://www.w3.org/2001/XMLSchema";

    /** The namespaces of drafts of XML Schema, in which services of the first years have written theirs. */
    private static final Set<String> XSD_DRAFTS = Set.of(
            "http://www.w3.org/1999/XMLSchema",
            "http://www.w3.org/2000/08/XMLSchema",
            "http://www.w3.org/2000/10/XMLSchema");

    /** XML Schema Part 1, section 2.6. */
    public static final String XSI = "http://www.w3.org/2001/XMLSchema-instance";

    /** Namespaces in XML, section 3. */
    public static final String XML = "http://www.w3.org/XML/1998/namespace";

    /** WSDL 1.1, section 1.2. */
    public static final String WSDL = "http://schemas.xmlsoap.org/wsdl/";

    /** WSDL 1.1, section 3. */
    public static final String WSDL_SOAP11 = "http://schemas.xmlsoap.org/wsdl/soap/";

    /** WSDL 1.1 Binding Extension for SOAP 1.2, section 2. */
    public static final String WSDL_SOAP12 = "http://schemas.xmlsoap.org/wsdl/soap12/";

    /** WSDL 1.1, section 4. */
    public static final String WSDL_HTTP = "http://schemas.xmlsoap.org/wsdl/http/";

    /** WSDL 1.1, section 5. */
    public static final String WSDL_MIME = "http://schemas.xmlsoap.org/wsdl/mime/";

    /** SOAP 1.1, section 5. */
    public static final String SOAP_ENCODING = "http://schemas.xmlsoap.org/soap/encoding/";

    /** Describing Media Content of Binary Data in XML, section 3. */
    public static final String MEDIA = "http://www.w3.org/2005/05/xmlmime";

    /** Web Services Policy 1.5, and the submission before it, which contracts still name. */
    public static final List<String> POLICY =
            List.of("http://www.w3.org/ns/ws-policy", "http://schemas.xmlsoap.org/ws/2004/09/policy");

    /** The working draft before {@link #ADDRESSING_METADATA}, section 3.1, which contracts still name. */
    public static final String ADDRESSING_DRAFT = "http://www.w3.org/2006/05/addressing/wsdl";

    /** WS-Addressing 1.0 Metadata, section 4.4.1, and the working draft before it. */
    public static final List<String> ADDRESSING_METADATA =
            List.of("http://www.w3.org/2007/05/addressing/metadata", ADDRESSING_DRAFT);

    /** Jakarta XML Binding, chapter 7 (binding declarations), and the name that they had before it was Jakarta's. */
    public static final List<String> XML_BINDING =
            List.of("https://jakarta.ee/xml/ns/jaxb", "http://java.sun.com/xml/ns/jaxb");

    /** Jakarta XML Web Services, chapter 8 (binding declarations), likewise. */
    public static final List<String> WEB_SERVICE_BINDING =
            List.of("https://jakarta.ee/xml/ns/jaxws", "http://java.sun.com/xml/ns/jaxws");

    /** Whether a namespace is one of binding declarations. */
    public static boolean isBinding(String namespace) {
        return XML_BINDING.contains(namespace) || WEB_SERVICE_BINDING.contains(namespace);
    }

    private Xml() {}

    /** Whether an element is a schema in the namespace of a draft. */
    public static boolean isDraftOfSchema(Element element) {
        return element.name().equals("schema") && XSD_DRAFTS.contains(element.namespace());
    }
}
