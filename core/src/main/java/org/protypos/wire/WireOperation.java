package org.protypos.wire;

import java.util.List;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;

/**
 * An operation as a binding carries it.
 *
 * @param bound what the binding says of it
 * @param request what goes in
 * @param answer what comes out, or null when nothing does
 * @param faults what may come instead
 */
public record WireOperation(
        Operation operation, BoundOperation bound, WireMessage request, WireMessage answer, List<WireFault> faults) {
    /** Its name. */
    public String name() {
        return operation.name();
    }

    /** The SOAP action, or for plain HTTP where it is found beneath the address of the port. */
    public String target() {
        return bound.location() != null ? bound.location() : bound.soapAction();
    }
}
