package org.protypos.api;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
import org.protypos.wire.WireInterface;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePort;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/**
 * Builds what can be called and where. A port type becomes as many interfaces as it has ways in which bindings make its messages
 * look. The default port of an interface is the first one in the contract.
 */
final class ServiceBuilder {
    private final Contract contract;
    private final Wire wire;
    private final Renaming renaming;
    private final Findings findings;
    private final Remarks remarks;
    private final OperationBuilder operations;
    private final Map<WireInterface, ApiInterface> built = new IdentityHashMap<>();
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
        List<WireInterface> carried = wire.interfaces(portType);
        if (carried.isEmpty()) {
            interfaces.add(portType(portType, null));
        }
        for (WireInterface one : carried) {
            ApiInterface type = portType(portType, one);
            built.put(one, type);
            interfaces.add(type);
            if (one.otherwise() != null) {
                otherwise(one);
            }
        }
    }

    private ApiInterface portType(PortType portType, WireInterface carried) {
        Subject subject = Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place());
        return new ApiInterface(
                subject,
                portType.name(),
                carried == null ? WireInterface.Standing.FIRST : carried.standing(),
                carried == null ? null : carried.made().binding().name(),
                portType.operations().stream()
                        .map(operation ->
                                new ApiInterface.Mention(Designators.operation(portType, operation), operation.name()))
                        .toList(),
                carried == null ? List.of() : operations(portType, carried),
                carried == null || carried.isSoap() ? List.of() : verbs(carried),
                remarks.of(subject, portType.documentation()));
    }

    private List<ApiOperation> operations(PortType portType, WireInterface carried) {
        List<ApiOperation> planned = new ArrayList<>();
        List<Recognition> recognitions = carried.recognitions();
        for (int i = 0; i < recognitions.size(); i++) {
            WireOperation operation = carried.made().operations().get(i);
            boolean kept = !renaming.isOmitted(Designators.operation(portType, operation.operation()));
            ApiOperation api = kept ? operations.build(portType, carried, operation, recognitions.get(i)) : null;
            if (api != null) {
                origins.put(api, operation.operation());
                planned.add(api);
            }
        }
        if (carried.isSoap()) {
            alike(planned);
        } else {
            alikeByHttp(carried);
        }
        return List.copyOf(planned);
    }

    private static List<String> verbs(WireInterface carried) {
        return carried.bindings().stream()
                .map(one -> one.binding().verb())
                .distinct()
                .sorted()
                .toList();
    }

    /** What looks different has an interface of its own. */
    private void otherwise(WireInterface carried) {
        WireOperation operation = carried.otherwise().operation();
        findings.note(
                "bindings-unlike",
                operation.bound().place().towards("name"),
                "the messages of " + operation.name() + " look different in the binding "
                        + carried.made().binding().name().getLocalPart()
                        + " and in the one that the interface of the port type is made from: "
                        + carried.otherwise().how(),
                "call and serve its ports by the interface that is made from this binding");
    }

    /** A server tells operations apart by the element in the body, then by the action. */
    private void alike(List<ApiOperation> planned) {
        // Only those that begin alike may be taken for each other.
        Map<QName, List<Integer>> before = new HashMap<>();
        for (int i = 0; i < planned.size(); i++) {
            ApiOperation operation = planned.get(i);
            List<QName> beginnings = operation.recognition().beginnings();
            beginnings.stream()
                    .flatMap(beginning -> before.getOrDefault(beginning, List.of()).stream())
                    .sorted()
                    .map(planned::get)
                    .filter(other -> other.recognition().hides(operation.recognition()))
                    .findFirst()
                    .ifPresent(other -> findings.warning(
                            "operations-alike",
                            origins.get(operation).place().towards("name"),
                            "the operations " + other.name() + " and " + operation.name()
                                    + " take the same message, and no SOAP action tells them apart: a server takes"
                                    + " the first",
                            "give them different SOAP actions"));
            for (QName beginning : beginnings) {
                before.computeIfAbsent(beginning, any -> new ArrayList<>()).add(i);
            }
        }
    }

    /** Without an envelope they are told apart by where they are. */
    private void alikeByHttp(WireInterface carried) {
        Map<String, Operation> locations = new HashMap<>();
        for (WireOperation operation : carried.made().operations()) {
            for (String location : carried.locations(operation.operation())) {
                Operation other = locations.putIfAbsent(location, operation.operation());
                if (other != null) {
                    findings.warning(
                            "operations-alike",
                            operation.bound().place().towards("name"),
                            "the operation " + operation.name() + " is at the location of another: a server takes the"
                                    + " first",
                            "give them different locations");
                }
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
            WirePort carried = wire.port(port);
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
            WireInterface of = wire.interfaceOf(binding);
            ApiInterface type = built.get(of);
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
                    wire.defaultPort(of) == carried,
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

    /** What a binding says otherwise than that of the default port. */
    private Map<ApiOperation, String> targets(WireBinding binding, ApiInterface type) {
        Map<ApiOperation, String> targets = new LinkedHashMap<>();
        for (ApiOperation api : type.operations()) {
            WireOperation carried = binding.operation(origins.get(api));
            String known = type.isHttp() ? api.location() : api.soapAction();
            if (carried != null && !known.equals(carried.target())) {
                targets.put(api, carried.target());
            }
        }
        return targets;
    }
}
