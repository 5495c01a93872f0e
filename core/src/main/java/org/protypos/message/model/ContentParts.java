package org.protypos.message.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.message.model.ContentPart.Derived;
import org.protypos.schema.Particle;

/**
 * Makes the parts of content models and the states of their automata. Equal ones are made once, as long as there are not too
 * many: where something is counted there is one for each number, and those that were made first are forgotten.
 */
final class ContentParts {
    private static final int MOST_KNOWN = 20_000;
    private static final int MOST_NAMES = 2_000;

    /** A model with more rests than that is not determined at all: what is left out is refused. */
    private static final int MOST_RESTS = 200;

    private final Map<Object, Object> known = new HashMap<>();

    private record RestKey(ContentPart first, Rest then) {}

    private record StateKey(List<Rest> rests) {}

    private record AllKey(List<ContentPart> parts) {}

    private record RepeatedKey(ContentPart part, int least, int most) {}

    /** Forgets what was made when it has become much. Called between steps, so that what one step makes is compared well. */
    void tidy() {
        if (known.size() > MOST_KNOWN) {
            known.clear();
        }
    }

    private <T> T once(Object key, Class<T> kind, Supplier<T> make) {
        Object found = known.get(key);
        if (found == null) {
            found = make.get();
            known.put(key, found);
        }
        return kind.cast(found);
    }

    /** The state in which any of some rests may come. */
    ContentModel state(List<Rest> rests) {
        List<Rest> all = List.copyOf(rests);
        return once(new StateKey(all), ContentModel.class, () -> new ContentModel(this, all));
    }

    /** The state before anything has come. */
    ContentModel start(ContentPart part) {
        return state(List.of(rest(part, Rest.NONE)));
    }

    private Rest rest(ContentPart first, Rest then) {
        return once(new RestKey(first, then), Rest.class, () -> new Rest(first, then));
    }

    /** One rest behind another. */
    Rest append(Rest first, Rest then) {
        return first == Rest.NONE ? then : rest(first.first(), append(first.then(), then));
    }

    /** Whether there are so many rests that no more are looked for. */
    static boolean isFull(List<?> rests) {
        return rests.size() >= MOST_RESTS;
    }

    /** Adds a rest; one that differs from another in a count alone becomes one with it, so that counting does not multiply. */
    void add(List<Rest> rests, Rest more) {
        for (int i = 0; i < rests.size(); i++) {
            Rest merged = merged(rests.get(i), more);
            if (merged != null) {
                rests.set(i, merged);
                return;
            }
        }
        rests.add(more);
    }

    private Rest merged(Rest a, Rest b) {
        if (a == b) {
            return a;
        }
        if (a == Rest.NONE || b == Rest.NONE) {
            return null;
        }
        if (a.first() == b.first()) {
            Rest then = merged(a.then(), b.then());
            return then == null ? null : rest(a.first(), then);
        }
        if (a.then() == b.then()
                && a.first() instanceof Repeated one
                && b.first() instanceof Repeated other
                && one.part == other.part) {
            Repeated low = one.least <= other.least ? one : other;
            Repeated high = low == one ? other : one;
            boolean adjoin = low.most == Particle.UNBOUNDED || high.least <= low.most + 1;
            return adjoin ? rest(repeated(one.part, low.least, Math.max(low.most, high.most)), a.then()) : null;
        }
        return null;
    }

    ContentPart leaf(Leaf leaf) {
        return new One(leaf);
    }

    ContentPart sequence(List<ContentPart> parts) {
        return parts.size() == 1 ? parts.get(0) : new Run(List.copyOf(parts)).tails[0];
    }

    ContentPart choice(List<ContentPart> parts) {
        return parts.isEmpty() ? sequence(parts) : parts.size() == 1 ? parts.get(0) : new Choice(parts);
    }

    ContentPart all(List<ContentPart> parts) {
        return once(new AllKey(parts), ContentPart.class, () -> new All(parts));
    }

