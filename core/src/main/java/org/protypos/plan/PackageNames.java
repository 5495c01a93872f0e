package org.protypos.plan;

import java.util.HashMap;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;

/** The package of each namespace, and the scope of the names in each package. */
final class PackageNames {
    private final Naming naming;
    private final String single;
    private final Map<String, NameScope> scopes = new HashMap<>();

    /**
     * Makes the names.
     *
     * @param single the package for all namespaces, or null for one package each
     */
    PackageNames(Naming naming, String single) {
        this.naming = naming;
        this.single = single;
    }

    String of(String namespace) {
        String named = naming.packageName(namespace);
        return single == null || naming.isRenamed(namespace) ? named : single;
    }

    /** Says that a global component will want the name of a class. */
    void announce(Subject subject, QName name) {
        scope(of(name.getNamespaceURI()))
                .expect(expected -> expected.wants(subject, naming.rules().typeName(name.getLocalPart())));
    }

    NameScope scope(String packageName) {
        return scopes.computeIfAbsent(
                packageName, name -> naming.scope(name, naming.rules().reservedTypes()));
    }
}
