package org.protypos.wire;

import java.util.List;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.Service;

/**
 * A port whose binding is understood.
 *
 * @param carried its binding
 * @param policy what the policies of the port, the service and the binding ask for
 * @param optimized how much they ask for binary content beside the envelope (MTOM)
 * @param addressed how much they ask for addressing header blocks
 */
public record WirePort(
        Service service,
        Service.Port port,
        WireBinding carried,
        List<PolicyAssertion> policy,
        Need optimized,
        Need addressed) {}
