package org.protypos.schema;

import java.util.List;
import org.protypos.diagnostic.Place;

/** A model group (XML Schema Part 1, section 3.8). */
public record ModelGroup(Compositor compositor, List<Particle> particles, Place place) implements Term {
    @Override
    public <R> R map(Cases<R> cases) {
        return cases.model().apply(this);
    }

    @Override
    public void act(Acts acts) {
        acts.model().accept(this);
    }

    /** How the members of a group follow each other. */
    public enum Compositor {
        /** One after the other. */
        SEQUENCE,
        /** One of them. */
        CHOICE,
        /** All of them in any order. */
        ALL
    }
}
