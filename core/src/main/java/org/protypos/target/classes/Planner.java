package org.protypos.target.classes;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.api.Api;
import org.protypos.binding.Shaping;
import org.protypos.diagnostic.Findings;
import org.protypos.naming.GivenNames;
import org.protypos.naming.Naming;
import org.protypos.naming.Renaming;
import org.protypos.target.Wishes;

/** Plans the classes of an API, for languages that have classes: what is nested in what, and how all is called. */
public final class Planner {
    private Planner() {}

    /**
     * Plans the classes.
     *
     * @param rules how the language spells names, and which types it has
     * @param wishes what somebody wants otherwise than it would be
     */
    public static Plan plan(Api api, ClassRules rules, Wishes wishes) {
        boolean plain = wishes.rules().all().isEmpty();
        return plan(
                api,
                rules,
                plain ? Renaming.NONE : wishes.rules(),
                plain ? Shaping.NONE : wishes.rules(),
                wishes.past(),
                wishes.packageName());
    }

    private static Plan plan(
            Api api, ClassRules rules, Renaming renaming, Shaping shaping, GivenNames past, String singlePackage) {
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
        PackageNames packages = new PackageNames(naming, rules, named ? singlePackage : null);
        ValueShaper shapes = new ValueShaper(shaping, naming, rules, findings);
        TypePlanner types = new TypePlanner(api, packages, naming, rules, shapes);
        packages.know(api.namespaces());
        ServicePlanner services = new ServicePlanner(api, packages, naming, types);
        types.announce();
        services.announce();
        types.plan();
        Map<QName, ValueType> namedTypes = types.namedTypes();
        Map<QName, KnownElement> elements = types.globalElements();
        String root = packages.of(api.mainNamespace());
        String registry = packages.scope(root).make(rules.typeName("Documents"), "OfContract");
        services.plan();
        api.callElements()
                .forEach((name, value) -> elements.putIfAbsent(
                        name, new KnownElement(types.value(value).written(), null)));
        String publication = packages.scope(root).make(rules.typeName("PublishedContract"), "");
        return new Plan(
                root,
                registry,
                publication,
                List.copyOf(types.topClasses()),
                List.copyOf(types.topEnums()),
                namedTypes,
                elements,
                heads(api),
                services.interfaces(),
                services.services(),
                services.faults(),
                naming.clashes(),
                naming.given(),
                findings.sorted());
    }

    private static Map<QName, QName> heads(Api api) {
        Map<QName, QName> heads = new LinkedHashMap<>();
        api.elements().forEach((name, element) -> {
            if (element.head() != null) {
                heads.put(name, element.head());
            }
        });
        return heads;
    }
}
