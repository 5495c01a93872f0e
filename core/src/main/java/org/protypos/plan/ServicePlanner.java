package org.protypos.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Protocol;
import org.protypos.wsdl.Service;

/**
 * Turns port types into interfaces and services into constants. A port type that is carried both by SOAP and by HTTP alone
 * becomes two interfaces, for its messages look different. The default port of an interface is the first one in the
 * contract; its binding decides how the messages look.
 */
final class ServicePlanner {
    private final Contract contract;
    private final PackageNames packages;
    private final Naming naming;
    private final NameRules rules;
    private final Findings findings;
    private final TypePlanner types;
    private final OperationPlanner operations;
    private final Map<QName, ApiInterface> bySoap = new TreeMap<>(TypePlanner.BY_NAME);
    private final Map<QName, ApiInterface> byHttp = new TreeMap<>(TypePlanner.BY_NAME);
    private final List<ApiInterface> interfaces = new ArrayList<>();
    private final List<ApiService> services = new ArrayList<>();

    ServicePlanner(Contract contract, PackageNames packages, Naming naming, TypePlanner types, Findings findings) {
        this.contract = contract;
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
            packages.announce(Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place()), portType.name());
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
        Binding soap = defaultBinding(portType, true);
        Binding http = defaultBinding(portType, false);
        String name = rules.typeName(portType.name().getLocalPart());
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

    /** The interface that a binding is for, or null when no code is generated for its protocol. */
    private ApiInterface type(Binding binding) {
        return binding == null || binding.protocol() == Protocol.OTHER
                ? null
                : (binding.protocol().isSoap() ? bySoap : byHttp).get(binding.portType());
    }

