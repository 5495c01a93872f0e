package org.protypos.wire;

import java.util.List;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;

/**
 * A fault that an operation declares (WSDL 1.1, section 3.6).
 *
 * @param use its use in the operation
 * @param details what stands in the detail; a fault is to have one part, and many contracts do not know that
 * @param action the action that addresses it, or null when nothing in the contract asks for addressing
 */
public record WireFault(Operation.Use use, Message message, List<WirePart> details, String action) {}
