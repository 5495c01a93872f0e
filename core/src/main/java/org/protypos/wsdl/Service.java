package org.protypos.wsdl;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A service: a set of ports (WSDL 1.1, section 2.7). */
public record Service(QName name, List<Port> ports, String documentation, Place place) {
    /**
     * A port: a binding at an address (WSDL 1.1, section 2.6).
     *
     * @param address the address, empty when the contract has none
     * @param policy what the policies of the port and the service ask for
     */
    public record Port(
            String name,
            QName binding,
            Protocol protocol,
            String address,
            List<PolicyAssertion> policy,
            String documentation,
            Place place) {}
}
