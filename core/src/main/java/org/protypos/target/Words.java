package org.protypos.target;

import java.util.Collection;
import java.util.HashSet;
import java.util.Set;

/** Finds names in source text. */
public final class Words {
    /** Which of the plain characters are parts of names: nearly all that is asked about. */
    private static final boolean[] PLAIN_PARTS = new boolean[128];

    static {
        for (char c = 0; c < PLAIN_PARTS.length; c++) {
            PLAIN_PARTS[c] = Character.isJavaIdentifierPart(c);
        }
    }

    private Words() {}

    private static boolean isPart(char c) {
        return c < PLAIN_PARTS.length ? PLAIN_PARTS[c] : Character.isJavaIdentifierPart(c);
    }

    /**
     * Which of some names stand somewhere in a text, and are not just pieces of others. The text is gone through once, however many
     * names there are.
     */
    public static Set<String> in(String text, Collection<String> names) {
        Set<String> wanted = Set.copyOf(names);
        Set<Character> starts = new HashSet<>();
        wanted.forEach(name -> starts.add(name.charAt(0)));
        boolean[] plainStarts = new boolean[128];
        starts.stream().filter(c -> c < plainStarts.length).forEach(c -> plainStarts[c] = true);
        Set<String> found = new HashSet<>();
        int at = 0;
        int length = text.length();
        while (at < length) {
            char c = text.charAt(at);
            if (!isPart(c)) {
                at++;
                continue;
            }
            int begin = at;
            do {
                at++;
            } while (at < length && isPart(text.charAt(at)));
            if (c < plainStarts.length ? plainStarts[c] : starts.contains(c)) {
                String word = text.substring(begin, at);
                if (wanted.contains(word)) {
                    found.add(word);
                }
            }
        }
        return found;
    }
}
