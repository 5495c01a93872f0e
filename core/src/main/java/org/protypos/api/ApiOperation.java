package org.protypos.api;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.wire.Recognition;
import org.protypos.wsdl.PolicyAssertion;

/**
 * An operation.
 *
 * @param subject how rules speak of it
 * @param name its name
 * @param input what goes in
 * @param output what comes out, or null for a one-way operation
 * @param faults what may come instead
 * @param bindings the bindings that carry it so
 * @param soapAction the SOAP action of the default port
 * @param recognition how a server knows its requests
 * @param locations where ports find the operation, beneath their addresses, the default port first; empty unless they speak HTTP
 *     alone
 * @param policy what the policies of the operation ask for, at its default port
 * @param faultActions the actions that address the faults, in their order; empty when the contract asks for no addressing
 */
public record ApiOperation(
        Subject subject,
        String name,
        ApiMessage input,
        ApiMessage output,
        List<ApiFault> faults,
        List<QName> bindings,
        String soapAction,
        Recognition recognition,
        List<String> locations,
        List<PolicyAssertion> policy,
        List<String> faultActions,
        String documentation) {
    /** Where the default port finds it, beneath its address; null unless that speaks HTTP alone. */
    public String location() {
        return locations.isEmpty() ? null : locations.get(0);
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }
}
