package org.protypos.schema;

import java.util.List;
import java.util.Locale;
import org.protypos.diagnostic.Place;

/**
 * Room for any element or attribute (XML Schema Part 1, section 3.10).
 *
 * @param namespaces the namespaces allowed, as written: {@code ##any}, {@code ##other}, or a list
 * @param targetNamespace the namespace that {@code ##targetNamespace} and {@code ##other} speak of
 * @param processing how what stands there is checked
 */
public record Wildcard(List<String> namespaces, String targetNamespace, Processing processing, Place place)
        implements Term {
    @Override
    public <R> R map(Cases<R> cases) {
        return cases.wildcard().apply(this);
    }

    @Override
    public void act(Acts acts) {
        acts.wildcard().accept(this);
    }

    /** What stands in {@code xs:anyType} (XML Schema Part 1, section 3.4.7). */
    public static Wildcard anything(Place place) {
        return new Wildcard(List.of("##any"), "", Processing.LAX, place);
    }

    /** The same, wherever it stands. */
    public Wildcard anywhere() {
        return new Wildcard(namespaces, targetNamespace, processing, null);
    }

    /** How content is checked. */
    public enum Processing {
        /** It must be declared. */
        STRICT,
        /** It is checked if it is declared. */
        LAX,
        /** It is not checked. */
        SKIP;

        /** What the standard calls it. */
        public String inWords() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * Whether something of a namespace may stand here (XML Schema Part 1, section 3.10.4).
     *
     * @param namespace the namespace, empty for none
     */
    public boolean allows(String namespace) {
        for (String allowed : namespaces) {
            boolean here =
                    switch (allowed) {
                        case "##any" -> true;
                        case "##other" -> !namespace.isEmpty() && !namespace.equals(targetNamespace);
                        case "##targetNamespace" -> namespace.equals(targetNamespace);
                        case "##local" -> namespace.isEmpty();
                        default -> namespace.equals(allowed);
                    };
            if (here) {
                return true;
            }
        }
        return false;
    }
}
