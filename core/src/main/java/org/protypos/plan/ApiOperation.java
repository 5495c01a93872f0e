package org.protypos.plan;

import java.util.List;

/**
 * An operation: a method.
 *
 * @param method the name of the method
 * @param asyncMethod the name of the method that does not wait
 * @param xmlName the name of the operation
 * @param parameters the names of the parameters, one for each value of the input
 * @param input what goes in
 * @param output what comes out, or null for a one-way operation
 * @param resultName the name of the type that carries several results, or null when there is at most one
 * @param faults what may come instead
 * @param soapAction the SOAP action of the default port
 * @param soapActions the SOAP actions of all ports, each once
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
        List<String> soapActions,
        String documentation) {}
