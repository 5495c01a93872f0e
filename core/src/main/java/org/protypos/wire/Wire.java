package org.protypos.wire;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.Binding;
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
    private final Map<QName, List<WireInterface>> interfaces;
    private final Map<QName, TypeReference> alone;
    private final Map<QName, List<WirePart>> wrappers;
    private final Map<Service.Port, WirePort> byPort = new IdentityHashMap<>();
    private final Map<WireInterface, WirePort> defaults = new IdentityHashMap<>();

    private Wire(
            Map<QName, WireBinding> bindings,
            List<WirePort> ports,
            Map<QName, List<WireInterface>> interfaces,
            Map<QName, TypeReference> alone,
            Map<QName, List<WirePart>> wrappers) {
        this.bindings = bindings;
        this.ports = ports;
        this.interfaces = interfaces;
        this.alone = alone;
        this.wrappers = wrappers;
        for (WirePort port : ports) {
            byPort.put(port.port(), port);
            defaults.merge(interfaceOf(port.carried()), port, Wire::preferred);
        }
    }

    private static WirePort preferred(WirePort first, WirePort next) {
        return !first.carried().binding().isOverHttp()
                        && next.carried().binding().isOverHttp()
                ? next
                : first;
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
        return new Wire(bindings, List.copyOf(ports), interfaces(contract, bindings, ports), alone, wrappers);
    }

    /** What ports have decides before what no port has. */
    private static Map<QName, List<WireInterface>> interfaces(
            Contract contract, Map<QName, WireBinding> bindings, List<WirePort> ports) {
        Map<QName, Map<QName, WireBinding>> carrying = new HashMap<>();
        Stream.concat(ports.stream().map(WirePort::carried), bindings.values().stream())
                .forEach(binding -> carrying.computeIfAbsent(binding.portType().name(), any -> new LinkedHashMap<>())
                        .putIfAbsent(binding.binding().name(), binding));
        Map<QName, List<WireInterface>> interfaces = new HashMap<>();
        carrying.forEach((name, of) -> interfaces.put(
                name, WireInterface.of(contract.wsdl().portTypes().get(name), of.values())));
        return interfaces;
    }

    /**
     * Operations whose requests begin alike and have no SOAP action of their own are told apart by the action of addressing
     * alone (Basic Profile 2.0, R2710, which counts it for the signature of an operation).
     */
    private static Need addressed(List<PolicyAssertion> policy, WireBinding carried) {
        Need asked = Need.of(policy, PolicyAssertion::isAddressing);
        return asked != Need.REQUIRED && carried.isSoap() && areToldByAddress(carried.operations()) ? Need.SENT : asked;
    }

    private static boolean areToldByAddress(List<WireOperation> operations) {
        Map<List<Object>, Set<String>> actions = new HashMap<>();
        for (WireOperation one : operations) {
            for (QName beginning : one.request().beginnings()) {
                Set<String> alike =
                        actions.computeIfAbsent(List.of(one.bound().soapAction(), beginning), any -> new HashSet<>());
                alike.add(one.request().action());
                if (alike.size() > 1) {
                    return true;
                }
            }
        }
        return false;
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

    /** What can be called and served of a port type; none when no binding that is understood carries it. */
    public List<WireInterface> interfaces(PortType portType) {
        return interfaces.getOrDefault(portType.name(), List.of());
    }

    /** What a binding belongs to. */
    public WireInterface interfaceOf(WireBinding binding) {
        return interfaces(binding.portType()).stream()
                .filter(type -> type.has(binding))
                .findFirst()
                .orElseThrow();
    }

    /** The first port of an interface over HTTP, else its first, or null when it has none. */
    public WirePort defaultPort(WireInterface type) {
        return defaults.get(type);
    }

    /** How a port is spoken to, or null when its protocol is not known. */
    public WirePort port(Service.Port port) {
        return byPort.get(port);
    }

    /** How a server that stands at a port of a binding knows its operations, in their order. */
    public List<Recognition> recognitions(WireBinding binding) {
        return interfaceOf(binding).recognitions(binding);
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
