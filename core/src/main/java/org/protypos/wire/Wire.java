package org.protypos.wire;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Protocol;
import org.protypos.wsdl.Service;

/**
 * How the messages of a contract look, decided once for generated code and for whatever sends, answers and checks messages
 * without it. The door of this package.
 */
public final class Wire {
    private final Map<QName, WireBinding> bindings;
    private final List<WirePort> ports;
    private final Map<QName, TypeReference> alone;
    private final Map<QName, List<WirePart>> wrappers;

    private Wire(
            Map<QName, WireBinding> bindings,
            List<WirePort> ports,
            Map<QName, TypeReference> alone,
            Map<QName, List<WirePart>> wrappers) {
        this.bindings = bindings;
        this.ports = ports;
        this.alone = alone;
        this.wrappers = wrappers;
    }

    /** Decides on all messages of a sound contract. */
    public static Wire of(Contract contract) {
        MessageForms forms = new MessageForms(contract);
        Map<QName, WireBinding> bindings = new LinkedHashMap<>();
        for (Binding binding : contract.wsdl().bindings().values()) {
            PortType portType = contract.wsdl().portTypes().get(binding.portType());
            if (portType != null && binding.protocol() != Protocol.OTHER) {
                bindings.put(binding.name(), forms.binding(binding, portType));
            }
        }
        List<WirePort> ports = new ArrayList<>();
        for (Service service : contract.wsdl().services().values()) {
            for (Service.Port port : service.ports()) {
                WireBinding carried = bindings.get(port.binding());
                if (carried != null) {
                    List<PolicyAssertion> policy = PolicyAssertion.joined(
                            port.policy(), carried.binding().policy());
                    ports.add(new WirePort(
                            service,
                            port,
                            carried,
                            policy,
                            Need.of(policy, PolicyAssertion::isMtom),
                            addressed(policy, carried)));
                }
            }
        }
        Map<QName, TypeReference> alone = new HashMap<>();
        Map<QName, List<WirePart>> wrappers = new HashMap<>();
        bindings.values().stream()
                .flatMap(binding -> binding.operations().stream())
                .forEach(operation -> undeclared(operation, alone, wrappers));
        return new Wire(bindings, List.copyOf(ports), alone, wrappers);
    }

    /**
     * Operations whose requests begin alike and have no SOAP action of their own are told apart by the action of addressing
     * alone (Basic Profile 2.0, R2710, which counts it for the signature of an operation).
     */
    private static Need addressed(List<PolicyAssertion> policy, WireBinding carried) {
        Need asked = Need.of(policy, PolicyAssertion::isAddressing);
        List<WireOperation> operations = carried.operations();
        boolean alike = carried.isSoap()
                && operations.stream().anyMatch(one -> operations.stream()
                        .anyMatch(other -> one != other && areToldByAddress(one, other)));
        return asked != Need.REQUIRED && alike ? Need.SENT : asked;
    }

    private static boolean areToldByAddress(WireOperation one, WireOperation other) {
        String action = one.request().action();
        return action != null
                && !action.equals(other.request().action())
                && one.bound().soapAction().equals(other.bound().soapAction())
                && !Collections.disjoint(
                        one.request().beginnings(), other.request().beginnings());
    }

    private static void undeclared(
            WireOperation operation, Map<QName, TypeReference> alone, Map<QName, List<WirePart>> wrappers) {
        List<WirePart> outside = new ArrayList<>();
        for (WireMessage message : operation.messages()) {
            outside.addAll(message.blocks());
            if (message.isSoap() && message.isWrapped() && !message.isEncoded()) {
                wrappers.put(message.wrapper(), message.parts());
            }
        }
        operation.faults().forEach(fault -> outside.addAll(fault.details()));
        outside.stream().filter(part -> !part.isGlobal()).forEach(part -> alone.put(part.element(), part.type()));
    }

    /** The ports that speak SOAP or plain HTTP, in the contract's order. */
    public List<WirePort> ports() {
        return ports;
    }

    /** All bindings that are understood. */
    public Collection<WireBinding> bindings() {
        return bindings.values();
    }

    /** Whether some policy speaks of binary content beside the envelope (MTOM). */
    public boolean isOptimized() {
        return ports.stream().anyMatch(port -> port.optimized() != Need.NONE)
                || bindings.values().stream()
                        .flatMap(binding -> binding.binding().policy().stream())
                        .anyMatch(PolicyAssertion::isMtom);
    }

    /** How a binding carries its operations, or null when its protocol is not known. */
    public WireBinding binding(QName name) {
        return name == null ? null : bindings.get(name);
    }

    /** The bindings of a port type that speak SOAP, or plain HTTP. */
    public List<WireBinding> bindings(PortType portType, boolean soap) {
        return bindings.values().stream()
                .filter(binding -> binding.portType() == portType && binding.isSoap() == soap)
                .toList();
    }

    /** The first port of a port type that speaks SOAP, or plain HTTP; null when there is none. */
    public WirePort defaultPort(PortType portType, boolean soap) {
        return ports.stream()
                .filter(port ->
                        port.carried().portType() == portType && port.carried().isSoap() == soap)
                .findFirst()
                .orElse(null);
    }

    /** The binding of the default port, or the first that no port has; null when there is none. */
    public WireBinding defaultBinding(PortType portType, boolean soap) {
        WirePort port = defaultPort(portType, soap);
        return port != null
                ? port.carried()
                : bindings(portType, soap).stream().findFirst().orElse(null);
    }

    /**
     * The binding that an interface is made from: that of the default port, with the header blocks that the others of its kind bind.
     * A block that a port does not have is left out there.
     *
     * @return the binding, or null when there is none
     */
    public WireBinding served(PortType portType, boolean soap) {
        WireBinding first = defaultBinding(portType, soap);
        if (first == null) {
            return null;
        }
        List<WireOperation> operations = new ArrayList<>();
        for (WireOperation operation : first.operations()) {
            WireOperation all = operation;
            for (WireBinding other : bindings(portType, soap)) {
                WireOperation same = other == first ? null : other.operation(operation.operation());
                all = same == null ? all : all.with(same);
            }
            operations.add(all);
        }
        return new WireBinding(first.binding(), portType, List.copyOf(operations));
    }

    /** How a server knows each operation of a binding, in their order; it serves all ports of the port type by SOAP. */
    public List<Recognition> recognitions(WireBinding binding) {
        return Recognition.of(binding, operation -> soapActions(binding.portType(), operation.operation()));
    }

    private List<String> soapActions(PortType portType, Operation operation) {
        return bindings(portType, true).stream()
                .map(binding -> binding.operation(operation))
                .filter(Objects::nonNull)
                .map(WireOperation::bound)
                .map(BoundOperation::soapAction)
                .toList();
    }

    /** The type of an element that stands alone in a header or in a fault's detail and that no schema declares, or null. */
    public TypeReference alone(QName element) {
        return alone.get(element);
    }

    /** The parts in an element that wraps a call (SOAP 1.1, section 7.1), or null when it wraps none. */
    public List<WirePart> wrapped(QName wrapper) {
        return wrappers.get(wrapper);
    }
}
