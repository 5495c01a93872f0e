package org.protypos.message.model;

import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;

/** A part of a content model: an expression of what may come. It never changes. */
abstract class ContentPart {
    private final boolean complete;

    ContentPart(boolean complete) {
        this.complete = complete;
    }

    /**
     * What is left of a part when an element has been taken off its front.
     *
     * @param leaf what the element is an instance of
     */
    record Derived(Leaf leaf, Rest rest) {}

    /** Takes what may come next. */
    static final class LeafSink {
        private final Set<Leaf> leaves = new LinkedHashSet<>();
        private final Set<ContentPart> seen = new HashSet<>();

        void add(Leaf leaf) {
            leaves.add(leaf);
        }

        /** Takes all of a part, once. */
        void addNext(ContentPart part) {
            if (seen.add(part)) {
                part.next(this);
            }
        }

        List<Leaf> leaves() {
            return List.copyOf(leaves);
        }
    }

    /** Whether nothing of it has to come. */
    final boolean isComplete() {
        return complete;
    }

    /** What is left behind an element of a name, for each place where it may be taken off; empty when it may not come. */
    abstract List<Derived> derive(QName name);

    /** Where an element of a name leads when whatever must come before it is passed over, or null. */
    abstract Derived skip(QName name, Set<ContentPart> dead);

    /** Does what {@link #skip} does, and passes by what is known to lead nowhere. */
    final Derived skipTo(QName name, Set<ContentPart> dead) {
        if (dead.contains(this)) {
            return null;
        }
        Derived found = skip(name, dead);
        if (found == null) {
            dead.add(this);
        }
        return found;
    }

    /** Gives all that may come next: the first of any of its parts, unless they come in an order. */
    void next(LeafSink to) {
        parts().forEach(to::addNext);
    }

    /** What it is made of. */
    abstract List<ContentPart> parts();

    /** The leaf that it is, or null when it is made of others. */
    Leaf leaf() {
        return null;
    }

    /** What must come, or one of several of which one must; null when nothing must. */
    final Leaf demanded() {
        if (complete || leaf() != null) {
            return complete ? null : leaf();
        }
        for (ContentPart part : parts()) {
            if (!part.complete) {
                return part.demanded();
            }
        }
        return null;
    }
}
