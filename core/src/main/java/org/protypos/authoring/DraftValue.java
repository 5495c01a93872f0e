package org.protypos.authoring;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.schema.facet.FacetKind;

/**
 * The type of a value that is to be written: another type as it is, or narrowed.
 *
 * @param type the type, or the one that is narrowed or listed
 * @param others other types that a value may be of instead (XML Schema Part 2, section 4.1.2.3)
 * @param isList whether values are lists of it
 * @param values the values that there are; empty for any
 * @param facets other facets
 */
public record DraftValue(
        QName type, List<QName> others, boolean isList, List<String> values, Map<FacetKind, String> facets) {
    public DraftValue {
        others = List.copyOf(others);
        values = List.copyOf(values);
        facets = new LinkedHashMap<>(facets);
    }

    /** A type as it is. */
    public static DraftValue of(QName type) {
        return new DraftValue(type, List.of(), false, List.of(), Map.of());
    }

    /** One of some values. */
    public static DraftValue oneOf(QName type, List<String> values) {
        return new DraftValue(type, List.of(), false, values, Map.of());
    }

    /** Whether it is another type as it is, and can be named where it is used. */
    public boolean isPlain() {
        return others.isEmpty() && !isList && values.isEmpty() && facets.isEmpty();
    }
}
