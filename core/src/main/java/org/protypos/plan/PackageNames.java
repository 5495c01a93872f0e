package org.protypos.plan;

import java.util.HashMap;
import java.util.Map;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;

/** The package of each namespace, and the scope of the names in each package. */
final class PackageNames {
    private final NameRules rules;
    private final String single;
    private final Map<String, NameScope> scopes = new HashMap<>();

    /**
     * Makes the names.
     *
     * @param single the package for all namespaces, or null for one package each
     */
    PackageNames(NameRules rules, String single) {
        this.rules = rules;
        this.single = single;
    }

    String of(String namespace) {
        return single != null ? single : rules.packageName(namespace);
    }

    NameScope scope(String packageName) {
        return scopes.computeIfAbsent(packageName, name -> NameScope.of(rules.reservedTypes()));
    }
}
