package org.protypos.runtime.check;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Matches the patterns that are made from those of XML Schema (Part 2, appendix F) in a time that grows with the text and not
 * with its ways through the pattern: all ways are gone at once. The matcher of the platform is faster, but some patterns
 * have it try each way to its end.
 */
public final class PatternAutomaton {
    /** An automaton of more states than that is not made. */
    public static final int MOST_STATES = 120_000;

    private static final long MOST_STEPS = 100_000_000;

    /** What a state does: takes a character of a set, goes on in two places, or is the end. */
    private static final int FORK = -1;

    private static final int END = -2;

    private final List<CharacterSet> sets;
    private final int[] kinds;
    private final int[] next;
    private final int[] other;
    private final int start;

    private PatternAutomaton(Builder from, int start) {
        sets = from.sets;
        kinds = Arrays.copyOf(from.kinds, from.count);
        next = Arrays.copyOf(from.next, from.count);
        other = Arrays.copyOf(from.other, from.count);
        this.start = start;
    }

    /**
     * Makes the automaton of a pattern.
     *
     * @param java the pattern as a regular expression of the platform: characters, character classes, groups that capture
     *     nothing, branches and greedy quantifiers
     * @return the automaton, or null when it would have more than {@link #MOST_STATES} states
     */
    static PatternAutomaton of(String java) {
        Builder builder = new Builder(java);
        int end = builder.state(END, 0, 0);
        try {
            int start = builder.branches(end);
            return new PatternAutomaton(builder, start);
        } catch (TooLargeException e) {
            return null;
        }
    }

    /**
     * Whether the whole of a text matches.
     *
     * @return null when that would take more steps than a text is worth: a hundred million
     */
    Boolean matches(String text) {
        States now = new States(kinds.length);
        States then = new States(kinds.length);
        Deque<Integer> open = new ArrayDeque<>();
        long steps = enter(start, now, open);
        for (int i = 0; i < text.length(); ) {
            int c = text.codePointAt(i);
            i += Character.charCount(c);
            then.count = 0;
            for (int j = 0; j < now.count; j++) {
                int state = now.list[j];
                if (kinds[state] >= 0 && sets.get(kinds[state]).has(c)) {
                    steps += enter(next[state], then, open);
                }
            }
            steps += now.count;
            if (then.count == 0) {
                return false;
            }
            if (steps > MOST_STEPS) {
                return null;
            }
            States before = now;
            now = then;
            then = before;
        }
        for (int j = 0; j < now.count; j++) {
            if (kinds[now.list[j]] == END) {
                return true;
            }
        }
        return false;
    }

    /** Adds a state and all that it leads to without a character. */
    private int enter(int first, States to, Deque<Integer> open) {
        int before = to.count;
        open.push(first);
        while (!open.isEmpty()) {
            int state = open.pop();
            if (to.add(state) && kinds[state] == FORK) {
                open.push(other[state]);
                open.push(next[state]);
            }
        }
        return to.count - before + 1;
    }

    /** A set of states that is emptied at once. */
    private static final class States {
        private final int[] list;
        private final int[] places;
        private int count;

        States(int size) {
            list = new int[size];
            places = new int[size];
        }

        boolean add(int state) {
            int place = places[state];
            if (place < count && list[place] == state) {
                return false;
            }
            places[state] = count;
            list[count++] = state;
            return true;
        }
    }

    /** A set of characters, which remembers the usual ones. */
    private static final class CharacterSet {
        private static final int USUAL = 256;

        private final Pattern pattern;
        private final boolean[] usual = new boolean[USUAL];

        CharacterSet(String java) {
            pattern = Pattern.compile(java);
            for (int c = 0; c < USUAL; c++) {
                usual[c] = matches(c);
            }
        }

        private boolean matches(int c) {
            return pattern.matcher(Character.toString(c)).matches();
        }

        boolean has(int c) {
            return c < USUAL ? usual[c] : matches(c);
        }
    }

    private static final class TooLargeException extends RuntimeException {
        private static final long serialVersionUID = 1L;

        TooLargeException() {
            super(null, null, false, false);
        }
    }

