package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** The use of a global element in a content model. */
public record ElementReference(QName name, String documentation, Place place) implements Term {
    @Override
    public <R> R map(Cases<R> cases) {
        return cases.reference().apply(this);
    }

    @Override
    public void act(Acts acts) {
        acts.reference().accept(this);
    }
}
