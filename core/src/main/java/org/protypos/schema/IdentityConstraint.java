package org.protypos.schema;

import java.util.List;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * An identity constraint (XML Schema Part 1, section 3.11).
 *
 * @param kind {@code key}, {@code keyref} or {@code unique}
 * @param refer the key that a keyref refers to, or null
 * @param namespaces gives the namespace of a prefix that the paths use, or null
 */
public record IdentityConstraint(
        QName name,
        String kind,
        String selector,
        List<String> fields,
        QName refer,
        UnaryOperator<String> namespaces,
        Place place) {
    /** What it demands, in words. */
    public String inWords() {
        String values = String.join(", ", fields);
        return switch (kind) {
            case "keyref" ->
                "The values of " + values + " in each " + selector + " refer to the key " + refer.getLocalPart() + ".";
            case "unique" -> "No two " + selector + " have the same " + values + " (" + name.getLocalPart() + ").";
            default -> "Each " + selector + " has a " + values + " of its own (key " + name.getLocalPart() + ").";
        };
    }
}
