package org.protypos.exchange;

import java.util.ArrayList;
import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/** An operation at a port that speaks SOAP. */
public record CalledOperation(
        Contract contract,
        Service service,
        Service.Port port,
        Binding binding,
        PortType portType,
        Operation operation) {
    /** How the binding carries it. */
    public BoundOperation bound() {
        return binding.operation(operation);
    }

    /** All operations at all ports that speak SOAP, those at the first port first. */
    public static List<CalledOperation> of(Contract contract) {
        List<CalledOperation> all = new ArrayList<>();
        for (Service service : contract.wsdl().services().values()) {
            for (Service.Port port : service.ports()) {
                Binding binding = contract.wsdl().bindings().get(port.binding());
                PortType portType =
                        binding == null ? null : contract.wsdl().portTypes().get(binding.portType());
                if (portType == null || !binding.protocol().isSoap()) {
                    continue;
                }
                for (Operation operation : portType.operations()) {
                    if (operation.isIncoming() && binding.operation(operation) != null) {
                        all.add(new CalledOperation(contract, service, port, binding, portType, operation));
                    }
                }
            }
        }
        return all;
    }
}
