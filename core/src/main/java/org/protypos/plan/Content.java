package org.protypos.plan;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.schema.Wildcard;

/** The content model of a class, its leaves tied to properties. */
public sealed interface Content {
    /** One after the other; {@code optional} when all of it may be missing. */
    record InSequence(List<Content> parts, boolean optional) implements Content {}

    /** One of several; {@code optional} when none need come. */
    record OneOf(List<Content> parts, boolean optional) implements Content {}

    /** All in any order. */
    record InAnyOrder(List<Content> parts, boolean optional) implements Content {}

    /**
     * An element, a wildcard or a repeated model group.
     *
     * @param property where its values go
     * @param least how often it must occur
     * @param most how often it may occur
     * @param wildcard what is allowed, for a wildcard
     */
    record Leaf(Property property, int least, int most, Wildcard wildcard) implements Content {}

    /** What may start some content: an element of a name, or what a wildcard allows. */
    record Start(QName name, boolean substitutable, Wildcard wildcard) {}
}
