package org.protypos.plan;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Protocol;

/** A service: a class of constants, one for each port. */
public record ApiService(String packageName, String name, QName xmlName, List<Port> ports, String documentation) {
    /**
     * A port.
     *
     * @param constant the name of its constant
     * @param verb the HTTP method of a port that speaks HTTP alone, otherwise null
     * @param actions the SOAP actions or locations that differ from those of the default port, by operation
     * @param policy what its policies ask for
     * @param isDefault whether a client connects to it when none is named
     */
    public record Port(
            String constant,
            String xmlName,
            String address,
            Protocol protocol,
            String verb,
            ApiInterface type,
            Map<String, String> actions,
            List<PolicyAssertion> policy,
            boolean isDefault,
            String documentation) {
        /** Whether its policies ask for binary content beside the message. */
        public boolean isOptimized() {
            return policy.stream().anyMatch(assertion -> assertion.isMtom() && !assertion.optional());
        }

        /** Whether its policies ask for addressing headers. */
        public boolean isAddressed() {
            return policy.stream().anyMatch(assertion -> assertion.isAddressing() && !assertion.optional());
        }

        /** What it speaks, for a person. */
        public String speaks() {
            return verb == null ? protocol.title() : protocol.title() + " " + verb;
        }
    }
}
