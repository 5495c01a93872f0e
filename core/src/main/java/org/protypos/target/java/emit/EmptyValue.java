package org.protypos.target.java.emit;

import javax.xml.namespace.QName;
import org.protypos.target.classes.KnownElement;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.java.text.JavaContext;

/** Writes the expression for an empty value that reading fills, for places where the name of an element decides. */
final class EmptyValue {
    private EmptyValue() {}

    /**
     * The expression for an element.
     *
     * @return the expression, or null for an abstract type
     */
    static Code expression(JavaContext context, KnownElement element) {
        Code empty = expression(context, element.value(), null);
        return empty == null || element.standing() == null
                ? empty
                : Code.of("$T.standing($L, $S)", context.xml("XmlTypes"), empty, element.standing());
    }

    /**
     * The expression for a value.
     *
     * @param simpleType the name of the simple type, or null when it has none
     * @return the expression, or null for an abstract type
     */
    static Code expression(JavaContext context, ValueType value, QName simpleType) {
        if (value instanceof ValueType.Structured structured) {
            return structured.type().isAbstract() ? null : Code.of("new $T()", context.ref(structured.type()));
        }
        if (value instanceof ValueType.Anything) {
            return Code.of("new $T()", context.xml("XmlTree"));
        }
        String builtin = value.builtin();
        String namespace = simpleType == null ? "http://www.w3.org/2001/XMLSchema" : simpleType.getNamespaceURI();
        String local = simpleType == null ? builtin : simpleType.getLocalPart();
        if (value.needsPrefixes()) {
            return Code.of("$T.emptyWithNames($S, $S)", context.xml("XmlSimple"), namespace, local);
        }
        return Code.of("$T.empty($S, $S, $S)", context.xml("XmlSimple"), namespace, local, value.form());
    }
}
