package org.protypos.message.model;

import java.util.Set;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.Wildcard;

/** The end of a content model: an element, with all that may stand for it, or a wildcard. */
public sealed interface Leaf {
    /** Whether an element of a name is an instance of it. */
    boolean accepts(QName name);

    /** What the contract expects here, in words. */
    String expected();

    /** Where the contract says so. */
    Place place();

    /**
     * An element.
     *
     * @param substitutes the names that may stand here: its own unless it is abstract, and those of its substitution group
     */
    record Element(ElementDeclaration declaration, Set<QName> substitutes, Place place) implements Leaf {
        @Override
        public boolean accepts(QName name) {
            return substitutes.contains(name);
        }

        @Override
        public String expected() {
            return substitutes.size() == 1 || declaration.name().equals(firstName())
                    ? "<" + declaration.name().getLocalPart() + ">"
                    : substitutes.stream()
                            .map(name -> "<" + name.getLocalPart() + ">")
                            .limit(8)
                            .collect(Collectors.joining(" or "));
        }

        private QName firstName() {
            return substitutes.isEmpty() ? null : substitutes.iterator().next();
        }
    }

    /** Room for any element. */
    record Any(Wildcard wildcard) implements Leaf {
        @Override
        public boolean accepts(QName name) {
            return wildcard.allows(name.getNamespaceURI());
        }

        @Override
        public String expected() {
            return "any element of " + String.join(" or ", wildcard.namespaces());
        }

        @Override
        public Place place() {
            return wildcard.place();
        }
    }
}
