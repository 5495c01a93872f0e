package org.protypos.target.classes;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Finding;
import org.protypos.naming.Clash;
import org.protypos.naming.GivenNames;

/**
 * The typed API of a contract as a language has it that has classes.
 *
 * @param rootPackage the package of what belongs to the contract as a whole
 * @param registry the name of the class that knows types and elements by name
 * @param publication the name of the class that holds the contract's documents
 * @param classes the classes that are nested in no other
 * @param enums the enumerations that are nested in no class
 * @param types what each named type became
 * @param elements the global elements; abstract ones are missing
 * @param clashes the components that would have got one name, and how that was settled
 * @param names the names of all components, and of those that are gone
 * @param heads for each member of a substitution group the head it names
 */
public record Plan(
        String rootPackage,
        String registry,
        String publication,
        List<PlannedClass> classes,
        List<PlannedEnum> enums,
        Map<QName, ValueType> types,
        Map<QName, KnownElement> elements,
        Map<QName, QName> heads,
        List<PlannedInterface> interfaces,
        List<PlannedService> services,
        List<PlannedFault> faults,
        List<Clash> clashes,
        GivenNames names,
        List<Finding> findings) {
    /** The interfaces that are bound to something, and so can be called and served. */
    public List<PlannedInterface> bound() {
        return interfaces.stream().filter(PlannedInterface::binding).toList();
    }

    /** The same plan with a registry that knows only some types and elements by name. */
    public Plan knowing(Set<QName> known) {
        return new Plan(
                rootPackage,
                registry,
                publication,
                classes,
                enums,
                only(types, known),
                only(elements, known),
                heads,
                interfaces,
                services,
                faults,
                clashes,
                names,
                findings);
    }

    private static <T> Map<QName, T> only(Map<QName, T> all, Set<QName> names) {
        Map<QName, T> some = new LinkedHashMap<>(all);
        some.keySet().retainAll(names);
        return some;
    }
}
