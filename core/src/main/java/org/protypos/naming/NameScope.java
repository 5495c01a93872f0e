package org.protypos.naming;

import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * Owns the names of one scope: a package, a class, a parameter list. Two names that differ only in case count as one,
 * for some file systems think so, and so do some readers.
 */
public final class NameScope {
    private final NameScope inherited;
    private final Set<String> taken = new HashSet<>();

    private NameScope(NameScope inherited, Collection<String> reserved) {
        this.inherited = inherited;
        reserved.forEach(name -> taken.add(key(name)));
    }

    /** A scope of its own, with names that are not to be had. */
    public static NameScope of(Collection<String> reserved) {
        return new NameScope(null, reserved);
    }

    /** A scope in which the names of this one are taken as well. */
    public NameScope within() {
        return new NameScope(this, List.of());
    }

    private static String key(String name) {
        return name.toLowerCase(Locale.ROOT);
    }

    /** Whether a name is taken here or in a scope around. */
    public boolean has(String name) {
        return taken.contains(key(name)) || inherited != null && inherited.has(name);
    }

    /**
     * Takes a name.
     *
     * @param wanted the name one would like to have
     * @param suffix what tells this one from its namesakes, to be tried next; may be empty
     * @return the name wanted, or with the suffix, or with a number behind it
     */
    public String claim(String wanted, String suffix) {
        if (add(wanted)) {
            return wanted;
        }
        String base = wanted + suffix;
        if (!suffix.isEmpty() && add(base)) {
            return base;
        }
        for (int number = 2; ; number++) {
            String numbered = base + number;
            if (add(numbered)) {
                return numbered;
            }
        }
    }

    private boolean add(String name) {
        return !has(name) && taken.add(key(name));
    }
}
