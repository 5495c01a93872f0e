package org.protypos.api;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.api.type.Remarks;
import org.protypos.api.type.TypeBuilder;
import org.protypos.binding.Designators;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Renaming;
import org.protypos.naming.Subject;
import org.protypos.wire.Need;
import org.protypos.wire.Recognition;
import org.protypos.wire.Wire;
import org.protypos.wire.WireBinding;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePort;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/**
 * Builds what can be called and where. A port type that is carried both by SOAP and by HTTP alone becomes two interfaces, for
 * its messages look different. The default port of an interface is the first one in the contract; its binding decides how the
 * messages look.
 */
final class ServiceBuilder {
    private final Contract contract;
    private final Wire wire;
    private final Renaming renaming;
    private final Findings findings;
    private final Remarks remarks;
    private final OperationBuilder operations;
    private final Map<QName, ApiInterface> bySoap = new HashMap<>();
    private final Map<QName, ApiInterface> byHttp = new HashMap<>();
    private final Map<ApiOperation, Operation> origins = new IdentityHashMap<>();
    private final List<ApiInterface> interfaces = new ArrayList<>();
    private final List<ApiService> services = new ArrayList<>();

    ServiceBuilder(
            Contract contract,
            Wire wire,
            Renaming renaming,
            Remarks remarks,
            OperationBuilder operations,
            Findings findings) {
        this.contract = contract;
        this.wire = wire;
        this.renaming = renaming;
        this.remarks = remarks;
        this.operations = operations;
        this.findings = findings;
    }

    List<ApiInterface> interfaces() {
        return List.copyOf(interfaces);
    }

    List<ApiService> services() {
        return List.copyOf(services);
    }

    void build() {
        contract.wsdl().portTypes().values().stream()
                .sorted((one, other) -> TypeBuilder.BY_NAME.compare(one.name(), other.name()))
                .forEach(this::interfaces);
        contract.wsdl().services().values().stream()
                .sorted((one, other) -> TypeBuilder.BY_NAME.compare(one.name(), other.name()))
                .forEach(service -> services.add(service(service)));
    }

    private void interfaces(PortType portType) {
        WireBinding soap = wire.served(portType, true);
        WireBinding http = wire.defaultBinding(portType, false);
        if (soap != null || http == null) {
            ApiInterface type = portType(portType, soap, false);
            bySoap.put(portType.name(), type);
            interfaces.add(type);
        }
        if (http != null) {
            ApiInterface type = portType(portType, http, soap != null);
            byHttp.put(portType.name(), type);
            interfaces.add(type);
        }
    }

    /** The interface that a binding is for. */
    private ApiInterface type(WireBinding binding) {
        return (binding.isSoap() ? bySoap : byHttp).get(binding.portType().name());
    }

