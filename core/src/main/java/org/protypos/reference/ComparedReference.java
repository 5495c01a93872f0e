package org.protypos.reference;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;

/** The components of two contracts beside each other, with what became of them. */
public final class ComparedReference {
    private final ContractReference before;
    private final ContractReference after;
    private final UnaryOperator<String> oldName;
    private final List<Pair> pairs = new ArrayList<>();

    /**
     * A component in two contracts.
     *
     * @param before the component of the old contract, or null
     * @param after that of the new contract, or null
     */
    public record Pair(Component before, Component after) {
        /** It in the new contract, or in the old one when it is gone. */
        public Component either() {
            return after == null ? before : after;
        }
    }

    /**
     * Begins.
     *
     * @param oldName gives for a designator of the new contract the one that its component had in the old contract
     */
    public ComparedReference(ContractReference before, ContractReference after, UnaryOperator<String> oldName) {
        this.before = before;
        this.after = after;
        this.oldName = oldName;
        Map<String, Component> old = new HashMap<>();
        before.components().all().forEach(one -> old.put(one.designator(), one));
        for (Component component : after.components().all()) {
            Component was = old.get(oldName.apply(component.designator()));
            boolean same = was != null && was.kind() == component.kind();
            pairs.add(new Pair(same ? was : null, component));
            if (same) {
                old.remove(was.designator());
            }
        }
        before.components().all().stream()
                .filter(one -> old.containsKey(one.designator()))
                .forEach(one -> pairs.add(new Pair(one, null)));
    }

    /** The old contract's components. */
    public ContractReference before() {
        return before;
    }

    /** The new contract's components. */
    public ContractReference after() {
        return after;
    }

    /** All components, in the order of the new contract, and then those that are gone. */
    public List<Pair> pairs() {
        return pairs;
    }

    /** What a component has beyond others that have names, in both contracts. */
    public List<NodePair> own(Pair pair) {
        return NodePair.of(
                pair.before() == null ? List.of() : before.own(pair.before()),
                pair.after() == null ? List.of() : after.own(pair.after()),
                oldName);
    }

    /**
     * What became of a component itself; what is in components that it uses is theirs.
     *
     * @param own what it has beyond others, as {@link #own} gives it
     */
    public Mark mark(Pair pair, List<NodePair> own) {
        if (pair.before() == null || pair.after() == null) {
            return pair.before() == null ? Mark.ADDED : Mark.REMOVED;
        }
        Component was = pair.before();
        Component is = pair.after();
        boolean same = was.name().getLocalPart().equals(is.name().getLocalPart())
                && was.within().equals(is.within())
                && was.documentation().strip().equals(is.documentation().strip())
                && before.traits(was).equals(after.traits(is))
                && !NodePair.isChanged(own);
        return same ? Mark.SAME : Mark.CHANGED;
    }
}
