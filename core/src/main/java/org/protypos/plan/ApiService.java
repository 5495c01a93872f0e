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
     * @param isOptimized whether they ask for binary content beside the message, and nothing goes without
     * @param isAddressed whether they ask for addressing header blocks, likewise
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
            boolean isOptimized,
            boolean isAddressed,
            boolean isDefault,
            String documentation) {
        /** What it speaks, for a person. */
        public String speaks() {
            return verb == null ? protocol.title() : protocol.title() + " " + verb;
        }
    }
}