    private ApiInterface portType(PortType portType, WireBinding binding, boolean second) {
        Subject subject = Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place());
        List<ApiOperation> built = new ArrayList<>();
        if (binding != null) {
            List<Recognition> recognitions = wire.recognitions(binding);
            for (int i = 0; i < recognitions.size(); i++) {
                WireOperation carried = binding.operations().get(i);
                boolean kept = !renaming.isOmitted(Designators.operation(portType, carried.operation()));
                ApiOperation api = kept ? operations.build(portType, carried, recognitions.get(i)) : null;
                if (api != null) {
                    origins.put(api, carried.operation());
                    built.add(api);
                }
            }
            if (binding.isSoap()) {
                alike(built);
            } else {
                alikeByHttp(binding);
            }
        }
        return new ApiInterface(
                subject,
                portType.name(),
                second,
                portType.operations().stream()
                        .map(operation ->
                                new ApiInterface.Mention(Designators.operation(portType, operation), operation.name()))
                        .toList(),
                List.copyOf(built),
                binding != null,
                binding == null || binding.isSoap() ? List.of() : verbs(portType),
                remarks.of(subject, portType.documentation()));
    }

    private List<String> verbs(PortType portType) {
        return wire.bindings(portType, false).stream()
                .map(one -> one.binding().verb())
                .distinct()
                .sorted()
                .toList();
    }

    /** A server tells operations apart by the element in the body, then by the action. */
    private void alike(List<ApiOperation> planned) {
        for (int i = 0; i < planned.size(); i++) {
            ApiOperation operation = planned.get(i);
            planned.subList(0, i).stream()
                    .filter(other -> other.recognition().hides(operation.recognition()))
                    .findFirst()
                    .ifPresent(other -> findings.warning(
                            "operations-alike",
                            origins.get(operation).place().towards("name"),
                            "the operations " + other.name() + " and " + operation.name()
                                    + " take the same message, and no SOAP action tells them apart: a server takes"
                                    + " the first",
                            "give them different SOAP actions"));
        }
    }

    /** Without an envelope they are told apart by where they are. */
    private void alikeByHttp(WireBinding binding) {
        Set<String> locations = new HashSet<>();
        for (WireOperation carried : binding.operations()) {
            BoundOperation bound = carried.bound();
            if (!locations.add(bound.location())) {
                findings.warning(
                        "operations-alike",
                        bound.place().towards("name"),
                        "the operation " + bound.name() + " is at the location of another: a server takes the"
                                + " first",
                        "give them different locations");
            }
        }
    }

    private ApiService service(Service service) {
        Subject subject = Subject.wsdl(Subject.Kind.SERVICE, service.name(), service.place());
        List<ApiService.Port> ports = new ArrayList<>();
        for (Service.Port port : service.ports()) {
            Subject named = subject.inside(Subject.Kind.PORT, port.name(), port.place());
            if (renaming.isOmitted(named)) {
                continue;
            }
            WirePort carried = carried(port);
            if (carried == null) {
                if (!isSelected(port)) {
                    continue;
                }
                findings.warning(
                        "not-generated",
                        port.place(),
                        "the port " + port.name() + " speaks a protocol that is not known",
                        "use a SOAP or HTTP port of the service if it has one");
                continue;
            }
            WireBinding binding = carried.carried();
            ApiInterface type = type(binding);
            unlike(carried);
            ports.add(new ApiService.Port(
                    named,
                    port.name(),
                    port.address(),
                    binding.binding().protocol(),
                    binding.binding().verb(),
                    type,
                    targets(binding, type),
                    carried.policy(),
                    carried.optimized() == Need.REQUIRED,
                    carried.addressed().isSent(),
                    carried.addressed() == Need.REQUIRED,
                    wire.defaultPort(binding.portType(), binding.isSoap()) == carried,
                    port.documentation()));
        }
        return new ApiService(
                subject, service.name(), List.copyOf(ports), remarks.of(subject, service.documentation()));
    }

    /** Whether its port type is in the contract, of which a selection of operations leaves others out. */
    private boolean isSelected(Service.Port port) {
        Binding binding = contract.wsdl().bindings().get(port.binding());
        return binding != null && contract.wsdl().portTypes().containsKey(binding.portType());
    }

    /** An interface is made from one binding: what another does otherwise is told. */
    private void unlike(WirePort port) {
        WireBinding made =
                wire.defaultBinding(port.carried().portType(), port.carried().isSoap());
        for (WireOperation operation : port.carried().operations()) {
            WireOperation other = made == port.carried() ? null : made.operation(operation.operation());
            String how = other == null ? null : operation.unlike(other);
            if (how != null) {
                findings.warning(
                        "bindings-unlike",
                        operation.bound().place(),
                        "the messages of " + operation.name() + " look different at the port "
                                + port.port().name() + " and at the one that the interface is made from: " + how,
                        "give the port a port type of its own; call and stand-in speak to it as it is");
            }
        }
    }

    private WirePort carried(Service.Port port) {
        return wire.ports().stream()
                .filter(one -> one.port() == port)
                .findFirst()
                .orElse(null);
    }

    /** What a binding says otherwise than that of the default port. */
    private Map<ApiOperation, String> targets(WireBinding binding, ApiInterface type) {
        Map<ApiOperation, String> targets = new LinkedHashMap<>();
        for (WireOperation carried : binding.operations()) {
            for (ApiOperation api : type.operations()) {
                String known = type.isHttp() ? api.location() : api.soapAction();
                if (origins.get(api) == carried.operation() && !known.equals(carried.target())) {
                    targets.put(api, carried.target());
                }
            }
        }
        return targets;
    }
}
