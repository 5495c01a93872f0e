package org.protypos.api.type;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;

/**
 * A set of named values.
 *
 * @param origin where it is defined
 * @param subject how rules speak of it
 * @param host the type that it is defined in; null when it is defined in none
 * @param name the name of the component that it belongs to: the type itself, or the element or attribute around
 * @param base the kind of text its values are written as
 * @param text the kind of text that they are for those who have no room for so many names
 */
public record EnumeratedType(
        Origin origin,
        Subject subject,
        StructuredType host,
        QName name,
        ScalarKind base,
        ScalarKind text,
        List<Value> values,
        String documentation)
        implements NamedType {
    /**
     * A named value.
     *
     * @param subject how rules speak of it
     * @param text the value in XML
     */
    public record Value(Subject subject, String text, String documentation) {}

    /** The name of the type, or null when it has none. */
    public QName typeName() {
        return origin == Origin.TYPE ? name : null;
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }
}
