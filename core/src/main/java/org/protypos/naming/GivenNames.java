package org.protypos.naming;

import java.util.HashMap;
import java.util.Map;

/**
 * The names that components have been given: yesterday's, so that they stay, or today's. Names of components that are gone
 * are remembered, so that no other component gets them by accident.
 */
public final class GivenNames {
    /** Nothing has been named yet. */
    public static final GivenNames NONE = new GivenNames("", Map.of());

    private final String language;
    private final Map<String, Map<String, String>> byScope;
    private final Map<String, String> byDesignator = new HashMap<>();
    private final Map<String, Map<String, String>> holders = new HashMap<>();

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

    /** Asked only where there are names of yesterday. */
    private void index() {
        if (byDesignator.isEmpty()) {
            byScope.forEach((scope, names) -> names.forEach((designator, name) -> {
                byDesignator.putIfAbsent(designator, name);
                holders.computeIfAbsent(scope, any -> new HashMap<>()).put(NameScope.key(name), designator);
            }));
        }
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
        index();
        Map<String, String> here = byScope.get(scope);
        String name = here == null ? null : here.get(designator);
        return name != null ? name : byDesignator.get(designator);
    }

    /** The component that has a name in a scope, by its designator, or null. */
    String holder(String scope, String name) {
        index();
        Map<String, String> here = holders.get(scope);
        return here == null ? null : here.get(NameScope.key(name));
    }

    /** These names with others before them: what others do not name keeps its name. */
    public GivenNames under(GivenNames newer) {
        if (isEmpty()) {
            return newer;
        }
        Map<String, Map<String, String>> all = new HashMap<>();
        byScope.forEach((scope, names) -> all.put(scope, new HashMap<>(names)));
        newer.byScope.forEach((scope, names) ->
                all.computeIfAbsent(scope, any -> new HashMap<>()).putAll(names));
        return new GivenNames(newer.language, all);
    }
}
