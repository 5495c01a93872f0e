package org.protypos.infer;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;

/** Names types after what they are of, so that none has two meanings in its namespace, whatever the case. */
final class TypeNames {
    private static final int SHORTEST_COMMON = 4;

    private final Map<String, Set<String>> taken = new HashMap<>();

    /** Takes a name that somebody else has chosen. */
    QName fixed(String namespace, String local) {
        taken(namespace).add(local.toLowerCase(Locale.ROOT));
        return new QName(namespace, local);
    }

    /**
     * Gives a name.
     *
     * @param of the names of all that it is of
     * @param at where the first of them stands, as {@code berth/number}
     */
    QName given(String namespace, Iterable<String> of, String at) {
        List<String> names = new ArrayList<>();
        of.forEach(names::add);
        String wanted = common(names);
        if (taken(namespace).contains(wanted.toLowerCase(Locale.ROOT)) && at.indexOf('/') > 0) {
            wanted = capital(at.substring(0, at.indexOf('/'))) + wanted;
        }
        String name = wanted;
        for (int i = 2; !taken(namespace).add(name.toLowerCase(Locale.ROOT)); i++) {
            name = wanted + i;
        }
        return new QName(namespace, name);
    }

    private Set<String> taken(String namespace) {
        return taken.computeIfAbsent(namespace, none -> new HashSet<>());
    }

    /** The words that all of several names end with; the first name where those are none. */
    private static String common(List<String> names) {
        String first = capital(names.get(0));
        String[] words = first.split("(?<=[\\p{Ll}\\p{N}])(?=\\p{Lu})");
        for (int from = names.size() > 1 ? 1 : 0; from < words.length; from++) {
            String end = String.join("", Arrays.copyOfRange(words, from, words.length));
            boolean all = names.stream().allMatch(name -> capital(name).endsWith(end));
            if (all && (from == 0 || end.length() >= SHORTEST_COMMON)) {
                return end;
            }
        }
        return first;
    }

    /** A name as types are called: each of its words begins with a capital. */
    static String capital(String name) {
        StringBuilder capital = new StringBuilder();
        boolean begins = true;
        for (int i = 0; i < name.length(); i++) {
            char c = name.charAt(i);
            if (c == '-' || c == '.' || c == '_') {
                begins = true;
            } else {
                capital.append(begins ? Character.toUpperCase(c) : c);
                begins = false;
            }
        }
        boolean usable = !capital.isEmpty() && Character.isLetter(capital.codePointAt(0));
        return usable ? capital.toString() : "_" + capital;
    }
}
