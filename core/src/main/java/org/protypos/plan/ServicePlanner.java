package org.protypos.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.wire.Need;
import org.protypos.wire.Recognition;
import org.protypos.wire.Wire;
import org.protypos.wire.WireBinding;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePort;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/**
 * Turns port types into interfaces and services into constants. A port type that is carried both by SOAP and by HTTP alone
 * becomes two interfaces, for its messages look different. The default port of an interface is the first one in the
 * contract; its binding decides how the messages look.
 */
final class ServicePlanner {
    private final Contract contract;
    private final Wire wire;
    private final PackageNames packages;
    private final Naming naming;
    private final NameRules rules;
    private final Findings findings;
    private final TypePlanner types;
    private final OperationPlanner operations;
    private final Map<QName, ApiInterface> bySoap = new TreeMap<>(TypePlanner.BY_NAME);
    private final Map<QName, ApiInterface> byHttp = new TreeMap<>(TypePlanner.BY_NAME);
    private final Map<ApiOperation, Operation> origins = new IdentityHashMap<>();
    private final List<ApiInterface> interfaces = new ArrayList<>();
    private final List<ApiService> services = new ArrayList<>();

    ServicePlanner(
            Contract contract, Wire wire, PackageNames packages, Naming naming, TypePlanner types, Findings findings) {
        this.contract = contract;
        this.wire = wire;
        this.packages = packages;
        this.naming = naming;
        this.rules = naming.rules();
        this.findings = findings;
        this.types = types;
        this.operations = new OperationPlanner(contract, packages, naming, types, findings);
    }

    List<ApiInterface> interfaces() {
        return List.copyOf(interfaces);
    }

    List<ApiService> services() {
        return List.copyOf(services);
    }

    /** What the elements hold that wrap remote procedure calls. */
    Map<QName, ValueType> callElements() {
        return operations.callElements();
    }

    List<ApiFault> faults() {
        return operations.faults();
    }

