package org.protypos.message.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.model.ContentModel.LeafSink;
import org.protypos.message.model.ContentModel.Step;
import org.protypos.schema.Particle;

/**
 * Makes the states of content models. A state is an expression of what may still come; where an element leads is found by
 * taking it off the front of the expression. Equal expressions are made once, as long as there are not too many.
 */
final class ContentModels {
    /** States beyond so many are forgotten as soon as a message has left them. */
    private static final int MOST_STATES = 100_000;

    /** A count up to here is a state for each number; beyond it, it is counted while a message is checked. */
    private static final int MOST_SPELLED_OUT = 32;

    private final Map<Object, ContentModel> states = new HashMap<>();

    private record PairKey(ContentModel first, ContentModel then) {}

    private record ChoiceKey(List<ContentModel> models) {}

    private record AllKey(List<ContentModel> models) {}

    private record RepeatedKey(ContentModel model, int least, int most) {}

    ContentModel leaf(Leaf leaf) {
        return new One(leaf);
    }

    ContentModel sequence(List<ContentModel> parts) {
        List<ContentModel> some =
                parts.stream().filter(part -> part != ContentModel.EMPTY).toList();
        return some.isEmpty() ? ContentModel.EMPTY : new Run(some).tails[0];
    }

    private ContentModel sequence(ContentModel first, ContentModel then) {
        if (first == ContentModel.EMPTY || then == ContentModel.EMPTY) {
            return first == ContentModel.EMPTY ? then : first;
        }
        boolean lasting = first.isLasting() && then.isLasting();
        return state(new PairKey(first, then), lasting, remembered -> new Pair(first, then, remembered));
    }

    ContentModel all(List<ContentModel> parts) {
        List<ContentModel> some =
                parts.stream().filter(part -> part != ContentModel.EMPTY).toList();
        return some.isEmpty()
                ? ContentModel.EMPTY
                : state(new AllKey(some), areLasting(some), remembered -> new All(some, remembered));
    }

    ContentModel choice(List<ContentModel> parts) {
        List<ContentModel> flat = new ArrayList<>();
        for (ContentModel part : parts) {
            for (ContentModel one : part instanceof Choice choice ? choice.models : List.of(part)) {
                merge(flat, one);
            }
        }
        return flat.isEmpty()
                ? ContentModel.EMPTY
                : flat.size() == 1
                        ? flat.get(0)
                        : state(new ChoiceKey(List.copyOf(flat)), areLasting(flat), kept -> new Choice(flat, kept));
    }

    private Step either(Step a, Step b) {
        if (a == null || b == null) {
            return a == null ? b : a;
        }
        return a.rest() == b.rest() ? a : new Step(a.leaf(), choice(List.of(a.rest(), b.rest())));
    }

    /** Adds an alternative; two that differ in a count alone become one, so that counting does not multiply them. */
    private void merge(List<ContentModel> models, ContentModel more) {
        for (int i = 0; i < models.size(); i++) {
            ContentModel merged = merged(models.get(i), more);
            if (merged != null) {
                models.set(i, merged);
                return;
            }
        }
        models.add(more);
    }

    private ContentModel merged(ContentModel a, ContentModel b) {
        if (areSame(a, b)) {
            return a;
        }
        if (a instanceof Pair one && b instanceof Pair other && areSame(one.first, other.first)) {
            return sequence(one.first, choice(List.of(one.then, other.then)));
        }
        if (a instanceof Repeated one && b instanceof Repeated other && one.model == other.model) {
            Repeated low = one.least <= other.least ? one : other;
            Repeated high = low == one ? other : one;
            boolean adjoin = low.most == Particle.UNBOUNDED || high.least <= low.most + 1;
            boolean lasting = a.isLasting() && b.isLasting();
            return adjoin ? repeated(one.model, low.least, Math.max(low.most, high.most), lasting) : null;
        }
        return null;
    }

    /** Whether two states are one; those that are not remembered may be made several times. */
    private static boolean areSame(ContentModel a, ContentModel b) {
        if (a == b || a.isLasting() || b.isLasting()) {
            return a == b;
        }
        if (a instanceof Repeated one && b instanceof Repeated other) {
            return one.model == other.model && one.least == other.least && one.most == other.most;
        }
        return a instanceof Pair one
                && b instanceof Pair other
                && areSame(one.first, other.first)
                && areSame(one.then, other.then);
    }

