package org.protypos.contract;

import java.util.Collection;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;

/** Reports names that lead nowhere, with the name that was probably meant. */
final class NameFinder {
    private final Findings findings;

    NameFinder(Findings findings) {
        this.findings = findings;
    }

    /** Reports a name unless it is among those that exist. */
    void require(String kind, QName name, Place place, Collection<QName> existing) {
        if (!existing.contains(name)) {
            unresolved(kind, name, place, existing);
        }
    }

    /** Reports a name that is not there. */
    void unresolved(String kind, QName name, Place place, Collection<QName> existing) {
        findings.error(
                "unresolved-name",
                place,
                "there is no " + kind + " " + name.getLocalPart() + in(name.getNamespaceURI()),
                cure(kind, name, existing));
    }

    private static String cure(String kind, QName name, Collection<QName> existing) {
        for (QName other : existing) {
            if (other.getLocalPart().equals(name.getLocalPart())) {
                return "there is one" + in(other.getNamespaceURI()) + ": correct the prefix or its declaration";
            }
        }
        List<String> neighbours = existing.stream()
                .filter(other -> other.getNamespaceURI().equals(name.getNamespaceURI()))
                .map(QName::getLocalPart)
                .toList();
        if (neighbours.isEmpty()) {
            return "no " + kind + " of this namespace is known: import the document that declares it";
        }
        return NearestName.of(name.getLocalPart(), neighbours)
                .map(near -> "did you mean " + near + "?")
                .orElse("declare it, or import the document that does");
    }

    private static String in(String namespace) {
        return namespace.isEmpty() ? " without a namespace" : " in namespace " + namespace;
    }
}
