package org.protypos.message.model;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;

/**
 * What may still come in an element (XML Schema Part 1, section 3.8.4): a state of the automaton of a content model. Each
 * element that comes leads to the state of what may come after it. A state is made when a message first gets there, equal
 * states are one, and each remembers where it leads, so that all messages share what the first ones found out.
 */
public abstract class ContentModel {
    private static final int MOST_KNOWN = 2_000;

    /** Stands for the knowledge that a name leads nowhere. */
    private static final Step NOWHERE = new Step(null, null);

    /** Nothing may come. */
    public static final ContentModel EMPTY = new ContentModel(true, true) {
        @Override
        Step find(QName name) {
            return null;
        }

        @Override
        Step skip(QName name, Set<ContentModel> dead) {
            return null;
        }

        @Override
        void next(LeafSink to) {
            // nothing comes next
        }

        @Override
        List<ContentModel> parts() {
            return List.of();
        }

        @Override
        boolean isAtom() {
            return true;
        }
    };

    private final boolean complete;
    private final boolean lasting;
    private Map<QName, Step> known;

    /**
     * A state.
     *
     * @param complete whether the element around may end here
     * @param lasting whether many messages come back to this state, so that it pays to remember where it leads; there are
     *     too many states in which something is counted
     */
    ContentModel(boolean complete, boolean lasting) {
        this.complete = complete;
        this.lasting = lasting;
    }

    /**
     * What an element leads to.
     *
     * @param leaf the part of the contract's content model that the element is an instance of
     * @param rest what may come after it
     */
    public record Step(Leaf leaf, ContentModel rest) {}

    /** Takes what may come next. */
    static final class LeafSink {
        private final Set<Leaf> leaves = new LinkedHashSet<>();
        private final Set<ContentModel> seen = new HashSet<>();

        void add(Leaf leaf) {
            leaves.add(leaf);
        }

        /** Takes all of a state, once. */
        void addNext(ContentModel model) {
            if (seen.add(model)) {
                model.next(this);
            }
        }
    }

    /** Whether the element around may end here. */
    public final boolean isComplete() {
        return complete;
    }

    final boolean isLasting() {
        return lasting;
    }

    /** Finds out where an element of a name leads; null when it may not come. */
    abstract Step find(QName name);

    /** Does the work of {@link #skipTo}; states that are known to lead nowhere are passed by. */
    abstract Step skip(QName name, Set<ContentModel> dead);

    /** Gives all that may come next. */
    abstract void next(LeafSink to);

    /** What it is made of. */
    abstract List<ContentModel> parts();

    /** Whether it is made of nothing else, so that finding is as fast as remembering. */
    boolean isAtom() {
        return false;
    }

    /** The leaf that it is, or null when it is made of others. */
    Leaf leaf() {
        return null;
    }

    /** What must come, or one of several of which one must; null when nothing must. */
    public final Leaf demanded() {
        if (complete || leaf() != null) {
            return complete ? null : leaf();
        }
        for (ContentModel part : parts()) {
            if (!part.complete) {
                return part.demanded();
            }
        }
        return null;
    }

    /** Where an element of a name leads, or null when it may not come. */
    public final Step step(QName name) {
        if (!lasting || isAtom()) {
            return find(name);
        }
        Step step = known == null ? null : known.get(name);
        if (step == null) {
            step = find(name);
            if (known == null || known.size() >= MOST_KNOWN) {
                // Names that the contract does not have come without end from who means harm.
                known = new HashMap<>();
            }
            known.put(name, step == null ? NOWHERE : step);
        }
        return step == NOWHERE ? null : step;
    }

    /** Where an element of a name leads when whatever must come before it is passed over, or null. */
    public final Step skipTo(QName name) {
        return skip(name, new HashSet<>());
    }

    final Step skipPast(QName name, Set<ContentModel> dead) {
        if (dead.contains(this)) {
            return null;
        }
        Step step = skip(name, dead);
        if (step == null) {
            dead.add(this);
        }
        return step;
    }

    /** Some place of a whole model where an element of a name may come, or null. */
    public static Leaf anywhere(ContentModel model, QName name) {
        for (Leaf leaf : all(model)) {
            if (leaf.accepts(name)) {
                return leaf;
            }
        }
        return null;
    }

    /** All that may come next, in the order of the contract. */
    public static List<Leaf> next(ContentModel model) {
        LeafSink sink = new LeafSink();
        model.next(sink);
        return List.copyOf(sink.leaves);
    }

    /** All that may come anywhere in a whole model; what may come in several places is there at least twice. */
    public static List<Leaf> all(ContentModel model) {
        List<Leaf> leaves = new ArrayList<>();
        model.leaves(leaves, new IdentityHashMap<>());
        return Collections.unmodifiableList(leaves);
    }

    /** A part that stands in many places is gone through twice, which tells that it is not alone, and no more often. */
    private void leaves(List<Leaf> to, Map<ContentModel, Integer> visits) {
        if (visits.merge(this, 1, Integer::sum) > 2) {
            return;
        }
        if (leaf() != null) {
            to.add(leaf());
        }
        for (ContentModel part : parts()) {
            part.leaves(to, visits);
        }
    }

    /** The local names of the elements that may come anywhere in a whole model. */
    public static List<String> names(ContentModel model) {
        List<String> names = new ArrayList<>();
        for (Leaf leaf : all(model)) {
            if (leaf instanceof Leaf.Element element) {
                names.add(element.declaration().name().getLocalPart());
            }
        }
        return names;
    }
}
