package org.protypos.contract;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.NearestName;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/**
 * Some of the services, ports and operations of a contract, named by patterns in which {@code *} stands for any text. A
 * list without a pattern selects all.
 */
public record Selection(List<String> services, List<String> ports, List<String> operations) {
    /** A pattern that nothing matches, with the names that there are. */
    public record Unmatched(String kind, String pattern, Collection<String> known) {
        /** What is wrong. */
        public String message() {
            return "the contract has no " + kind + " " + pattern;
        }

        /** The nearest name that there is, or the first of them. */
        public String cure() {
            return NearestName.cure(
                    pattern,
                    known,
                    "it has " + known.stream().limit(SHOWN_NAMES).collect(Collectors.joining(", ")));
        }
    }

    private static final int SHOWN_NAMES = 12;

    /** Whether everything is selected. */
    public boolean isAll() {
        return services.isEmpty() && ports.isEmpty() && operations.isEmpty();
    }

    private static boolean matches(List<String> patterns, String name) {
        return patterns.isEmpty() || patterns.stream().anyMatch(pattern -> matches(pattern, name));
    }

    /** Whether a name fits a pattern; neither capitals nor underscores matter. */
    public static boolean matches(String pattern, String name) {
        return plain(name).matches(Pattern.quote(plain(pattern)).replace("*", "\\E.*\\Q"));
    }

    /** Names are shown in more than one spelling: SOAP12_DESK is the port Soap12Desk. */
    private static String plain(String name) {
        return name.replace("_", "").toLowerCase(Locale.ROOT);
    }

    /** The patterns that match nothing in a contract. */
    public List<Unmatched> unmatched(Contract contract) {
        Set<String> serviceNames = new LinkedHashSet<>();
        Set<String> portNames = new LinkedHashSet<>();
        Set<String> operationNames = new LinkedHashSet<>();
        for (Service service : contract.wsdl().services().values()) {
            serviceNames.add(service.name().getLocalPart());
            service.ports().forEach(port -> portNames.add(port.name()));
        }
        for (PortType type : contract.wsdl().portTypes().values()) {
            type.operations().forEach(operation -> operationNames.add(operation.name()));
        }
        List<Unmatched> unmatched = new ArrayList<>();
        collect("service", services, serviceNames, unmatched);
        collect("port", ports, portNames, unmatched);
        collect("operation", operations, operationNames, unmatched);
        return unmatched;
    }

    private static void collect(String kind, List<String> patterns, Set<String> names, List<Unmatched> to) {
        for (String pattern : patterns) {
            if (names.stream().noneMatch(name -> matches(pattern, name))) {
                to.add(new Unmatched(kind, pattern, names));
            }
        }
    }

    /** The contract with what is selected, and of its schemas what that needs. */
    public Contract of(Contract contract) {
        if (isAll()) {
            return contract;
        }
        Definitions wsdl = contract.wsdl();
        Map<QName, Service> keptServices = new LinkedHashMap<>();
        Set<QName> usedBindings = new HashSet<>();
        for (Service service : wsdl.services().values()) {
            List<Service.Port> kept = service.ports().stream()
                    .filter(port -> matches(ports, port.name()))
                    .toList();
            if (matches(services, service.name().getLocalPart()) && !kept.isEmpty()) {
                kept.forEach(port -> usedBindings.add(port.binding()));
                keptServices.put(
                        service.name(), new Service(service.name(), kept, service.documentation(), service.place()));
            }
        }
        Map<QName, Binding> keptBindings = new LinkedHashMap<>(wsdl.bindings());
        if (!services.isEmpty() || !ports.isEmpty()) {
            keptBindings.keySet().retainAll(usedBindings);
        }
        Set<QName> usedTypes = new HashSet<>();
        keptBindings.values().forEach(binding -> usedTypes.add(binding.portType()));
        Map<QName, PortType> keptTypes = new LinkedHashMap<>();
        for (PortType type : wsdl.portTypes().values()) {
            List<Operation> kept = type.operations().stream()
                    .filter(operation -> matches(operations, operation.name()))
                    .toList();
            if (!kept.isEmpty() && (usedTypes.contains(type.name()) || services.isEmpty() && ports.isEmpty())) {
                keptTypes.put(type.name(), new PortType(type.name(), kept, type.documentation(), type.place()));
            }
        }
        keptBindings.values().removeIf(binding -> !keptTypes.containsKey(binding.portType()));
        keptServices.values().removeIf(service -> service.ports().stream()
                .noneMatch(port -> keptBindings.containsKey(port.binding())));
        Definitions kept = new Definitions(wsdl.messages(), keptTypes, keptBindings, keptServices, wsdl.findings());
        return new Contract(
                contract.documents(), new NeededSchema(contract.schema()).of(kept), kept, contract.findings());
    }
}
