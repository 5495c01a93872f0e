package org.protypos.api;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Protocol;

/**
 * A service.
 *
 * @param subject how rules speak of it
 */
public record ApiService(Subject subject, QName name, List<Port> ports, String documentation) {
    /**
     * A port.
     *
     * @param subject how rules speak of it
     * @param verb the HTTP method of a port that speaks HTTP alone, otherwise null
     * @param type what can be called there
     * @param targets the SOAP actions or locations that differ from those of the default port, by operation
     * @param policy what its policies ask for
     * @param isOptimized whether they ask for binary content beside the message, and nothing goes without
     * @param isAddressed whether requests have addressing header blocks
     * @param isAddressNeeded whether its policies ask for them, and nothing goes without
     * @param isDefault whether a client connects to it when none is named
     */
    public record Port(
            Subject subject,
            String name,
            String address,
            Protocol protocol,
            String verb,
            ApiInterface type,
            Map<ApiOperation, String> targets,
            List<PolicyAssertion> policy,
            boolean isOptimized,
            boolean isAddressed,
            boolean isAddressNeeded,
            boolean isDefault,
            String documentation) {
        /** What it speaks, for a person. */
        public String speaks() {
            return verb == null ? protocol.title() : protocol.title() + " " + verb;
        }
    }
}
