package org.protypos.draft;

import java.util.List;
import org.protypos.diagnostic.Place;

/** A named type of a sketch. */
public sealed interface SketchType {
    /** Where it stands, or null. */
    Place place();

    /** What is said of it, or null. */
    String documentation();

    /** A type of values. */
    record Values(TypeTerm term, String documentation, Place place) implements SketchType {}

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
    }
}
