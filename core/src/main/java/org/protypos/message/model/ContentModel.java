package org.protypos.message.model;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.model.ContentPart.Derived;
import org.protypos.message.model.ContentPart.LeafSink;

/**
 * What may still come in an element (XML Schema Part 1, section 3.8.4): a state of the automaton of a content model. Each
 * element that comes leads to the state of what may come after it. A state is made when a message first gets there, equal
 * states are one, and each remembers where it leads, so that all messages share what the first ones found out.
 *
 * <p>A state is one of several {@linkplain Rest rests}, of which there are no more than places in the model, since each is
 * what stands behind a place; where the contract lets one element stand for one place only, as it should, there is one.
 */
public final class ContentModel {
    private static final int MOST_KNOWN = 2_000;

    /** Stands for the knowledge that a name leads nowhere. */
    private static final Step NOWHERE = new Step(null, null);

    private final ContentParts maker;
    private final List<Rest> rests;
    private Map<QName, Step> known = Map.of();

    ContentModel(ContentParts maker, List<Rest> rests) {
        this.maker = maker;
        this.rests = rests;
    }

    /**
     * What an element leads to.
     *
     * @param leaf the part of the contract's content model that the element is an instance of
     * @param rest what may come after it
     */
    public record Step(Leaf leaf, ContentModel rest) {}

    /** Whether the element around may end here. */
    public boolean isComplete() {
        return rests.stream().anyMatch(Rest::isComplete);
    }

    /** Where an element of a name leads, or null when it may not come. */
    public Step step(QName name) {
        Step step = known.get(name);
        if (step == null) {
            step = find(name);
            if (known.isEmpty() || known.size() >= MOST_KNOWN) {
                // Names that the contract does not have come without end from who means harm.
                known = new HashMap<>();
            }
            known.put(name, step);
        }
        return step == NOWHERE ? null : step;
    }

    private Step find(QName name) {
        maker.tidy();
        Leaf leaf = null;
        List<Rest> next = new ArrayList<>();
        for (Rest rest : rests) {
            for (Rest at = rest; at != Rest.NONE && !ContentParts.isFull(next); at = at.then()) {
                for (Derived derived : at.first().derive(name)) {
                    leaf = leaf == null ? derived.leaf() : leaf;
                    maker.add(next, maker.append(derived.rest(), at.then()));
                }
                if (!at.first().isComplete()) {
                    break;
                }
            }
        }
        return leaf == null ? NOWHERE : new Step(leaf, maker.state(next));
    }

    /** Where an element of a name leads when whatever must come before it is passed over, or null. */
    public Step skipTo(QName name) {
        Set<ContentPart> dead = new HashSet<>();
        for (Rest rest : rests) {
            for (Rest at = rest; at != Rest.NONE; at = at.then()) {
                Derived found = at.first().skipTo(name, dead);
                if (found != null) {
                    return new Step(found.leaf(), maker.state(List.of(maker.append(found.rest(), at.then()))));
                }
            }
        }
        return null;
    }

    /** What must come, or one of several of which one must; null when nothing must. */
    public Leaf demanded() {
        if (isComplete()) {
            return null;
        }
        Rest at = rests.get(0);
        while (at.first().isComplete()) {
            at = at.then();
        }
        return at.first().demanded();
    }

    /** All that may come next, in the order of the contract. */
    public static List<Leaf> next(ContentModel model) {
        LeafSink sink = new LeafSink();
        for (Rest rest : model.rests) {
            for (Rest at = rest; at != Rest.NONE; at = at.then()) {
                sink.addNext(at.first());
                if (!at.first().isComplete()) {
                    break;
                }
            }
        }
        return sink.leaves();
    }

    /** All that may come anywhere in a whole model; what may come in several places is there at least twice. */
    public static List<Leaf> all(ContentModel model) {
        List<Leaf> leaves = new ArrayList<>();
        Map<ContentPart, Integer> visits = new IdentityHashMap<>();
        for (Rest rest : model.rests) {
            for (Rest at = rest; at != Rest.NONE; at = at.then()) {
                collect(at.first(), leaves, visits);
            }
        }
        return Collections.unmodifiableList(leaves);
    }

    /** A part that stands in many places is gone through twice, which tells that it is not alone, and no more often. */
    private static void collect(ContentPart part, List<Leaf> to, Map<ContentPart, Integer> visits) {
        if (visits.merge(part, 1, Integer::sum) > 2) {
            return;
        }
        if (part.leaf() != null) {
            to.add(part.leaf());
        }
        part.parts().forEach(inner -> collect(inner, to, visits));
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
