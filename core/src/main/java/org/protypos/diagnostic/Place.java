package org.protypos.diagnostic;

/**
 * A place in a document.
 *
 * @param source the document's text
 * @param offset the number of characters before the place
 */
public record Place(SourceText source, int offset) implements Comparable<Place> {
    /** The document's name. */
    public String document() {
        return source.name();
    }

    /** The line, from 1. */
    public int line() {
        return source.line(offset) + 1;
    }

    /** The column, from 1. */
    public int column() {
        return offset - source.lineStart(source.line(offset)) + 1;
    }

    /** What stands before it in its line, or the last characters of that. */
    public String before(int most) {
        return source.before(offset, most);
    }

    /** What stands in its line from it on, or the first characters of that. */
    public String behind(int most) {
        return source.behind(offset, most);
    }

    /** A place further on, at the first occurrence of a text in the tag that starts here; this place if there is none. */
    public Place towards(String wanted) {
        int end = source.text().indexOf('>', offset);
        int found = source.text().indexOf(wanted, offset);
        return found < 0 || end >= 0 && found > end ? this : source.at(found);
    }

    /** Where an attribute stands in the tag that starts here; this place if the tag has none of the name. */
    public Place attribute(String name) {
        Place found = towards(name + "=");
        // White space may stand before the sign.
        return found == this ? towards(name) : found;
    }

    @Override
    public int compareTo(Place other) {
        int byName = document().compareTo(other.document());
        return byName != 0 ? byName : Integer.compare(offset, other.offset);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Place place && place.source == source && place.offset == offset;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(source) * 31 + offset;
    }

    @Override
    public String toString() {
        return document() + ":" + line() + ":" + column();
    }
}
