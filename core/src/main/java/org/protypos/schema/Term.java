package org.protypos.schema;

import org.protypos.diagnostic.Place;

/** What a content model is made of (XML Schema Part 1, section 2.2.3.2). */
public sealed interface Term permits ElementDeclaration, ElementReference, GroupReference, ModelGroup, Wildcard {
    /** Where it stands. */
    Place place();
}
