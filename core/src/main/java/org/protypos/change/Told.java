package org.protypos.change;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.protypos.diagnostic.Place;

/** A difference while it is found out for whom it breaks something. */
final class Told {
    private final Difference.Change change;
    private final String kind;
    private final String designator;
    private final String fact;
    private final String before;
    private final String after;
    private final Place oldPlace;
    private final Place newPlace;
    private final Set<Reader> breaks = EnumSet.noneOf(Reader.class);
    private final Set<Reader> refuses = EnumSet.noneOf(Reader.class);
    private final Set<Reader> misleads = EnumSet.noneOf(Reader.class);
    private final List<Evidence> evidence = new ArrayList<>();

    Told(
            Difference.Change change,
            String kind,
            String designator,
            String fact,
            String before,
            String after,
            Place oldPlace,
            Place newPlace) {
        this.change = change;
        this.kind = kind;
        this.designator = designator;
        this.fact = fact;
        this.before = before;
        this.after = after;
        this.oldPlace = oldPlace;
        this.newPlace = newPlace;
    }

    String designator() {
        return designator;
    }

    String fact() {
        return fact;
    }

    /** Whether only the documentation is another. */
    boolean isProse() {
        return fact.equals("documentation");
    }

    Difference.Change change() {
        return change;
    }

    /** Whether a message shows for whom it breaks something, and how. */
    boolean isShown(Reader reader, boolean isRefusal) {
        return (isRefusal ? refuses : breaks).contains(reader)
                && evidence.stream().anyMatch(one -> one.reader() == reader && one.isShown());
    }

    /**
     * It breaks something that no message shows.
     *
     * @param why why not
     */
    void breaks(Set<Reader> readers, String why) {
        readers.stream()
                .filter(Reader::isOnTheWire)
                .forEach(reader -> breaks(new Evidence(reader, true, null, designator, null, null, why, null), true));
        breaks.addAll(readers);
    }

    void breaksCode(Set<Reader> readers) {
        breaks.addAll(readers);
    }

    void breaks(Evidence found, boolean isRefusal) {
        breaks.add(found.reader());
        (isRefusal ? refuses : misleads).add(found.reader());
        // One message for each reader is enough, the first that can be shown.
        Evidence known = evidence.stream()
                .filter(one -> one.reader() == found.reader())
                .findFirst()
                .orElse(null);
        if (known == null || !known.isShown() && found.isShown()) {
            evidence.remove(known);
            evidence.add(found);
        }
    }

    Difference difference() {
        misleads.removeAll(refuses);
        return new Difference(
                change,
                kind,
                designator,
                fact,
                before,
                after,
                oldPlace,
                newPlace,
                breaks.isEmpty() ? Set.of() : EnumSet.copyOf(breaks),
                misleads.isEmpty() ? Set.of() : EnumSet.copyOf(misleads),
                evidence.stream()
                        .sorted((a, b) -> a.reader().compareTo(b.reader()))
                        .toList());
    }
}
