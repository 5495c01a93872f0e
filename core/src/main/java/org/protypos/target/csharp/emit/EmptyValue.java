package org.protypos.target.csharp.emit;

import javax.xml.namespace.QName;
import org.protypos.target.classes.KnownElement;
import org.protypos.target.classes.ValueType;
import org.protypos.target.code.Code;
import org.protypos.target.code.TypeName;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the expression for an empty value that reading fills, for places where the name of an element decides. */
final class EmptyValue {
    private EmptyValue() {}

    /**
     * The expression for an element.
     *
     * @return the expression, or null for an abstract type
     */
    static Code expression(CSharpContext context, KnownElement element) {
        Code empty = expression(context, element.value(), null);
        return empty == null || element.standing() == null
                ? empty
                : Code.of("$T.Standing($L, $S)", context.runtime("XmlTypes").members(), empty, element.standing());
    }

    /**
     * The expression for a value.
     *
     * @param simpleType the name of the simple type, or null when it has none
     * @return the expression, or null for an abstract type
     */
    static Code expression(CSharpContext context, ValueType value, QName simpleType) {
        if (value instanceof ValueType.Structured structured) {
            return structured.type().isAbstract() ? null : Code.of("new $T()", context.ref(structured.type()));
        }
        if (value instanceof ValueType.Anything) {
            return Code.of("new $T()", context.runtime("XmlTree"));
        }
        String builtin = value.builtin();
        Code name = CSharpTypes.xname(
                simpleType == null ? "http://www.w3.org/2001/XMLSchema" : simpleType.getNamespaceURI(),
                simpleType == null ? builtin : simpleType.getLocalPart());
        TypeName simple = context.runtime("XmlSimple").members();
        return value.needsPrefixes()
                ? Code.of("$T.EmptyWithNames($L)", simple, name)
                : Code.of("$T.Empty($L, $S)", simple, name, value.form());
    }
}