    /** What the contract says to repeat. */
    ContentModel repeated(ContentModel model, int least, int most) {
        return repeated(model, least, most, true);
    }

    private ContentModel repeated(ContentModel model, int least, int most, boolean lasting) {
        if (most == 0 || model == ContentModel.EMPTY) {
            return ContentModel.EMPTY;
        }
        if (least == 1 && most == 1) {
            return model;
        }
        int needed = model.isComplete() ? 0 : least;
        if (model instanceof Repeated inner && areOne(inner, needed, most)) {
            return repeated(inner.model, times(inner.least, needed), times(inner.most, most), lasting);
        }
        return state(
                new RepeatedKey(model, needed, most),
                model.isLasting() && lasting,
                remembered -> new Repeated(model, needed, most, remembered));
    }

    /** Whether repeating what repeats gives every count between the least and the most. */
    private static boolean areOne(Repeated inner, int least, int most) {
        return least == most
                || inner.most == Particle.UNBOUNDED && least > 0
                || (long) (inner.most - inner.least) * least >= inner.least - 1L;
    }

    private static int times(int a, int b) {
        boolean endless = a != 0 && b == Particle.UNBOUNDED || b != 0 && a == Particle.UNBOUNDED;
        return endless ? Particle.UNBOUNDED : (int) Math.min((long) a * b, Particle.UNBOUNDED - 1L);
    }

    private static boolean areLasting(List<ContentModel> models) {
        return models.stream().allMatch(ContentModel::isLasting);
    }

    private interface Make {
        ContentModel of(boolean remembered);
    }

    private ContentModel state(Object key, boolean lasting, Make make) {
        if (!lasting) {
            return make.of(false);
        }
        ContentModel known = states.get(key);
        if (known == null) {
            boolean remembered = states.size() < MOST_STATES;
            known = make.of(remembered);
            if (remembered) {
                states.put(key, known);
            }
        }
        return known;
    }

    private static final class One extends ContentModel {
        private final Leaf leaf;

        One(Leaf leaf) {
            super(false, true);
            this.leaf = leaf;
        }

        @Override
        Step find(QName name) {
            return leaf.accepts(name) ? new Step(leaf, EMPTY) : null;
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            return step(name);
        }

        @Override
        void next(LeafSink to) {
            to.add(leaf);
        }

        @Override
        List<ContentModel> parts() {
            return List.of();
        }

        @Override
        boolean isAtom() {
            return true;
        }

        @Override
        Leaf leaf() {
            return leaf;
        }
    }

    /** One after the other, as the contract has them. */
    private final class Run {
        private final List<ContentModel> parts;
        private final ContentModel[] tails;

        Run(List<ContentModel> parts) {
            this.parts = parts;
            this.tails = new ContentModel[parts.size() + 1];
            tails[parts.size()] = ContentModel.EMPTY;
            boolean complete = true;
            boolean lasting = true;
            for (int i = parts.size() - 1; i >= 0; i--) {
                ContentModel part = parts.get(i);
                complete &= part.isComplete();
                lasting &= part.isLasting();
                tails[i] = i == parts.size() - 1 ? part : new Tail(this, i, complete, lasting);
            }
        }
    }

    /** The rest of what comes one after the other. */
    private final class Tail extends ContentModel {
        private final Run run;
        private final int from;

        Tail(Run run, int from, boolean complete, boolean lasting) {
            super(complete, lasting);
            this.run = run;
            this.from = from;
        }

        @Override
        Step find(QName name) {
            Step found = null;
            for (int i = from; i < run.parts.size(); i++) {
                ContentModel part = run.parts.get(i);
                Step here = part.step(name);
                if (here != null) {
                    found = either(found, new Step(here.leaf(), sequence(here.rest(), run.tails[i + 1])));
                }
                if (!part.isComplete()) {
                    break;
                }
            }
            return found;
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            for (int i = from; i < run.parts.size(); i++) {
                Step here = run.parts.get(i).skipPast(name, dead);
                if (here != null) {
                    return new Step(here.leaf(), sequence(here.rest(), run.tails[i + 1]));
                }
            }
            return null;
        }