    /** Reads the pattern from its end to its start, so that what follows a state is there before the state. */
    private static final class Builder {
        private final String java;
        private final List<CharacterSet> sets = new ArrayList<>();
        private final Map<String, Integer> known = new HashMap<>();
        private int[] kinds = new int[64];
        private int[] next = new int[64];
        private int[] other = new int[64];
        private int count;
        private int atoms;
        private int at;

        Builder(String java) {
            this.java = java;
        }

        int state(int kind, int first, int second) {
            if (count == MOST_STATES) {
                throw new TooLargeException();
            }
            if (count == kinds.length) {
                kinds = Arrays.copyOf(kinds, count * 2);
                next = Arrays.copyOf(next, count * 2);
                other = Arrays.copyOf(other, count * 2);
            }
            kinds[count] = kind;
            next[count] = first;
            other[count] = second;
            return count++;
        }

        private boolean comes(char c) {
            return at < java.length() && java.charAt(at) == c;
        }

        /** Builds what may stand here so that it goes on with a state, and gives where it begins. */
        int branches(int after) {
            int start = pieces(after);
            while (comes('|')) {
                at++;
                start = state(FORK, start, pieces(after));
            }
            return start;
        }

        private int pieces(int after) {
            List<int[]> pieces = new ArrayList<>();
            while (at < java.length() && !comes('|') && !comes(')')) {
                int from = at;
                passAtom();
                int quantifier = at;
                passQuantifier();
                pieces.add(new int[] {from, quantifier, at});
            }
            int end = at;
            int start = after;
            for (int i = pieces.size() - 1; i >= 0; i--) {
                start = piece(pieces.get(i), start);
            }
            at = end;
            return start;
        }

        private int piece(int[] place, int after) {
            String quantifier = java.substring(place[1], place[2]);
            int least = 1;
            int most = 1;
            if (!quantifier.isEmpty()) {
                String[] counts = quantifier.replaceAll("[{}]", "").split(",", -1);
                least = quantifier.startsWith("{") ? Integer.parseInt(counts[0]) : quantifier.equals("+") ? 1 : 0;
                most = quantifier.equals("?")
                        ? 1
                        : !quantifier.startsWith("{") || counts.length > 1 && counts[1].isEmpty()
                                ? Integer.MAX_VALUE
                                : Integer.parseInt(counts[counts.length - 1]);
            }
            int start = after;
            if (most == Integer.MAX_VALUE) {
                int loop = state(FORK, after, after);
                // The tables may have grown by then.
                int inner = atom(place[0], loop);
                next[loop] = inner;
                start = loop;
            } else {
                for (int i = least; i < most; i++) {
                    start = state(FORK, atom(place[0], start), after);
                }
            }
            for (int i = 0; i < least; i++) {
                start = atom(place[0], start);
            }
            return start;
        }

        private int atom(int from, int after) {
            // What takes no character makes no state, however often it is repeated.
            if (++atoms > 2 * MOST_STATES) {
                throw new TooLargeException();
            }
            at = from;
            if (comes('(')) {
                at += "(?:".length();
                return branches(after);
            }
            passAtom();
            String text = java.substring(from, at);
            Integer set = known.get(text);
            if (set == null) {
                set = sets.size();
                sets.add(new CharacterSet(text));
                known.put(text, set);
            }
            return state(set, after, after);
        }

        private void passAtom() {
            if (comes('[') || comes('(')) {
                char opening = java.charAt(at);
                char closing = opening == '[' ? ']' : ')';
                int open = 0;
                do {
                    char c = java.charAt(at);
                    if (opening == '(' && c == '[') {
                        passAtom();
                        continue;
                    }
                    open += c == opening ? 1 : c == closing ? -1 : 0;
                    passCharacter();
                } while (open > 0);
            } else {
                passCharacter();
            }
        }

        /** Passes over a character, or an escape with what belongs to it. */
        private void passCharacter() {
            if (!comes('\\')) {
                at += Character.charCount(java.codePointAt(at));
                return;
            }
            char escape = java.charAt(at + 1);
            at += 2;
            if ((escape == 'x' || escape == 'p' || escape == 'P') && comes('{')) {
                at = java.indexOf('}', at) + 1;
            }
        }

        private void passQuantifier() {
            if (comes('{')) {
                at = java.indexOf('}', at) + 1;
            } else if (comes('?') || comes('*') || comes('+')) {
                at++;
            }
        }
    }
}
