package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** The use of a named model group in a content model. */
public record GroupReference(QName name, Place place) implements Term {
    @Override
    public <R> R map(Cases<R> cases) {
        return cases.group().apply(this);
    }

    @Override
    public void act(Acts acts) {
        acts.group().accept(this);
    }
}
