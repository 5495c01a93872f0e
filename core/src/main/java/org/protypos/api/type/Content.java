package org.protypos.api.type;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.schema.Particle;
import org.protypos.schema.Wildcard;

/**
 * The content model of a structured type.
 *
 * @param <M> what its leaves are tied to: the members of the API, or what a language has in their place
 */
public sealed interface Content<M extends Content.Holder<M>> {
    /** So many names are told where one of them is expected. */
    int SHOWN = 20;

    /**
     * What holds the values of a leaf.
     *
     * @param <M> itself
     */
    interface Holder<M extends Holder<M>> {
        /** The name of the element; null for what has none. */
        QName xmlName();

        /** The content of a model group that repeats; null for everything else. */
        Content<M> repeated();
    }

    /** What it is made of; nothing for a leaf. */
    default List<Content<M>> parts() {
        return List.of();
    }

    /** Whether it can be nothing at all. */
    boolean isEmptiable();

    /** The leaves that it may start with; a repeated group starts with what starts its members. */
    List<Leaf<M>> first();

    /** The same model with its leaves tied to something else. */
    <T extends Holder<T>> Content<T> map(Function<Leaf<M>, T> other);

    /**
     * What each kind of content becomes.
     *
     * @param <M> what the leaves are tied to
     * @param <R> what it becomes
     */
    record Cases<M extends Holder<M>, R>(
            Function<InSequence<M>, R> sequence,
            Function<OneOf<M>, R> choice,
            Function<InAnyOrder<M>, R> all,
            Function<Leaf<M>, R> leaf) {}

    /** What this kind of content becomes. */
    <R> R choose(Cases<M, R> cases);

    /** What it may start with, for a message. */
    default String expected() {
        String names = first().stream()
                .map(leaf -> leaf.member().xmlName() == null
                        ? "an element"
                        : "<" + leaf.member().xmlName().getLocalPart() + ">")
                .distinct()
                .limit(SHOWN)
                .collect(Collectors.joining(" or "));
        return names.isEmpty() ? "an element" : names;
    }

    private static <M extends Holder<M>> List<Leaf<M>> firstOfAny(List<Content<M>> parts) {
        return parts.stream().flatMap(part -> part.first().stream()).toList();
    }

    private static <M extends Holder<M>, T extends Holder<T>> List<Content<T>> all(
            List<Content<M>> parts, Function<Leaf<M>, T> other) {
        // One after the other: names are given in the order of the contract.
        List<Content<T>> mapped = new ArrayList<>();
        for (Content<M> part : parts) {
            mapped.add(part.map(other));
        }
        return List.copyOf(mapped);
    }

    /**
     * One after the other.
     *
     * @param optional whether all of it may be missing
     */
    record InSequence<M extends Holder<M>>(List<Content<M>> parts, boolean optional) implements Content<M> {
        @Override
        public boolean isEmptiable() {
            return optional || parts.stream().allMatch(Content::isEmptiable);
        }

        @Override
        public List<Leaf<M>> first() {
            List<Leaf<M>> leaves = new ArrayList<>();
            for (Content<M> part : parts) {
                leaves.addAll(part.first());
                if (!part.isEmptiable()) {
                    break;
                }
            }
            return leaves;
        }

        @Override
        public <R> R choose(Cases<M, R> cases) {
            return cases.sequence().apply(this);
        }

        @Override
        public <T extends Holder<T>> Content<T> map(Function<Leaf<M>, T> other) {
            return new InSequence<>(all(parts, other), optional);
        }
    }

    /**
     * One of several.
     *
     * @param optional whether none need come
     */
    record OneOf<M extends Holder<M>>(List<Content<M>> parts, boolean optional) implements Content<M> {
        @Override
        public boolean isEmptiable() {
            return optional || parts.stream().anyMatch(Content::isEmptiable);
        }

        @Override
        public List<Leaf<M>> first() {
            return firstOfAny(parts);
        }

        @Override
        public <R> R choose(Cases<M, R> cases) {
            return cases.choice().apply(this);
        }

        @Override
        public <T extends Holder<T>> Content<T> map(Function<Leaf<M>, T> other) {
            return new OneOf<>(all(parts, other), optional);
        }
    }

    /**
     * All in any order.
     *
     * @param optional whether all of it may be missing
     */
    record InAnyOrder<M extends Holder<M>>(List<Content<M>> parts, boolean optional) implements Content<M> {
        @Override
        public boolean isEmptiable() {
            return optional || parts.stream().allMatch(Content::isEmptiable);
        }

        @Override
        public List<Leaf<M>> first() {
            return firstOfAny(parts);
        }

        @Override
        public <R> R choose(Cases<M, R> cases) {
            return cases.all().apply(this);
        }

        @Override
        public <T extends Holder<T>> Content<T> map(Function<Leaf<M>, T> other) {
            return new InAnyOrder<>(all(parts, other), optional);
        }
    }

    /**
     * An element, a wildcard or a repeated model group.
     *
     * @param member where its values go
     * @param least how often it must occur
     * @param most how often it may occur
     * @param wildcard what is allowed, for a wildcard
     */
    record Leaf<M extends Holder<M>>(M member, int least, int most, Wildcard wildcard) implements Content<M> {
        @Override
        public boolean isEmptiable() {
            return least == 0 || isGroupEmptiable();
        }

        /** Whether it is a repeated group that can be nothing. */
        public boolean isGroupEmptiable() {
            return member.repeated() != null && member.repeated().isEmptiable();
        }

        /** Whether it occurs only so often. */
        public boolean isBounded() {
            return most < Particle.UNBOUNDED;
        }

        @Override
        public List<Leaf<M>> first() {
            return member.repeated() == null ? List.of(this) : member.repeated().first();
        }

        @Override
        public <R> R choose(Cases<M, R> cases) {
            return cases.leaf().apply(this);
        }

        @Override
        public <T extends Holder<T>> Content<T> map(Function<Leaf<M>, T> other) {
            return new Leaf<>(other.apply(this), least, most, wildcard);
        }
    }
}