        @Override
        void next(LeafSink to) {
            for (int i = from; i < run.parts.size(); i++) {
                to.addNext(run.parts.get(i));
                if (!run.parts.get(i).isComplete()) {
                    return;
                }
            }
        }

        @Override
        List<ContentModel> parts() {
            return run.parts.subList(from, run.parts.size());
        }
    }

    /** What is left of something, and what comes after it. */
    private final class Pair extends ContentModel {
        private final ContentModel first;
        private final ContentModel then;

        Pair(ContentModel first, ContentModel then, boolean remembered) {
            super(first.isComplete() && then.isComplete(), remembered);
            this.first = first;
            this.then = then;
        }

        @Override
        Step find(QName name) {
            Step here = first.step(name);
            Step step = here == null ? null : new Step(here.leaf(), sequence(here.rest(), then));
            return first.isComplete() ? either(step, then.step(name)) : step;
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            Step here = first.skipPast(name, dead);
            return here == null ? then.skipPast(name, dead) : new Step(here.leaf(), sequence(here.rest(), then));
        }

        @Override
        void next(LeafSink to) {
            to.addNext(first);
            if (first.isComplete()) {
                to.addNext(then);
            }
        }

        @Override
        List<ContentModel> parts() {
            return List.of(first, then);
        }
    }

    private final class Choice extends ContentModel {
        private final List<ContentModel> models;

        Choice(List<ContentModel> models, boolean remembered) {
            super(models.stream().anyMatch(ContentModel::isComplete), remembered);
            this.models = List.copyOf(models);
        }

        @Override
        Step find(QName name) {
            Step step = null;
            for (ContentModel model : models) {
                step = either(step, model.step(name));
            }
            return step;
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            for (ContentModel model : models) {
                Step here = model.skipPast(name, dead);
                if (here != null) {
                    return here;
                }
            }
            return null;
        }

        @Override
        void next(LeafSink to) {
            models.forEach(to::addNext);
        }

        @Override
        List<ContentModel> parts() {
            return models;
        }
    }

    private final class Repeated extends ContentModel {
        private final ContentModel model;
        private final int least;
        private final int most;

        Repeated(ContentModel model, int least, int most, boolean remembered) {
            super(least == 0, remembered);
            this.model = model;
            this.least = least;
            this.most = most;
        }

        private Step behind(Step here) {
            if (here == null) {
                return null;
            }
            return new Step(here.leaf(), sequence(here.rest(), again()));
        }

        private ContentModel again() {
            boolean endless = most == Particle.UNBOUNDED;
            if (endless && least == 0) {
                return this;
            }
            boolean spelledOut = least <= MOST_SPELLED_OUT && (endless || most <= MOST_SPELLED_OUT);
            return repeated(model, Math.max(0, least - 1), endless ? most : most - 1, spelledOut);
        }

        @Override
        Step find(QName name) {
            return behind(model.step(name));
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            return behind(model.skipPast(name, dead));
        }

        @Override
        void next(LeafSink to) {
            to.addNext(model);
        }

        @Override
        List<ContentModel> parts() {
            return List.of(model);
        }
    }

    /** In any order. */
    private final class All extends ContentModel {
        private final List<ContentModel> models;

        All(List<ContentModel> models, boolean remembered) {
            super(models.stream().allMatch(ContentModel::isComplete), remembered);
            this.models = models;
        }

        private Step behind(int index, Step here) {
            List<ContentModel> others = new ArrayList<>(models);
            others.set(index, here.rest());
            return new Step(here.leaf(), ContentModels.this.all(others));
        }

        @Override
        Step find(QName name) {
            for (int i = 0; i < models.size(); i++) {
                Step here = models.get(i).step(name);
                if (here != null) {
                    return behind(i, here);
                }
            }
            return null;
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            for (int i = 0; i < models.size(); i++) {
                Step here = models.get(i).skipPast(name, dead);
                if (here != null) {
                    return behind(i, here);
                }
            }
            return null;
        }

        @Override
        void next(LeafSink to) {
            models.forEach(to::addNext);
        }

        @Override
        List<ContentModel> parts() {
            return models;
        }
    }
}
