package org.protypos.target.classes;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.naming.CaseFolding;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;

/** The package of each namespace, and the scope of the names in each package. */
final class PackageNames {
    private final Naming naming;
    private final ClassRules rules;
    private final String single;
    private final Map<String, String> byNamespace = new HashMap<>();
    private final Map<String, NameScope> scopes = new HashMap<>();
    private final Set<String> packages = new HashSet<>();

    /**
     * Makes the names.
     *
     * @param single the package for all namespaces, or null for one package each
     */
    PackageNames(Naming naming, ClassRules rules, String single) {
        this.naming = naming;
        this.rules = rules;
        this.single = single;
    }

    /** Says which namespaces there are: no class may be called like a package beside it. */
    void know(Collection<String> namespaces) {
        namespaces.forEach(namespace -> packages.add(of(namespace)));
    }

    String of(String namespace) {
        return byNamespace.computeIfAbsent(namespace, any -> {
            String named = naming.packageName(namespace);
            return single == null || naming.isRenamed(namespace) ? named : single;
        });
    }

    /** Says that a global component will want the name of a class. */
    void announce(Subject subject, QName name) {
        announce(subject, name, rules.typeName(name.getLocalPart()));
    }

    /** Says that a global component will want a name. */
    void announce(Subject subject, QName name, String wanted) {
        scope(of(name.getNamespaceURI())).expect(expected -> expected.wants(subject, wanted));
    }

    NameScope scope(String packageName) {
        // Packages that are one folder on some disk share their names.
        return scopes.computeIfAbsent(CaseFolding.of(packageName), any -> made(packageName));
    }

    private NameScope made(String packageName) {
        NameScope scope = naming.scope(packageName, rules.reservedTypes());
        String start = packageName + ".";
        for (String other : packages) {
            if (other.startsWith(start)) {
                scope.exclude(other.substring(start.length()).split("\\.")[0]);
            }
        }
        return scope;
    }
}
