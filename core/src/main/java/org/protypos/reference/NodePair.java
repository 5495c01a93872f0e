package org.protypos.reference;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * A part of the structure of a component as two contracts have it.
 *
 * @param before as the old contract has it, or null
 * @param after as the new contract has it, or null
 * @param isMoved whether it stands before something that stood before it
 * @param inside what is in it, in the order of the new contract, with what is gone where it was
 */
public record NodePair(Node before, Node after, boolean isMoved, List<NodePair> inside) {
    /** It as the new contract has it, or as the old one had what is gone. */
    public Node either() {
        return after == null ? before : after;
    }

    /** What became of it, whatever became of what is in it. */
    public Mark mark() {
        if (before == null || after == null) {
            return before == null ? Mark.ADDED : Mark.REMOVED;
        }
        boolean same = before.kind() == after.kind()
                && before.label().equals(after.label())
                && before.type().equals(after.type())
                && before.occurs().equals(after.occurs())
                && before.demands().equals(after.demands())
                && before.documentation().equals(after.documentation());
        return !same ? Mark.CHANGED : isMoved ? Mark.MOVED : Mark.SAME;
    }

    /** Whether anything became of it or of what is in it. */
    public boolean isChanged() {
        return mark() != Mark.SAME || isChanged(inside);
    }

    static boolean isChanged(List<NodePair> nodes) {
        return nodes.stream().anyMatch(NodePair::isChanged);
    }

    /**
     * The nodes of two structures beside each other.
     *
     * @param oldName gives for a designator of the new contract the one that its component had in the old contract
     */
    static List<NodePair> of(List<Node> before, List<Node> after, UnaryOperator<String> oldName) {
        Map<String, Deque<Integer>> known = new HashMap<>();
        for (int i = 0; i < before.size(); i++) {
            known.computeIfAbsent(key(before.get(i), UnaryOperator.identity()), any -> new ArrayDeque<>())
                    .add(i);
        }
        List<Integer> places = new ArrayList<>();
        for (Node node : after) {
            Deque<Integer> same = known.get(key(node, oldName));
            places.add(same == null || same.isEmpty() ? null : same.remove());
        }
        Set<Integer> kept = new HashSet<>(places);
        List<NodePair> pairs = new ArrayList<>();
        int next = 0;
        for (int i = 0; i < after.size(); i++) {
            Node node = after.get(i);
            Integer place = places.get(i);
            if (place == null) {
                pairs.add(new NodePair(null, node, false, of(List.of(), node.children(), oldName)));
                continue;
            }
            // What is gone stands before what it stood before.
            boolean moved = place < next;
            for (; next < place; next++) {
                gone(before.get(next), kept.contains(next), pairs);
            }
            next = Math.max(next, place + 1);
            Node was = before.get(place);
            pairs.add(new NodePair(was, node, moved, of(was.children(), node.children(), oldName)));
        }
        for (; next < before.size(); next++) {
            gone(before.get(next), kept.contains(next), pairs);
        }
        return pairs;
    }

    private static void gone(Node node, boolean isKept, List<NodePair> pairs) {
        if (!isKept) {
            pairs.add(new NodePair(node, null, false, of(node.children(), List.of(), UnaryOperator.identity())));
        }
    }

    /** What a node is known by on both sides: the component that it is, or what it is called. */
    private static String key(Node node, UnaryOperator<String> oldName) {
        return node.designator().isEmpty() ? node.kind() + " " + node.label() : oldName.apply(node.designator());
    }
}