    ContentPart repeated(ContentPart part, int least, int most) {
        if (least == 1 && most == 1) {
            return part;
        }
        if (most == 0) {
            return sequence(List.of());
        }
        int needed = part.isComplete() ? 0 : least;
        if (part instanceof Repeated inner && areOne(inner, needed, most)) {
            return repeated(inner.part, times(inner.least, needed), times(inner.most, most));
        }
        return once(new RepeatedKey(part, needed, most), ContentPart.class, () -> new Repeated(part, needed, most));
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

    /** A part of many that is asked for the same names again and again, by each state that it stands in. */
    private abstract static class Remembering extends ContentPart {
        private Map<QName, List<Derived>> known = Map.of();

        Remembering(boolean complete) {
            super(complete);
        }

        abstract List<Derived> find(QName name);

        static List<Derived> some(List<Derived> found) {
            return List.copyOf(found.subList(0, Math.min(found.size(), MOST_RESTS)));
        }

        @Override
        final List<Derived> derive(QName name) {
            List<Derived> derived = known.get(name);
            if (derived == null) {
                derived = find(name);
                if (known.isEmpty() || known.size() >= MOST_NAMES) {
                    known = new HashMap<>();
                }
                known.put(name, derived);
            }
            return derived;
        }
    }

    private static final class One extends ContentPart {
        private final Leaf leaf;
        private final Derived taken;

        One(Leaf leaf) {
            super(false);
            this.leaf = leaf;
            this.taken = new Derived(leaf, Rest.NONE);
        }

        @Override
        List<Derived> derive(QName name) {
            return leaf.accepts(name) ? List.of(taken) : List.of();
        }

        @Override
        Derived skip(QName name, Set<ContentPart> dead) {
            return leaf.accepts(name) ? taken : null;
        }

        @Override
        void next(LeafSink to) {
            to.add(leaf);
        }

        @Override
        List<ContentPart> parts() {
            return List.of();
        }

        @Override
        Leaf leaf() {
            return leaf;
        }
    }

    /** One after the other, as the contract has them. */
    private final class Run {
        private final List<ContentPart> parts;
        private final Tail[] tails;

        Run(List<ContentPart> parts) {
            this.parts = parts;
            this.tails = new Tail[parts.size() + 1];
            boolean complete = true;
            for (int i = parts.size(); i >= 0; i--) {
                complete &= i == parts.size() || parts.get(i).isComplete();
                tails[i] = new Tail(this, i, complete);
            }
        }
    }

    /** The rest of what comes one after the other. */
    private final class Tail extends Remembering {
        private final Run run;
        private final int from;

        Tail(Run run, int from, boolean complete) {
            super(complete);
            this.run = run;
            this.from = from;
        }

        private Derived behind(int index, Derived derived) {
            boolean last = index + 1 == run.parts.size();
            Rest tail = last ? Rest.NONE : rest(run.tails[index + 1], Rest.NONE);
            return new Derived(derived.leaf(), append(derived.rest(), tail));
        }

        @Override
        List<Derived> find(QName name) {
            List<Derived> found = new ArrayList<>();
            for (int i = from; i < run.parts.size(); i++) {
                for (Derived derived : run.parts.get(i).derive(name)) {
                    found.add(behind(i, derived));
                }
                if (!run.parts.get(i).isComplete() || isFull(found)) {
                    break;
                }
            }
            return some(found);
        }

        @Override
        Derived skip(QName name, Set<ContentPart> dead) {
            for (int i = from; i < run.parts.size(); i++) {
                Derived found = run.parts.get(i).skipTo(name, dead);
                if (found != null) {
                    return behind(i, found);
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
        List<ContentPart> parts() {
            return run.parts.subList(from, run.parts.size());
        }
    }

    private final class Choice extends Remembering {
        private final List<ContentPart> parts;

        Choice(List<ContentPart> parts) {
            super(parts.stream().anyMatch(ContentPart::isComplete));
            this.parts = List.copyOf(parts);
        }

        @Override
        List<Derived> find(QName name) {
            List<Derived> found = new ArrayList<>();
            parts.forEach(part -> found.addAll(part.derive(name)));
            return some(found);
        }

        @Override
        Derived skip(QName name, Set<ContentPart> dead) {
            for (ContentPart part : parts) {
                Derived found = part.skipTo(name, dead);
                if (found != null) {
                    return found;
                }
            }
            return null;
        }

        @Override
        List<ContentPart> parts() {
            return parts;
        }
    }

    private final class Repeated extends ContentPart {
        private final ContentPart part;
        private final int least;
        private final int most;

        Repeated(ContentPart part, int least, int most) {
            super(least == 0);
            this.part = part;
            this.least = least;
            this.most = most;
        }

        private Derived behind(Derived derived) {
            return new Derived(derived.leaf(), append(derived.rest(), again()));
        }

        private Rest again() {
            boolean endless = most == Particle.UNBOUNDED;
            if (!endless && most == 1) {
                return Rest.NONE;
            }
            ContentPart rest =
                    endless && least == 0 ? this : repeated(part, Math.max(0, least - 1), endless ? most : most - 1);
            return rest(rest, Rest.NONE);
        }

        @Override
        List<Derived> derive(QName name) {
            List<Derived> found = part.derive(name);
            if (found.size() == 1) {
                return List.of(behind(found.get(0)));
            }
            return found.stream().map(this::behind).toList();
        }

        @Override
        Derived skip(QName name, Set<ContentPart> dead) {
            Derived found = part.skipTo(name, dead);
            return found == null ? null : behind(found);
        }

        @Override
        List<ContentPart> parts() {
            return List.of(part);
        }
    }

    /** In any order. */
    private final class All extends ContentPart {
        private final List<ContentPart> parts;

        All(List<ContentPart> parts) {
            super(parts.stream().allMatch(ContentPart::isComplete));
            this.parts = parts;
        }

        /** A part that is begun is gone on with before another begins: each is one element, as often as it may come. */
        private Derived behind(int index, Derived derived) {
            List<ContentPart> others = new ArrayList<>(parts);
            others.remove(index);
            Rest rest = derived.rest();
            for (; rest != Rest.NONE; rest = rest.then()) {
                others.add(index, rest.first());
            }
            return new Derived(
                    derived.leaf(), others.isEmpty() ? Rest.NONE : rest(all(List.copyOf(others)), Rest.NONE));
        }

        @Override
        List<Derived> derive(QName name) {
            for (int i = 0; i < parts.size(); i++) {
                List<Derived> found = parts.get(i).derive(name);
                if (!found.isEmpty()) {
                    return List.of(behind(i, found.get(0)));
                }
            }
            return List.of();
        }

        @Override
        Derived skip(QName name, Set<ContentPart> dead) {
            for (int i = 0; i < parts.size(); i++) {
                Derived found = parts.get(i).skipTo(name, dead);
                if (found != null) {
                    return behind(i, found);
                }
            }
            return null;
        }

        @Override
        List<ContentPart> parts() {
            return parts;
        }
    }
}
