package org.protypos.api;

import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.api.type.ApiElement;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Remarks;
import org.protypos.api.type.TypeBuilder;
import org.protypos.binding.Rules;
import org.protypos.binding.Shaping;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.Renaming;
import org.protypos.source.Document;
import org.protypos.wire.Wire;

/** Builds the typed API of a contract. The door of this package. */
public final class ApiBuilder {
    private ApiBuilder() {}

    /**
     * Builds the API.
     *
     * @param contract a sound contract
     * @param rules what somebody wants left out, said or taken apart
     */
    public static Api build(Contract contract, Rules rules) {
        return rules.all().isEmpty() ? build(contract, Renaming.NONE, Shaping.NONE) : build(contract, rules, rules);
    }

    private static Api build(Contract contract, Renaming renaming, Shaping shaping) {
        Findings findings = new Findings();
        Wire wire = Wire.of(contract);
        Remarks remarks = new Remarks(shaping);
        TypeBuilder types =
                new TypeBuilder(contract.schema(), renaming, remarks, findings, wire.isOptimized(), isEncoded(wire));
        OperationBuilder operations = new OperationBuilder(contract, renaming, shaping, types, findings);
        ServiceBuilder services = new ServiceBuilder(contract, wire, renaming, remarks, operations, findings);
        types.build();
        Map<QName, ApiValue> named = types.namedTypes();
        Map<QName, ApiElement> elements = types.globalElements();
        services.build();
        return new Api(
                mainNamespace(contract),
                namespaces(contract),
                types.globalTypes(),
                named,
                elements,
                operations.callElements(),
                services.interfaces(),
                services.services(),
                findings.sorted());
    }

    private static boolean isEncoded(Wire wire) {
        return wire.bindings().stream()
                .flatMap(binding -> binding.operations().stream())
                .anyMatch(operation -> operation.request().isEncoded()
                        || operation.answer() != null && operation.answer().isEncoded());
    }

    private static Set<String> namespaces(Contract contract) {
        Set<String> namespaces = new LinkedHashSet<>();
        Stream.of(
                        contract.schema().types().keySet(),
                        contract.schema().elements().keySet(),
                        contract.wsdl().portTypes().keySet(),
                        contract.wsdl().services().keySet(),
                        contract.wsdl().messages().keySet())
                .flatMap(Collection::stream)
                .map(QName::getNamespaceURI)
                .forEach(namespaces::add);
        return namespaces;
    }

    /** The namespace of the first service, else of the first port type, else of the first document. */
    private static String mainNamespace(Contract contract) {
        for (QName name : contract.wsdl().services().keySet()) {
            return name.getNamespaceURI();
        }
        for (QName name : contract.wsdl().portTypes().keySet()) {
            return name.getNamespaceURI();
        }
        for (Document entry : contract.documents().entries()) {
            String namespace = entry.root() == null ? null : entry.root().attribute("targetNamespace");
            return namespace == null ? "" : namespace;
        }
        return "";
    }
}
