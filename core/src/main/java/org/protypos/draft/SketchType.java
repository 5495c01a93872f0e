package org.protypos.draft;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import org.protypos.diagnostic.Place;

/** A named type of a sketch. */
public sealed interface SketchType {
    /** Where it stands, or null. */
    Place place();

    /** What is said of it, or null. */
    String documentation();

    /** What becomes of it in the case that it is. */
    <R> R map(Function<Values, R> values, Function<Structure, R> structure);

    /** Does what is to be done in the case that it is. */
    void act(Consumer<Values> values, Consumer<Structure> structure);

    /** A type of values. */
    record Values(TypeTerm term, String documentation, Place place) implements SketchType {
        @Override
        public <R> R map(Function<Values, R> values, Function<Structure, R> structure) {
            return values.apply(this);
        }

        @Override
        public void act(Consumer<Values> values, Consumer<Structure> structure) {
            values.accept(this);
        }
    }

    /**
     * A type with members.
     *
     * @param base the type that it extends, or null
     */
    record Structure(
            String base,
            boolean isAbstract,
            boolean isMixed,
            List<SketchMember> members,
            String documentation,
            Place place)
            implements SketchType {
        public Structure {
            members = List.copyOf(members);
        }

        @Override
        public <R> R map(Function<Values, R> values, Function<Structure, R> structure) {
            return structure.apply(this);
        }

        @Override
        public void act(Consumer<Values> values, Consumer<Structure> structure) {
            structure.accept(this);
        }
    }
}
