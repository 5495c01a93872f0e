package org.protypos.schema.pattern;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Patterns as an automaton that steps from one set of states to the next; several patterns are alternatives. */
final class PatternStates {
    private final List<List<Integer>> silent = new ArrayList<>();
    private final List<List<Edge>> edges = new ArrayList<>();
    private final BitSet start;
    private final int end;
    private final Map<BitSet, Map<Integer, BitSet>> known = new HashMap<>();

    private record Edge(int set, int to) {}

    /**
     * Makes an automaton.
     *
     * @param sets takes the sets of characters that occur, and has a number for each
     */
    PatternStates(List<PatternNode> alternatives, CharacterSets sets) {
        int first = state();
        end = state();
        for (PatternNode node : alternatives) {
            silent.get(build(node, first, sets)).add(end);
        }
        BitSet begin = new BitSet();
        begin.set(first);
        start = closed(begin);
    }

    private int state() {
        silent.add(new ArrayList<>());
        edges.add(new ArrayList<>());
        return silent.size() - 1;
    }

    private int build(PatternNode node, int from, CharacterSets sets) {
        int at = state();
        silent.get(from).add(at);
        if (node instanceof PatternNode.Characters characters) {
            int to = state();
            edges.get(at).add(new Edge(sets.number(characters), to));
            return to;
        }
        if (node instanceof PatternNode.Pieces pieces) {
            for (PatternNode piece : pieces.pieces()) {
                at = build(piece, at, sets);
            }
            return at;
        }
        if (node instanceof PatternNode.Branches branches) {
            int to = state();
            for (PatternNode branch : branches.branches()) {
                silent.get(build(branch, at, sets)).add(to);
            }
            return to;
        }
        return repeated((PatternNode.Repeated) node, at, sets);
    }

    private int repeated(PatternNode.Repeated node, int from, CharacterSets sets) {
        int at = from;
        for (int i = 0; i < node.least(); i++) {
            at = build(node.piece(), at, sets);
        }
        int to = state();
        silent.get(at).add(to);
        if (node.most() == Integer.MAX_VALUE) {
            silent.get(build(node.piece(), to, sets)).add(to);
        } else {
            for (int i = node.least(); i < node.most(); i++) {
                at = build(node.piece(), at, sets);
                silent.get(at).add(to);
            }
        }
        return to;
    }

    private BitSet closed(BitSet states) {
        List<Integer> open = new ArrayList<>();
        states.stream().forEach(open::add);
        while (!open.isEmpty()) {
            for (int next : silent.get(open.remove(open.size() - 1))) {
                if (!states.get(next)) {
                    states.set(next);
                    open.add(next);
                }
            }
        }
        return states;
    }

    BitSet start() {
        return start;
    }

    boolean isEnd(BitSet states) {
        return states.get(end);
    }

    /**
     * Where a character leads; the empty set when nowhere.
     *
     * @param kind the number of the character's kind
     * @param in the sets that characters of that kind are in
     */
    BitSet step(BitSet states, int kind, BitSet in) {
        return known.computeIfAbsent(states, any -> new HashMap<>()).computeIfAbsent(kind, any -> {
            BitSet next = new BitSet();
            states.stream().forEach(state -> edges.get(state).stream()
                    .filter(edge -> in.get(edge.set()))
                    .forEach(edge -> next.set(edge.to())));
            return closed(next);
        });
    }
}
