package org.protypos.target.classes;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.api.Api;
import org.protypos.api.ApiInterface;
import org.protypos.api.ApiOperation;
import org.protypos.api.ApiService;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;

/** Turns what can be called into interfaces with their companions, and services into constants. */
final class ServicePlanner {
    private final Api api;
    private final PackageNames packages;
    private final Naming naming;
    private final ClassRules rules;
    private final OperationPlanner operations;
    private final Map<ApiInterface, PlannedInterface> planned = new IdentityHashMap<>();
    private final List<PlannedInterface> interfaces = new ArrayList<>();
    private final List<PlannedService> services = new ArrayList<>();

    ServicePlanner(Api api, PackageNames packages, Naming naming, TypePlanner types) {
        this.api = api;
        this.packages = packages;
        this.naming = naming;
        this.rules = types.rules();
        this.operations = new OperationPlanner(packages, naming, types);
    }

    List<PlannedInterface> interfaces() {
        return List.copyOf(interfaces);
    }

    List<PlannedService> services() {
        return List.copyOf(services);
    }

    List<PlannedFault> faults() {
        return operations.faults();
    }

    /** Says in each package who will want a name there. */
    void announce() {
        for (ApiInterface type : api.interfaces()) {
            packages.announce(type.subject(), type.name(), wanted(type));
        }
        for (ApiService service : api.services()) {
            packages.announce(
                    service.subject(),
                    service.name(),
                    rules.typeName(service.name().getLocalPart()));
        }
    }

    void plan() {
        for (ApiInterface type : api.interfaces()) {
            PlannedInterface one = planned(type);
            planned.put(type, one);
            interfaces.add(one);
        }
        api.services().forEach(service -> services.add(planned(service)));
    }

    private String wanted(ApiInterface type) {
        return rules.interfaceName(type.name().getLocalPart());
    }

    private PlannedInterface planned(ApiInterface type) {
        String packageName = packages.of(type.name().getNamespaceURI());
        NameScope names = packages.scope(packageName);
        String name =
                switch (type.standing()) {
                    case FIRST -> names.claim(type.subject(), wanted(type), "Port");
                    case BY_HTTP -> names.make(wanted(type) + "ByHttp", "Port");
                    case OTHERWISE ->
                        names.make(rules.interfaceName(type.binding().getLocalPart()), "Port");
                };
        NameScope methods = naming.scope(packageName + "." + name, rules.reservedMethods());
        if (rules.membersShareNamesWithTypes()) {
            methods.exclude(name);
            methods.exclude(rules.companionName(name, "Client"));
        }
        methods.expect(expected -> type.mentioned()
                .forEach(operation -> expected.wants(operation.subject(), rules.methodName(operation.name()))));
        List<PlannedOperation> methodsOfType = new ArrayList<>();
        List<String> stems = new ArrayList<>();
        type.operations().forEach(operation -> methodsOfType.add(operations.plan(type, operation, methods, stems)));
        return new PlannedInterface(
                packageName,
                name,
                names.make(rules.companionName(name, "Client"), ""),
                names.make(rules.companionName(name, "Endpoint"), ""),
                names.make(rules.companionName(name, "Servlet"), ""),
                names.make(rules.companionName(name, "Messages"), ""),
                List.copyOf(methodsOfType),
                type);
    }

    private PlannedService planned(ApiService service) {
        String packageName = packages.of(service.name().getNamespaceURI());
        String name = packages.scope(packageName)
                .claim(service.subject(), rules.typeName(service.name().getLocalPart()), "Service");
        NameScope constants = naming.scope(packageName + "." + name, rules.reservedConstants());
        if (rules.membersShareNamesWithTypes()) {
            constants.exclude(name);
        }
        List<PlannedService.Port> ports = new ArrayList<>();
        for (ApiService.Port port : service.ports()) {
            PlannedInterface type = planned.get(port.type());
            ports.add(new PlannedService.Port(
                    constants.claim(port.subject(), rules.constantName(port.name()), "_"),
                    type,
                    actions(port.targets(), type),
                    port));
        }
        return new PlannedService(packageName, name, List.copyOf(ports), service);
    }

    /** What a binding says otherwise than that of the default port, by method. */
    private static Map<String, String> actions(Map<ApiOperation, String> targets, PlannedInterface type) {
        Map<String, String> actions = new LinkedHashMap<>();
        targets.forEach((operation, target) -> type.operations().stream()
                .filter(one -> one.api() == operation)
                .forEach(one -> actions.put(one.method(), target)));
        return actions;
    }
}
