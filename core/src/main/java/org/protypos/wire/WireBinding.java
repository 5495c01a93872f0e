package org.protypos.wire;

import java.util.List;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/**
 * A binding that is understood: of SOAP or of plain HTTP.
 *
 * @param operations those operations of the port type that begin with a request and that the binding carries, in the order
 *     of the port type
 */
public record WireBinding(Binding binding, PortType portType, List<WireOperation> operations) {
    /** How it carries an operation, or null when it does not. */
    public WireOperation operation(Operation wanted) {
        return operations.stream()
                .filter(one -> one.operation() == wanted)
                .findFirst()
                .orElse(null);
    }

    /** Whether messages travel in envelopes. */
    public boolean isSoap() {
        return binding.protocol().isSoap();
    }
}
