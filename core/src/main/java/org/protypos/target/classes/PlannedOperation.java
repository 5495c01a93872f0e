package org.protypos.target.classes;

import java.util.List;
import org.protypos.api.ApiOperation;
import org.protypos.wire.Recognition;
import org.protypos.wsdl.PolicyAssertion;

/**
 * An operation: a method.
 *
 * @param method the name of the method
 * @param asyncMethod the name of the method that does not wait, or null when nobody wants it
 * @param parameters the names of the parameters, one for each value of the input
 * @param input what goes in
 * @param output what comes out, or null for a one-way operation
 * @param resultName the name of the type that carries several results, or null when there is at most one
 * @param faults what may come instead
 * @param api what it is in the API
 */
public record PlannedOperation(
        String method,
        String asyncMethod,
        List<String> parameters,
        PlannedMessage input,
        PlannedMessage output,
        String resultName,
        List<PlannedFault> faults,
        ApiOperation api) {
    /** The name of the operation. */
    public String xmlName() {
        return api.name();
    }

    /** The SOAP action of the default port. */
    public String soapAction() {
        return api.soapAction();
    }

    /** How a server knows its requests. */
    public Recognition recognition() {
        return api.recognition();
    }

    /** Where the default port finds it, beneath its address; null unless that speaks HTTP alone. */
    public String location() {
        return api.location();
    }

    /** What the policies of the operation ask for, at its default port. */
    public List<PolicyAssertion> policy() {
        return api.policy();
    }

    /** The actions that address the faults, in their order; empty when the contract asks for no addressing. */
    public List<String> faultActions() {
        return api.faultActions();
    }

    /** What is said about it. */
    public String documentation() {
        return api.documentation();
    }
}
