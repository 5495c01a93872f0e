package org.protypos.plan;

import java.util.List;
import org.protypos.wire.Recognition;
import org.protypos.wsdl.PolicyAssertion;

/**
 * An operation: a method.
 *
 * @param method the name of the method
 * @param asyncMethod the name of the method that does not wait, or null when nobody wants it
 * @param xmlName the name of the operation
 * @param parameters the names of the parameters, one for each value of the input
 * @param input what goes in
 * @param output what comes out, or null for a one-way operation
 * @param resultName the name of the type that carries several results, or null when there is at most one
 * @param faults what may come instead
 * @param soapAction the SOAP action of the default port
 * @param recognition how a server knows its requests
 * @param location where the default port finds the operation, beneath its address; null unless it speaks HTTP alone
 * @param policy what the policies of the operation ask for, at its default port
 * @param faultActions the actions that address the faults, in their order; empty when the contract asks for no addressing
 */
public record ApiOperation(
        String method,
        String asyncMethod,
        String xmlName,
        List<String> parameters,
        ApiMessage input,
        ApiMessage output,
        String resultName,
        List<ApiFault> faults,
        String soapAction,
        Recognition recognition,
        String location,
        List<PolicyAssertion> policy,
        List<String> faultActions,
        String documentation) {}