    private ApiInterface portType(PortType portType, Binding binding, String wanted) {
        String packageName = packages.of(portType.name().getNamespaceURI());
        NameScope names = packages.scope(packageName);
        Subject subject = Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place());
        String name = wanted.equals(rules.typeName(portType.name().getLocalPart()))
                ? names.claim(subject, wanted, "Port")
                : names.make(wanted, "Port");
        NameScope methods = naming.scope(packageName + "." + name, rules.reservedMethods());
        methods.expect(expected -> portType.operations()
                .forEach(operation -> expected.wants(
                        Designators.operation(portType, operation), rules.methodName(operation.name()))));
        List<ApiOperation> planned = new ArrayList<>();
        for (Operation operation : portType.operations()) {
            BoundOperation bound = binding == null ? null : binding.operation(operation);
            boolean kept = !naming.isOmitted(Designators.operation(portType, operation));
            if (bound != null && operation.isIncoming() && kept) {
                ApiOperation api = operations.plan(
                        portType, operation, bound, soapActions(portType, operation), isAddressed(portType), methods);
                if (api != null) {
                    planned.add(api);
                }
            }
        }
        alike(portType, planned);
        return new ApiInterface(
                packageName,
                name,
                portType.name(),
                names.make(name + "Client", ""),
                names.make(name + "Endpoint", ""),
                names.make(name + "Servlet", ""),
                names.make(name + "Messages", ""),
                List.copyOf(planned),
                binding != null,
                binding == null || binding.protocol().isSoap() ? List.of() : verbs(portType),
                types.shapes().documentation(subject, portType.documentation()));
    }

    private List<String> verbs(PortType portType) {
        return contract.wsdl().bindings().values().stream()
                .filter(binding -> isFor(binding, portType) && binding.protocol() == Protocol.HTTP)
                .map(Binding::verb)
                .distinct()
                .sorted()
                .toList();
    }

    /** Whether a policy of some port or binding asks for addressing headers. */
    private boolean isAddressed(PortType portType) {
        boolean byBinding = contract.wsdl().bindings().values().stream()
                .filter(binding -> isFor(binding, portType))
                .anyMatch(binding -> binding.policy().stream().anyMatch(PolicyAssertion::isAddressing));
        return byBinding
                || contract.wsdl().services().values().stream()
                        .flatMap(service -> service.ports().stream())
                        .filter(port -> isFor(contract.wsdl().bindings().get(port.binding()), portType))
                        .anyMatch(port -> port.policy().stream().anyMatch(PolicyAssertion::isAddressing));
    }

    private List<String> soapActions(PortType portType, Operation operation) {
        return contract.wsdl().bindings().values().stream()
                .filter(binding -> isFor(binding, portType))
                .map(binding -> binding.operation(operation))
                .filter(Objects::nonNull)
                .map(BoundOperation::soapAction)
                .distinct()
                .toList();
    }

    /** A server tells operations apart by the element in the body, then by the action. */
    private void alike(PortType portType, List<ApiOperation> planned) {
        Map<List<Object>, ApiOperation> known = new HashMap<>();
        for (ApiOperation operation : planned) {
            Object element = operation.input().body() == null
                    ? ""
                    : operation.input().body().xmlName();
            for (String action : operation.soapActions()) {
                ApiOperation other = known.putIfAbsent(List.of(element, action), operation);
                if (other != null && other != operation) {
                    findings.warning(
                            "operations-alike",
                            portType.place().towards("name"),
                            "the operations " + other.xmlName() + " and " + operation.xmlName()
                                    + " take the same message with the same SOAP action: a server cannot tell them"
                                    + " apart and takes the first",
                            "give them different SOAP actions");
                }
            }
        }
    }

    /** The binding of the default port that speaks SOAP, or HTTP alone; without such a port the first such binding. */
    private Binding defaultBinding(PortType portType, boolean soap) {
        Service.Port port = defaultPort(portType.name(), soap);
        return port != null
                ? contract.wsdl().bindings().get(port.binding())
                : contract.wsdl().bindings().values().stream()
                        .filter(binding -> isFor(binding, portType))
                        .filter(binding -> binding.protocol().isSoap() == soap)
                        .findFirst()
                        .orElse(null);
    }

    /** Whether a binding carries a port type in a way that code is generated for. */
    private static boolean isFor(Binding binding, PortType portType) {
        return binding != null
                && binding.protocol() != Protocol.OTHER
                && binding.portType().equals(portType.name());
    }

    private ApiService service(Service service) {
        String packageName = packages.of(service.name().getNamespaceURI());
        Subject subject = Subject.wsdl(Subject.Kind.SERVICE, service.name(), service.place());
        String name = packages.scope(packageName)
                .claim(subject, rules.typeName(service.name().getLocalPart()), "Service");
        NameScope constants = naming.scope(packageName + "." + name, List.of());
        List<ApiService.Port> ports = new ArrayList<>();
        for (Service.Port port : service.ports()) {
            if (naming.isOmitted(subject.inside(Subject.Kind.PORT, port.name(), port.place()))) {
                continue;
            }
            Binding binding = contract.wsdl().bindings().get(port.binding());
            ApiInterface type = type(binding);
            if (type == null) {
                findings.warning(
                        "not-generated",
                        port.place(),
                        "the port " + port.name() + " speaks a protocol that is not known",
                        "use a SOAP or HTTP port of the service if it has one");
                continue;
            }
            ports.add(new ApiService.Port(
                    constants.claim(
                            subject.inside(Subject.Kind.PORT, port.name(), port.place()),
                            rules.constantName(port.name()),
                            "_"),
                    port.name(),
                    port.address(),
                    binding.protocol(),
                    binding.verb(),
                    type,
                    actions(binding, type),
                    PolicyAssertion.joined(port.policy(), binding.policy()),
                    defaultPort(binding.portType(), binding.protocol().isSoap()) == port,
                    port.documentation()));
        }
        return new ApiService(
                packageName,
                name,
                service.name(),
                List.copyOf(ports),
                types.shapes().documentation(subject, service.documentation()));
    }

    /** The first port in the contract that speaks SOAP, or HTTP alone. */
    private Service.Port defaultPort(QName portType, boolean soap) {
        for (Service service : contract.wsdl().services().values()) {
            for (Service.Port port : service.ports()) {
                Binding binding = contract.wsdl().bindings().get(port.binding());
                if (binding != null
                        && binding.portType().equals(portType)
                        && binding.protocol() != Protocol.OTHER
                        && binding.protocol().isSoap() == soap) {
                    return port;
                }
            }
        }
        return null;
    }

    private Map<String, String> actions(Binding binding, ApiInterface type) {
        Map<String, String> actions = new LinkedHashMap<>();
        PortType portType = contract.wsdl().portTypes().get(binding.portType());
        for (Operation operation : portType.operations()) {
            BoundOperation bound = binding.operation(operation);
            for (ApiOperation api : type.operations()) {
                if (bound == null || !api.xmlName().equals(operation.name())) {
                    continue;
                }
                String known = type.isHttp() ? api.location() : api.soapAction();
                String own = type.isHttp() ? bound.location() : bound.soapAction();
                if (!known.equals(own)) {
                    actions.put(api.method(), own);
                }
            }
        }
        return actions;
    }
}
