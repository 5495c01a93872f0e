package org.protypos.target.classes;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.api.type.EnumeratedType;
import org.protypos.api.type.ScalarKind;

/**
 * A set of named values.
 *
 * @param host the class it is nested in, or null
 * @param constants its values
 * @param interfaces the interfaces that it implements
 * @param type what it is in the API
 */
public record PlannedEnum(
        String packageName,
        String name,
        PlannedClass host,
        List<Constant> constants,
        List<String> interfaces,
        EnumeratedType type) {
    /**
     * A named value.
     *
     * @param value the value in XML
     */
    public record Constant(String name, String value, String documentation) {}

    /** The name of the simple type, or null. */
    public QName xmlType() {
        return type.typeName();
    }

    /** The kind of text its values are written as. */
    public ScalarKind base() {
        return type.base();
    }

    /** What is said about it. */
    public String documentation() {
        return type.documentation();
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
