package org.protypos.plan;

import java.util.List;
import javax.xml.namespace.QName;

/**
 * A set of named values.
 *
 * @param host the class it is nested in, or null
 * @param xmlType the name of the simple type, or null
 * @param base the kind of text its values are written as
 * @param interfaces the interfaces that it implements
 */
public record ApiEnum(
        String packageName,
        String name,
        ApiClass host,
        QName xmlType,
        ScalarKind base,
        List<Constant> constants,
        List<String> interfaces,
        String documentation) {
    /**
     * A named value.
     *
     * @param value the value in XML
     */
    public record Constant(String name, String value, String documentation) {}

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }
}
