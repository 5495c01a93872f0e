package org.protypos.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.schema.Particle;
import org.protypos.schema.Wildcard;

/** The content model of a class, its leaves tied to properties. */
public sealed interface Content {
    /** So many names are told where one of them is expected. */
    int SHOWN = 20;

    /** What it is made of; nothing for a leaf. */
    default List<Content> parts() {
        return List.of();
    }

    /** Whether it can be nothing at all. */
    boolean isEmptiable();

    /** The leaves that it may start with; a repeated group starts with what starts its members. */
    List<Leaf> first();

    /** What it may start with, for a message. */
    default String expected() {
        String names = first().stream()
                .map(leaf -> leaf.property().xmlName() == null
                        ? "an element"
                        : "<" + leaf.property().xmlName().getLocalPart() + ">")
                .distinct()
                .limit(SHOWN)
                .collect(Collectors.joining(" or "));
        return names.isEmpty() ? "an element" : names;
    }

    private static List<Leaf> firstOfAny(List<Content> parts) {
        return parts.stream().flatMap(part -> part.first().stream()).toList();
    }

    /** One after the other; {@code optional} when all of it may be missing. */
    record InSequence(List<Content> parts, boolean optional) implements Content {
        @Override
        public boolean isEmptiable() {
            return optional || parts.stream().allMatch(Content::isEmptiable);
        }

        @Override
        public List<Leaf> first() {
            List<Leaf> leaves = new ArrayList<>();
            for (Content part : parts) {
                leaves.addAll(part.first());
                if (!part.isEmptiable()) {
                    break;
                }
            }
            return leaves;
        }
    }

    /** One of several; {@code optional} when none need come. */
    record OneOf(List<Content> parts, boolean optional) implements Content {
        @Override
        public boolean isEmptiable() {
            return optional || parts.stream().anyMatch(Content::isEmptiable);
        }

        @Override
        public List<Leaf> first() {
            return firstOfAny(parts);
        }
    }

    /** All in any order. */
    record InAnyOrder(List<Content> parts, boolean optional) implements Content {
        @Override
        public boolean isEmptiable() {
            return optional || parts.stream().allMatch(Content::isEmptiable);
        }

        @Override
        public List<Leaf> first() {
            return firstOfAny(parts);
        }
    }

    /**
     * An element, a wildcard or a repeated model group.
     *
     * @param property where its values go
     * @param least how often it must occur
     * @param most how often it may occur
     * @param wildcard what is allowed, for a wildcard
     */
    record Leaf(Property property, int least, int most, Wildcard wildcard) implements Content {
        @Override
        public boolean isEmptiable() {
            return least == 0 || isGroupEmptiable();
        }

        /** Whether it is a repeated group that can be nothing. */
        public boolean isGroupEmptiable() {
            return property.kind() == Property.Kind.GROUP
                    && property.group().content().isEmptiable();
        }

        /** Whether what comes beyond the most belongs to the next time that the group around it comes, and not to this one. */
        public boolean endsAtMost(ApiClass owner) {
            return owner != null && owner.isGroup() && most < Particle.UNBOUNDED;
        }

        @Override
        public List<Leaf> first() {
            return property.kind() == Property.Kind.GROUP
                    ? property.group().content().first()
                    : List.of(this);
        }
    }

    /** What may start some content: an element of a name, or what a wildcard allows. */
    record Start(QName name, boolean substitutable, Wildcard wildcard) {}
}
