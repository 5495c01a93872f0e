package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import org.protypos.contract.Contract;
import org.protypos.message.check.CarriedMessage;
import org.protypos.plan.Actions;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Protocol;
import org.protypos.wsdl.Service;

/** An operation at a port that speaks SOAP or plain HTTP. */
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

    /** Whether messages travel in envelopes. */
    public boolean isSoap() {
        return binding.protocol().isSoap();
    }

    /** What goes in. */
    public CarriedMessage request() {
        return new CarriedMessage(contract, binding, operation, false);
    }

    /** What comes out, or null when nothing does. */
    public CarriedMessage answer() {
        return operation.output() == null ? null : new CarriedMessage(contract, binding, operation, true);
    }

    /** Whether a policy of the port or its binding asks for something. */
    public boolean asksFor(Predicate<PolicyAssertion> what) {
        return binding.policy().stream().anyMatch(what)
                || port.policy().stream().anyMatch(what);
    }

    /** The actions that address its messages. */
    Actions actions() {
        return new Actions(portType, operation, bound(), asksFor(PolicyAssertion::isAddressing));
    }

    /** All operations at all ports that can be called: those that speak SOAP first, each kind in the contract's order. */
    public static List<CalledOperation> of(Contract contract) {
        List<CalledOperation> all = new ArrayList<>();
        List<CalledOperation> plain = new ArrayList<>();
        for (Service service : contract.wsdl().services().values()) {
            for (Service.Port port : service.ports()) {
                Binding binding = contract.wsdl().bindings().get(port.binding());
                PortType portType =
                        binding == null ? null : contract.wsdl().portTypes().get(binding.portType());
                if (portType == null || binding.protocol() == Protocol.OTHER) {
                    continue;
                }
                for (Operation operation : portType.operations()) {
                    if (operation.isIncoming() && binding.operation(operation) != null) {
                        (binding.protocol().isSoap() ? all : plain)
                                .add(new CalledOperation(contract, service, port, binding, portType, operation));
                    }
                }
            }
        }
        all.addAll(plain);
        return all;
    }
}
