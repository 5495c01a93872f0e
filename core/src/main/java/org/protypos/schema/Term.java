package org.protypos.schema;

import java.util.function.Consumer;
import java.util.function.Function;
import org.protypos.diagnostic.Place;

/** What a content model is made of (XML Schema Part 1, section 2.2.3.2). */
public sealed interface Term permits ElementDeclaration, ElementReference, GroupReference, ModelGroup, Wildcard {
    /** Where it stands. */
    Place place();

    /** What becomes of it in the case that it is. */
    <R> R map(Cases<R> cases);

    /** Does what is to be done in the case that it is. */
    void act(Acts acts);

    /** What becomes of each of them: whoever knows them all is told by the compiler when there is one more. */
    record Cases<R>(
            Function<ElementDeclaration, R> element,
            Function<ElementReference, R> reference,
            Function<GroupReference, R> group,
            Function<ModelGroup, R> model,
            Function<Wildcard, R> wildcard) {}

    /** What is to be done with each of them. */
    record Acts(
            Consumer<ElementDeclaration> element,
            Consumer<ElementReference> reference,
            Consumer<GroupReference> group,
            Consumer<ModelGroup> model,
            Consumer<Wildcard> wildcard) {}
}