    /** Says in each package who will want a name there. */
    void announce() {
        for (PortType portType : contract.wsdl().portTypes().values()) {
            packages.announce(
                    Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place()),
                    portType.name(),
                    rules.interfaceName(portType.name().getLocalPart()));
        }
        for (Service service : contract.wsdl().services().values()) {
            packages.announce(Subject.wsdl(Subject.Kind.SERVICE, service.name(), service.place()), service.name());
        }
    }

    void plan() {
        contract.wsdl().portTypes().values().stream()
                .sorted(Comparator.comparing(PortType::name, TypePlanner.BY_NAME))
                .forEach(this::interfaces);
        contract.wsdl().services().values().stream()
                .sorted(Comparator.comparing(Service::name, TypePlanner.BY_NAME))
                .forEach(service -> services.add(service(service)));
    }

    private void interfaces(PortType portType) {
        WireBinding soap = wire.served(portType, true);
        WireBinding http = wire.defaultBinding(portType, false);
        String name = rules.interfaceName(portType.name().getLocalPart());
        if (soap != null || http == null) {
            ApiInterface type = portType(portType, soap, name);
            bySoap.put(portType.name(), type);
            interfaces.add(type);
        }
        if (http != null) {
            ApiInterface type = portType(portType, http, soap == null ? name : name + "ByHttp");
            byHttp.put(portType.name(), type);
            interfaces.add(type);
        }
    }

    /** The interface that a binding is for. */
    private ApiInterface type(WireBinding binding) {
        return (binding.isSoap() ? bySoap : byHttp).get(binding.portType().name());
    }

    private ApiInterface portType(PortType portType, WireBinding binding, String wanted) {
        String packageName = packages.of(portType.name().getNamespaceURI());
        NameScope names = packages.scope(packageName);
        Subject subject = Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place());
        String name = wanted.equals(rules.interfaceName(portType.name().getLocalPart()))
                ? names.claim(subject, wanted, "Port")
                : names.make(wanted, "Port");
        NameScope methods = naming.scope(packageName + "." + name, rules.reservedMethods());
        if (rules.membersShareNamesWithTypes()) {
            methods.exclude(name);
            methods.exclude(rules.companionName(name, "Client"));
        }
        methods.expect(expected -> portType.operations()
                .forEach(operation -> expected.wants(
                        Designators.operation(portType, operation), rules.methodName(operation.name()))));
        List<ApiOperation> planned = new ArrayList<>();
        if (binding != null) {
            List<Recognition> recognitions = wire.recognitions(binding);
            for (int i = 0; i < recognitions.size(); i++) {
                WireOperation carried = binding.operations().get(i);
                boolean kept = !naming.isOmitted(Designators.operation(portType, carried.operation()));
                ApiOperation api = kept ? operations.plan(portType, carried, recognitions.get(i), methods) : null;
                if (api != null) {
                    origins.put(api, carried.operation());
                    planned.add(api);
                }
            }
            alike(portType, planned);
        }
        return new ApiInterface(
                packageName,
                name,
                portType.name(),
                names.make(rules.companionName(name, "Client"), ""),
                names.make(rules.companionName(name, "Endpoint"), ""),
                names.make(rules.companionName(name, "Servlet"), ""),
                names.make(rules.companionName(name, "Messages"), ""),
                List.copyOf(planned),
                binding != null,
                binding == null || binding.isSoap() ? List.of() : verbs(portType),
                types.shapes().documentation(subject, portType.documentation()));
    }

    private List<String> verbs(PortType portType) {
        return wire.bindings(portType, false).stream()
                .map(one -> one.binding().verb())
                .distinct()
                .sorted()
                .toList();
    }

    /** A server tells operations apart by the element in the body, then by the action. */
    private void alike(PortType portType, List<ApiOperation> planned) {
        for (int i = 0; i < planned.size(); i++) {
            ApiOperation operation = planned.get(i);
            planned.subList(0, i).stream()
                    .filter(other -> other.recognition().hides(operation.recognition()))
                    .findFirst()
                    .ifPresent(other -> findings.warning(
                            "operations-alike",
                            portType.place().towards("name"),
                            "the operations " + other.xmlName() + " and " + operation.xmlName()
                                    + " take the same message with the same SOAP action: a server cannot tell them"
                                    + " apart and takes the first",
                            "give them different SOAP actions"));
        }
    }

    private ApiService service(Service service) {
        String packageName = packages.of(service.name().getNamespaceURI());
        Subject subject = Subject.wsdl(Subject.Kind.SERVICE, service.name(), service.place());
        String name = packages.scope(packageName)
                .claim(subject, rules.typeName(service.name().getLocalPart()), "Service");
        NameScope constants = naming.scope(packageName + "." + name, List.of());
        if (rules.membersShareNamesWithTypes()) {
            constants.exclude(name);
        }
        List<ApiService.Port> ports = new ArrayList<>();
        for (Service.Port port : service.ports()) {
            if (naming.isOmitted(subject.inside(Subject.Kind.PORT, port.name(), port.place()))) {
                continue;
            }
            WirePort carried = carried(port);
            if (carried == null) {
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
                    constants.claim(
                            subject.inside(Subject.Kind.PORT, port.name(), port.place()),
                            rules.constantName(port.name()),
                            "_"),
                    port.name(),
                    port.address(),
                    binding.binding().protocol(),
                    binding.binding().verb(),
                    type,
                    targets(binding, type),
                    carried.policy(),
                    carried.optimized() == Need.REQUIRED,
                    carried.addressed() == Need.REQUIRED,
                    wire.defaultPort(binding.portType(), binding.isSoap()) == carried,
                    port.documentation()));
        }
        return new ApiService(
                packageName,
                name,
                service.name(),
                List.copyOf(ports),
                types.shapes().documentation(subject, service.documentation()));
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
    private Map<String, String> targets(WireBinding binding, ApiInterface type) {
        Map<String, String> targets = new LinkedHashMap<>();
        for (WireOperation carried : binding.operations()) {
            for (ApiOperation api : type.operations()) {
                String known = type.isHttp() ? api.location() : api.soapAction();
                if (origins.get(api) == carried.operation() && !known.equals(carried.target())) {
                    targets.put(api.method(), carried.target());
                }
            }
        }
        return targets;
    }
}
