package org.protypos.diagnostic;

import java.util.Collection;
import java.util.Locale;
import java.util.Optional;

/** Finds the name that a mistyped one was probably meant to be. */
public final class NearestName {
    private NearestName() {}

    /**
     * Gives the candidate with the fewest letters inserted, dropped, changed or swapped, if those are few for its length.
     *
     * @param wanted the name that was not found
     * @param candidates the names that exist
     */
    public static Optional<String> of(String wanted, Collection<String> candidates) {
        int limit = Math.max(1, wanted.length() / 3);
        String best = null;
        int bestDistance = limit + 1;
        for (String candidate : candidates) {
            if (Math.abs(candidate.length() - wanted.length()) > limit) {
                continue;
            }
            int distance = distance(lower(wanted), lower(candidate), bestDistance);
            if (distance < bestDistance
                    || distance == bestDistance && best != null && isNearer(wanted, candidate, best)) {
                best = candidate;
                bestDistance = distance;
            }
        }
        return Optional.ofNullable(best);
    }

    /**
     * Asks whether a name is meant that exists.
     *
     * @param otherwise what to say where none is near
     */
    public static String cure(String wanted, Collection<String> candidates, String otherwise) {
        return of(wanted, candidates).map(name -> "did you mean " + name + "?").orElse(otherwise);
    }

    /** Of two that differ in as many letters, capitals aside, the one whose capitals differ less; else the first of the alphabet. */
    private static boolean isNearer(String wanted, String candidate, String best) {
        int difference = distance(wanted, candidate) - distance(wanted, best);
        return difference < 0 || difference == 0 && candidate.compareTo(best) < 0;
    }

    private static String lower(String text) {
        return text.toLowerCase(Locale.ROOT);
    }

    /** How many letters are inserted, dropped, changed or swapped between two texts, capitals being letters of their own. */
    public static int distance(String a, String b) {
        return distance(a, b, a.length() + b.length());
    }

    /** The distance of optimal string alignment, given up once it must pass {@code enough}. */
    private static int distance(String a, String b, int enough) {
        int[] beforePrevious = new int[b.length() + 1];
        int[] previous = new int[b.length() + 1];
        int[] current = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            previous[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            current[0] = i;
            int least = i;
            for (int j = 1; j <= b.length(); j++) {
                int change = previous[j - 1] + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                current[j] = Math.min(change, Math.min(previous[j], current[j - 1]) + 1);
                if (isSwap(a, b, i, j)) {
                    current[j] = Math.min(current[j], beforePrevious[j - 2] + 1);
                }
                least = Math.min(least, current[j]);
            }
            if (least > enough + 1) {
                return least;
            }
            int[] oldest = beforePrevious;
            beforePrevious = previous;
            previous = current;
            current = oldest;
        }
        return previous[b.length()];
    }

    private static boolean isSwap(String a, String b, int i, int j) {
        return i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1);
    }
}
