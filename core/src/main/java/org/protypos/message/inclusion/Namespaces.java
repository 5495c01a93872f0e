package org.protypos.message.inclusion;

import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.Set;
import org.protypos.schema.Wildcard;

/** The namespaces that some wildcards tell apart, and one that none of them knows. */
final class Namespaces {
    /** A namespace that no contract has. */
    private static final String FOREIGN = "http://lanternbay.example/other";

    private Namespaces() {}

    /** In the words of the one contract. */
    static Set<String> of(Pairs pairs, Collection<Wildcard> one, Collection<Wildcard> other) {
        Set<String> all = new LinkedHashSet<>();
        all.add(FOREIGN);
        one.forEach(wildcard -> add(wildcard, all));
        Set<String> others = new LinkedHashSet<>();
        other.forEach(wildcard -> add(wildcard, others));
        // What the other contract calls otherwise stands for what the one has in its place.
        Set<String> renamed = new LinkedHashSet<>();
        all.forEach(namespace -> renamed.add(pairs.toOther(namespace)));
        others.stream().filter(namespace -> !renamed.contains(namespace)).forEach(all::add);
        all.add("");
        return all;
    }

    private static void add(Wildcard wildcard, Set<String> to) {
        to.add(wildcard.targetNamespace());
        wildcard.namespaces().stream()
                .filter(namespace -> !namespace.startsWith("##"))
                .forEach(to::add);
    }
}
