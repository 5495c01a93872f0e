package org.protypos.draft;

import java.util.List;
import org.protypos.authoring.DraftParticle;
import org.protypos.diagnostic.Place;

/** What stands in a type or in a message. */
public sealed interface SketchMember {
    /** Where it stands, or null. */
    Place place();

    /** An element, or an attribute. */
    record Named(String name, boolean isAttribute, TypeTerm term, String documentation, Place place)
            implements SketchMember {}

    /** A global element that is declared elsewhere, by its name. */
    record Reference(String name, int least, int most, Place place) implements SketchMember {}

    /** Several together: one of them, all in their order, or all in any order. */
    record Group(DraftParticle.Kind kind, int least, int most, List<SketchMember> members, Place place)
            implements SketchMember {
        public Group {
            members = List.copyOf(members);
        }
    }

    /** Elements of any kind. */
    record Anything(int least, int most, Place place) implements SketchMember {}
}
