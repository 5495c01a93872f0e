package org.protypos.message.model;

import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.Wildcard;

/**
 * The end of a content model: an element, with all that may stand for it, or a wildcard. There is one for each place in the
 * contract.
 */
public sealed interface Leaf {
    /** Whether an element of a name is an instance of it. */
    boolean accepts(QName name);

    /** What the contract expects here, in words. */
    String expected();

    /** Where the contract says so. */
    Place place();

    /** What becomes of it in the case that it is. */
    <R> R map(Function<Element, R> element, Function<Any, R> any);

    /** Does what is to be done in the case that it is. */
    void act(Consumer<Element> element, Consumer<Any> any);

    /** An element. */
    final class Element implements Leaf {
        private final ElementDeclaration declaration;
        private final Set<QName> substitutes;
        private final Place place;

        Element(ElementDeclaration declaration, Set<QName> substitutes, Place place) {
            this.declaration = declaration;
            this.substitutes = substitutes;
            this.place = place;
        }

        /** What the contract declares. */
        public ElementDeclaration declaration() {
            return declaration;
        }

        /** The names that may stand here: its own unless it is abstract, and those of its substitution group. */
        public Set<QName> substitutes() {
            return substitutes;
        }

        @Override
        public <R> R map(Function<Element, R> element, Function<Any, R> any) {
            return element.apply(this);
        }

        @Override
        public void act(Consumer<Element> element, Consumer<Any> any) {
            element.accept(this);
        }

        @Override
        public Place place() {
            return place;
        }

        @Override
        public boolean accepts(QName name) {
            return substitutes.contains(name);
        }

        @Override
        public String expected() {
            if (substitutes.isEmpty()) {
                return "an element that may stand for <" + declaration.name().getLocalPart()
                        + ">, of which there is none";
            }
            return substitutes.size() == 1
                            || declaration.name().equals(substitutes.iterator().next())
                    ? "<" + declaration.name().getLocalPart() + ">"
                    : substitutes.stream()
                            .map(name -> "<" + name.getLocalPart() + ">")
                            .limit(8)
                            .collect(Collectors.joining(" or "));
        }
    }

    /** Room for any element. */
    final class Any implements Leaf {
        private final Wildcard wildcard;

        Any(Wildcard wildcard) {
            this.wildcard = wildcard;
        }

        /** What it lets in. */
        public Wildcard wildcard() {
            return wildcard;
        }

        @Override
        public <R> R map(Function<Element, R> element, Function<Any, R> any) {
            return any.apply(this);
        }

        @Override
        public void act(Consumer<Element> element, Consumer<Any> any) {
            any.accept(this);
        }

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
