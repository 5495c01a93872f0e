package org.protypos.target.java.emit;

import javax.xml.namespace.QName;
import org.protypos.api.ScalarKind;
import org.protypos.target.classes.ValueType;
import org.protypos.target.java.text.JavaContext;
import org.protypos.target.java.text.JavaFile;
import org.protypos.target.java.text.JavaText;

/** Writes the expression for an empty value that reading fills, for places where the name of an element decides. */
final class EmptyValue {
    private EmptyValue() {}

    /**
     * The expression.
     *
     * @param simpleType the name of the simple type, or null when it has none
     * @return the expression, or null for an abstract type
     */
    static String expression(JavaContext context, JavaFile file, ValueType value, QName simpleType) {
        if (value instanceof ValueType.Structured structured) {
            return structured.type().isAbstract() ? null : "new " + context.ref(file, structured.type()) + "()";
        }
        if (value instanceof ValueType.Anything) {
            return "new " + context.xml(file, "XmlTree") + "()";
        }
        boolean names = value.holdsNames()
                || value.written() instanceof ValueType.Items items
                        && items.item() instanceof ValueType.Scalar scalar
                        && scalar.kind() == ScalarKind.QNAME;
        String builtin = value.builtin();
        String namespace = simpleType == null ? "http://www.w3.org/2001/XMLSchema" : simpleType.getNamespaceURI();
        String local = simpleType == null ? builtin : simpleType.getLocalPart();
        if (names) {
            return context.xml(file, "XmlSimple") + ".emptyWithNames(" + JavaText.literal(namespace) + ", "
                    + JavaText.literal(local) + ")";
        }
        return context.xml(file, "XmlSimple") + ".empty(" + JavaText.literal(namespace) + ", " + JavaText.literal(local)
                + ", " + JavaText.literal(value.itemBuiltin() == null ? builtin : value.itemBuiltin() + "*") + ")";
    }
}
