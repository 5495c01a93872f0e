package org.protypos.schema.pattern;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/**
 * Whether all texts that match some patterns match others too: the product of their automata is walked, the shortest texts
 * first.
 */
public final class PatternDifference {
    /** Patterns whose automata have more states are not compared. */
    private static final long MOST_STATES = 4_000;

    /** No more of the product is walked. */
    private static final int MOST_PAIRS = 60_000;

    /** So many texts are tried against what cannot be said by patterns. */
    private static final int MOST_TRIED = 500;

    /**
     * What was found.
     *
     * @param text a text that matches the one and not the other, or null
     * @param isSure whether there is none when none was found
     */
    public record Result(String text, boolean isSure) {}

    private record At(List<BitSet> within, BitSet allowed, int length) {}

    private record Walked(At at, Walked before, String character) {
        String text() {
            StringBuilder text = new StringBuilder();
            for (Walked walked = this; walked.before != null; walked = walked.before) {
                text.insert(0, walked.character);
            }
            return text.toString();
        }
    }

    private PatternDifference() {}

    /**
     * Looks for a text that some patterns match and others do not.
     *
     * @param within a text is to match one of each of these
     * @param allowed and none of these
     * @param least how long it is to be at least, in characters
     * @param most how long at most
     * @param also what else a text is to fulfil
     */
    public static Result find(
            List<List<SchemaPattern>> within,
            List<SchemaPattern> allowed,
            int least,
            int most,
            Predicate<String> also) {
        long states = allowed.stream().mapToLong(SchemaPattern::states).sum();
        for (List<SchemaPattern> one : within) {
            states += one.stream().mapToLong(SchemaPattern::states).sum();
        }
        if (states > MOST_STATES) {
            return new Result(null, false);
        }
        CharacterSets sets = new CharacterSets();
        List<PatternStates> all = new ArrayList<>();
        within.forEach(one -> all.add(states(one, sets)));
        PatternStates other = states(allowed, sets);
        // Beyond the length that is asked for at least, all lengths are alike, unless there is a greatest one.
        int alike = most == Integer.MAX_VALUE ? least : most;
        return walk(all, other, sets.kinds(), new int[] {least, most, alike}, also);
    }

    private static PatternStates states(List<SchemaPattern> patterns, CharacterSets sets) {
        return new PatternStates(patterns.stream().map(SchemaPattern::root).toList(), sets);
    }

    private static Result walk(
            List<PatternStates> within,
            PatternStates allowed,
            List<CharacterSets.Kind> kinds,
            int[] lengths,
            Predicate<String> also) {
        Set<At> seen = new HashSet<>();
        Deque<Walked> open = new ArrayDeque<>();
        At start = new At(within.stream().map(PatternStates::start).toList(), allowed.start(), 0);
        seen.add(start);
        open.add(new Walked(start, null, ""));
        int tried = 0;
        while (!open.isEmpty()) {
            Walked walked = open.poll();
            At at = walked.at();
            if (at.length() >= lengths[0] && isEnd(within, at) && !allowed.isEnd(at.allowed())) {
                String text = walked.text();
                if (also.test(text)) {
                    return new Result(text, true);
                }
                if (++tried > MOST_TRIED) {
                    return new Result(null, false);
                }
            }
            if (at.length() == lengths[1]) {
                continue;
            }
            for (int kind = 0; kind < kinds.size(); kind++) {
                At next = step(within, allowed, at, kind, kinds.get(kind), lengths[2]);
                if (next != null && seen.add(next)) {
                    open.add(new Walked(next, walked, kinds.get(kind).example()));
                }
            }
            if (seen.size() > MOST_PAIRS) {
                return new Result(null, false);
            }
        }
        // What was tried in vain may be valid in another text that leads to the same states.
        return new Result(null, tried == 0);
    }

    private static boolean isEnd(List<PatternStates> within, At at) {
        for (int i = 0; i < within.size(); i++) {
            if (!within.get(i).isEnd(at.within().get(i))) {
                return false;
            }
        }
        return true;
    }

    private static At step(
            List<PatternStates> within,
            PatternStates allowed,
            At at,
            int kind,
            CharacterSets.Kind characters,
            int alike) {
        List<BitSet> next = new ArrayList<>();
        for (int i = 0; i < within.size(); i++) {
            BitSet states = within.get(i).step(at.within().get(i), kind, characters.in());
            if (states.isEmpty()) {
                return null;
            }
            next.add(states);
        }
        return new At(next, allowed.step(at.allowed(), kind, characters.in()), Math.min(alike, at.length() + 1));
    }
}
