package org.protypos.target;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;

/** What code sees of a generated API: everything that source is written against, and the names of what it is made from. */
public final class Surface {
    private final Map<String, Symbol> symbols = new LinkedHashMap<>();
    private final Map<String, String> names = new LinkedHashMap<>();

    /** Who writes source against it. */
    public enum Audience {
        /** Who calls the client. */
        CALLER,
        /** Who implements the server. */
        IMPLEMENTER
    }

    /**
     * Something that source is written against.
     *
     * @param designator the component of the contract that it comes from
     * @param slot what is the same when it changes, so that old and new can be shown side by side
     * @param shown how it looks
     * @param gone whose source no longer compiles, or means something else, without it
     * @param come whose source no longer compiles, or means something else, when it is new
     */
    public record Symbol(String designator, String slot, String shown, Set<Audience> gone, Set<Audience> come) {}

    /**
     * Adds a symbol.
     *
     * @param key what makes it the same in another API: everything that source depends on
     */
    public void add(String key, Symbol symbol) {
        symbols.putIfAbsent(key, symbol);
    }

    /** Remembers the name that a component has in code. */
    public void name(String designator, String name) {
        names.putIfAbsent(designator, name);
    }

    /** All symbols by their keys. */
    public Map<String, Symbol> symbols() {
        return symbols;
    }

    /** The names in code of components, by their designators. */
    public Map<String, String> names() {
        return names;
    }

    /** The qualified names of classes, by the designators of what they come from. */
    public Map<String, String> classes() {
        Map<String, String> classes = new LinkedHashMap<>();
        symbols.values().stream()
                .filter(symbol -> symbol.slot().startsWith("class "))
                .forEach(symbol ->
                        classes.putIfAbsent(symbol.designator(), symbol.slot().substring("class ".length())));
        return classes;
    }
}
