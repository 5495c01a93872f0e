package org.protypos.project;

import java.util.Collection;
import java.util.Map;
import java.util.TreeMap;
import org.protypos.naming.GivenNames;

/**
 * The names that the components of a contract have in each language that it is generated in.
 *
 * @param byLanguage those of each language, none of them empty
 */
public record PinnedNames(Map<String, GivenNames> byLanguage) {
    /** Nothing has been named yet. */
    public static final PinnedNames NONE = new PinnedNames(Map.of());

    /** Those of a language, none when there are none. */
    public GivenNames in(String language) {
        return byLanguage.getOrDefault(language, GivenNames.NONE);
    }

    /** The same with other names for the language that they are of. */
    PinnedNames with(GivenNames names) {
        if (names.isEmpty()) {
            return this;
        }
        Map<String, GivenNames> all = new TreeMap<>(byLanguage);
        all.put(names.language(), names);
        return new PinnedNames(all);
    }

    /** Those of some languages alone. */
    PinnedNames only(Collection<String> languages) {
        Map<String, GivenNames> some = new TreeMap<>(byLanguage);
        some.keySet().retainAll(languages);
        return new PinnedNames(some);
    }
}
