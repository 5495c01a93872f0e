package org.protypos.wire;

import java.util.List;
import java.util.stream.Collectors;
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
    /** The same operation with the header blocks that another binding has for it. */
    WireOperation with(WireOperation other) {
        return new WireOperation(
                operation,
                bound,
                request.with(other.request),
                answer == null || other.answer == null ? answer : answer.with(other.answer),
                faults);
    }

    /** How another binding carries the operation otherwise, apart from header blocks; null when it does not. */
    public String unlike(WireOperation other) {
        String asked = request.unlike(other.request);
        return asked != null || answer == null || other.answer == null ? asked : answer.unlike(other.answer);
    }

    /** The detail of a fault, by the name of its element or of the fault; null when none is declared so. */
    public WirePart detail(String wanted) {
        for (WireFault fault : faults) {
            for (WirePart part : fault.details()) {
                boolean meant = part.element().getLocalPart().equals(wanted)
                        || wanted.equals(fault.use().name());
                if (part.isGlobal() && meant) {
                    return part;
                }
            }
        }
        return null;
    }

    /** Its messages: the request, and the answer if it has one. */
    public List<WireMessage> messages() {
        return answer == null ? List.of(request) : List.of(request, answer);
    }

    /** Its name. */
    public String name() {
        return operation.name();
    }

    /** The SOAP action, or for plain HTTP where it is found beneath the address of the port. */
    public String target() {
        if (request.form() != WireMessage.Form.REPLACED) {
            return bound.location() != null ? bound.location() : bound.soapAction();
        }
        return BoundOperation.placing(
                request.parts().stream().map(WirePart::name).collect(Collectors.toSet()), bound.location());
    }
}
