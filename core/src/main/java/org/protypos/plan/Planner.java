package org.protypos.plan;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javax.xml.namespace.QName;
import org.protypos.binding.Rules;
import org.protypos.binding.Shaping;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.GivenNames;
import org.protypos.naming.Naming;
import org.protypos.naming.Renaming;
import org.protypos.schema.ElementDeclaration;
import org.protypos.source.Document;
import org.protypos.wire.Wire;

/** Plans the typed API of a contract. The door of this package. */
public final class Planner {
    private Planner() {}

    /**
     * Plans the API.
     *
     * @param contract a sound contract
     * @param rules how the target spells names, and which types it has
     * @param renaming what is to be called otherwise
     * @param singlePackage the package for everything, or null for one package for each namespace
     */
    public static Plan plan(Contract contract, TargetRules rules, Renaming renaming, String singlePackage) {
        return plan(contract, rules, renaming, Shaping.NONE, GivenNames.NONE, singlePackage);
    }

    /**
     * Plans the API.
     *
     * @param contract a sound contract
     * @param rules how the target spells names, and which types it has
     * @param custom what somebody wants otherwise than it would be
     * @param singlePackage the package for everything, or null for one package for each namespace
     */
    public static Plan plan(Contract contract, TargetRules rules, Rules custom, String singlePackage) {
        return plan(contract, rules, custom, GivenNames.NONE, singlePackage);
    }

    /**
     * Plans the API.
     *
     * @param contract a sound contract
     * @param rules how the target spells names, and which types it has
     * @param custom what somebody wants otherwise than it would be
     * @param past the names that components have had, and keep unless somebody wants otherwise
     * @param singlePackage the package for everything, or null for one package for each namespace
     */
    public static Plan plan(Contract contract, TargetRules rules, Rules custom, GivenNames past, String singlePackage) {
        return custom.all().isEmpty()
                ? plan(contract, rules, Renaming.NONE, Shaping.NONE, past, singlePackage)
                : plan(contract, rules, custom, custom, past, singlePackage);
    }

    private static Plan plan(
            Contract contract,
            TargetRules rules,
            Renaming renaming,
            Shaping shaping,
            GivenNames past,
            String singlePackage) {
        Findings findings = new Findings();
        Naming naming = new Naming(rules, renaming, past, findings);
        boolean named = singlePackage == null || rules.isPackage(singlePackage);
        if (!named) {
            findings.error(
                    "package-name",
                    null,
                    "what is wanted for a package is none: " + singlePackage,
                    "write names with dots between, none of them a word of the language, outside of the platform's packages");
        }
        Wire wire = Wire.of(contract);
        PackageNames packages = new PackageNames(naming, named ? singlePackage : null);
        ShapePlanner shapes = new ShapePlanner(shaping, naming, rules, findings);
        TypePlanner types =
                new TypePlanner(contract.schema(), packages, naming, shapes, wire.isOptimized(), isEncoded(wire));
        packages.know(contract.schema().types().keySet());
        packages.know(contract.schema().elements().keySet());
        packages.know(contract.wsdl().portTypes().keySet());
        packages.know(contract.wsdl().services().keySet());
        packages.know(contract.wsdl().messages().keySet());
        ServicePlanner services = new ServicePlanner(contract, wire, packages, naming, types, findings);
        types.announce();
        services.announce();
        types.plan();
        Map<QName, ValueType> namedTypes = types.namedTypes();
        Map<QName, ValueType> elements = types.globalElements();
        String root = packages.of(mainNamespace(contract));
        String registry = packages.scope(root).make(rules.typeName("Documents"), "OfContract");
        services.plan();
        services.callElements().forEach(elements::putIfAbsent);
        shapes.finish();
        String publication = packages.scope(root).make(rules.typeName("PublishedContract"), "");
        return new Plan(
                root,
                registry,
                publication,
                List.copyOf(types.topClasses()),
                List.copyOf(types.topEnums()),
                namedTypes,
                elements,
                heads(contract),
                services.interfaces(),
                services.services(),
                services.faults(),
                naming.clashes(),
                naming.given(),
                findings.sorted());
    }

    private static boolean isEncoded(Wire wire) {
        return wire.bindings().stream()
                .flatMap(binding -> binding.operations().stream())
                .anyMatch(operation -> operation.request().isEncoded()
                        || operation.answer() != null && operation.answer().isEncoded());
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

    private static Map<QName, QName> heads(Contract contract) {
        Map<QName, QName> heads = new TreeMap<>(TypePlanner.BY_NAME);
        for (ElementDeclaration element : contract.schema().elements().values()) {
            if (element.substitutionHead() != null) {
                heads.put(element.name(), element.substitutionHead());
            }
        }
        return heads;
    }
}
