package org.protypos.authoring;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;

/**
 * The type of a value that is to be written: another type as it is, or narrowed.
 *
 * @param type the type, or the one that is narrowed or listed
 * @param isList whether values are lists of it
 * @param values the values that there are; empty for any
 * @param facets other facets, by their names in XML Schema
 */
public record DraftValue(QName type, boolean isList, List<String> values, Map<String, String> facets) {
    public DraftValue {
        values = List.copyOf(values);
        facets = new LinkedHashMap<>(facets);
    }

    /** A type as it is. */
    public static DraftValue of(QName type) {
        return new DraftValue(type, false, List.of(), Map.of());
    }

    /** Whether it is another type as it is, and can be named where it is used. */
    public boolean isPlain() {
        return !isList && values.isEmpty() && facets.isEmpty();
    }
}
