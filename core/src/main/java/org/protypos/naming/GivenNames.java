package org.protypos.naming;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/**
 * The names that components have been given: yesterday's, so that they stay, or today's. Names of components that are gone
 * are remembered, so that no other component gets them by accident.
 */
public final class GivenNames {
    /** Nothing has been named yet. */
    public static final GivenNames NONE = new GivenNames("", Map.of());

    private final String language;
    private final Map<String, Map<String, String>> byScope;
    private Index index;

    /**
     * The same names, the other way round. It does not change once it is made: two contracts that are planned beside each
     * other may have the same names of yesterday.
     */
    private record Index(Map<String, String> byDesignator, Map<String, Map<String, String>> holders) {}

    /**
     * Takes names.
     *
     * @param language the language whose names they are
     * @param byScope for each scope the name of each component in it, by its designator
     */
    public GivenNames(String language, Map<String, Map<String, String>> byScope) {
        this.language = language;
        this.byScope = byScope;
    }

    /** Made only where there are names of yesterday, at the first question. */
    private Index index() {
        Index known = index;
        if (known == null) {
            known = new Index(new HashMap<>(), new HashMap<>());
            for (Map.Entry<String, Map<String, String>> one : byScope.entrySet()) {
                Map<String, String> here = new HashMap<>();
                one.getValue().forEach((designator, name) -> here.put(NameScope.key(name), designator));
                known.holders().put(one.getKey(), here);
                one.getValue().forEach(known.byDesignator()::putIfAbsent);
            }
            index = known;
        }
        return known;
    }

    /** The language whose names they are; empty when there are none. */
    public String language() {
        return language;
    }

    /** The same for a language: a name of another is none in it. */
    GivenNames in(String other) {
        return language.equals(other) ? this : NONE;
    }

    /** For each scope the name of each component in it, by its designator. */
    public Map<String, Map<String, String>> byScope() {
        return byScope;
    }

    /** Whether there is no name at all. */
    public boolean isEmpty() {
        return byScope.isEmpty();
    }

    /** The name that a component has, or null. */
    String of(String scope, String designator) {
        Map<String, String> here = byScope.get(scope);
        String name = here == null ? null : here.get(designator);
        return name != null ? name : index().byDesignator().get(designator);
    }

    /** The component that has a name in a scope, by its designator, or null. */
    String holder(String scope, String name) {
        Map<String, String> here = index().holders().get(scope);
        return here == null ? null : here.get(NameScope.key(name));
    }

    /**
     * These names with others before them: what others do not name keeps its name. What they name in another scope has
     * moved there.
     */
    public GivenNames under(GivenNames newer) {
        if (isEmpty()) {
            return newer;
        }
        Map<String, Map<String, String>> all = new HashMap<>();
        newer.byScope.forEach((scope, names) -> all.put(scope, new HashMap<>(names)));
        Set<String> named = new HashSet<>();
        newer.byScope.values().forEach(names -> named.addAll(names.keySet()));
        byScope.forEach((scope, names) -> names.forEach((designator, name) -> {
            if (!named.contains(designator) || NameScope.isMade(designator)) {
                all.computeIfAbsent(scope, any -> new HashMap<>()).put(designator, name);
            }
        }));
        return new GivenNames(newer.language, all);
    }
}
