package org.protypos.change;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.protypos.diagnostic.Place;

/**
 * One thing that two contracts say differently.
 *
 * @param change whether a component came, went, got another name, or is described otherwise
 * @param kind what kind of component it is, in the standards' word
 * @param designator the component, as rules speak of it
 * @param fact what is said otherwise of it, empty when it came or went
 * @param before what the old contract says, or null
 * @param after what the new contract says, or null
 * @param oldPlace where the old contract says it, or null
 * @param newPlace where the new contract says it, or null
 * @param breaks for whom it breaks something
 * @param misleads for whom, of these, nothing is refused but something means something else
 * @param evidence why, for those for whom it breaks something on the wire
 */
public record Difference(
        Change change,
        String kind,
        String designator,
        String fact,
        String before,
        String after,
        Place oldPlace,
        Place newPlace,
        Set<Reader> breaks,
        Set<Reader> misleads,
        List<Evidence> evidence) {
    /** What can happen to a component. */
    public enum Change {
        ADDED,
        REMOVED,
        RENAMED,
        CHANGED
    }

    /** The same, as far as it breaks something for some. */
    Difference of(Set<Reader> readers) {
        return new Difference(
                change,
                kind,
                designator,
                fact,
                before,
                after,
                oldPlace,
                newPlace,
                some(breaks, readers),
                some(misleads, readers),
                evidence.stream().filter(one -> readers.contains(one.reader())).toList());
    }

    private static Set<Reader> some(Set<Reader> all, Set<Reader> readers) {
        Set<Reader> some = EnumSet.noneOf(Reader.class);
        all.stream().filter(readers::contains).forEach(some::add);
        return some;
    }

    /** The global component that it is a difference of, or in: a type, an element, a service, a port type. */
    public String around() {
        return Item.root(designator);
    }

    /** Whether it breaks anything for anybody. */
    public boolean isBreaking() {
        return !breaks.isEmpty();
    }
}
