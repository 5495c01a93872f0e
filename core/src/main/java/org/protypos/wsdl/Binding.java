package org.protypos.wsdl;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * A binding: how the operations of a port type travel (WSDL 1.1, section 2.5).
 *
 * @param transport the transport's URI, or null when the binding names none
 * @param verb the HTTP method of an HTTP binding, or null (WSDL 1.1, section 4.3)
 * @param policy what the policies of the binding and its port type ask for
 */
public record Binding(
        QName name,
        QName portType,
        Protocol protocol,
        String transport,
        String verb,
        List<BoundOperation> operations,
        List<PolicyAssertion> policy,
        String documentation,
        Place place) {
    /** SOAP over HTTP, the transport everybody means (WSDL 1.1, section 3.3). */
    public static final String HTTP_TRANSPORT = "http://schemas.xmlsoap.org/soap/http";

    /** The bound operation of a name, or null; overloads are told apart by the names of input and output. */
    public BoundOperation operation(Operation operation) {
        BoundOperation found = null;
        for (BoundOperation bound : operations) {
            if (bound.name().equals(operation.name())) {
                if (bound.fits(operation)) {
                    return bound;
                }
                found = found == null ? bound : found;
            }
        }
        return found;
    }
}
