package org.protypos.target.csharp.emit;

import javax.xml.namespace.QName;
import org.protypos.api.ScalarKind;
import org.protypos.target.classes.ValueType;
import org.protypos.target.csharp.text.CSharpContext;
import org.protypos.target.csharp.text.CSharpFile;
import org.protypos.target.csharp.text.CSharpText;
import org.protypos.target.csharp.text.CSharpTypes;

/** Writes the expression for an empty value that reading fills, for places where the name of an element decides. */
final class EmptyValue {
    private EmptyValue() {}

    /**
     * The expression.
     *
     * @param simpleType the name of the simple type, or null when it has none
     * @return the expression, or null for an abstract type
     */
    static String expression(CSharpContext context, CSharpFile file, ValueType value, QName simpleType) {
        if (value instanceof ValueType.Structured structured) {
            return structured.type().isAbstract() ? null : "new " + context.ref(file, structured.type()) + "()";
        }
        if (value instanceof ValueType.Anything) {
            return "new " + context.runtime(file, "XmlTree") + "()";
        }
        String builtin = value.builtin();
        String name = new CSharpTypes(context, file)
                .xname(
                        simpleType == null ? "http://www.w3.org/2001/XMLSchema" : simpleType.getNamespaceURI(),
                        simpleType == null ? builtin : simpleType.getLocalPart());
        boolean names = value.holdsNames()
                || value.written() instanceof ValueType.Items items
                        && items.item() instanceof ValueType.Scalar scalar
                        && scalar.kind() == ScalarKind.QNAME;
        String simple = context.statics(file, "XmlSimple");
        return names
                ? simple + ".EmptyWithNames(" + name + ")"
                : simple + ".Empty(" + name + ", "
                        + CSharpText.literal(value.itemBuiltin() == null ? builtin : value.itemBuiltin() + "*") + ")";
    }
}
