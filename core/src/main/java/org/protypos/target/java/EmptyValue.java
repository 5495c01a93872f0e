package org.protypos.target.java;

import javax.xml.namespace.QName;
import org.protypos.plan.ScalarKind;
import org.protypos.plan.ValueType;

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
        boolean names = JavaTypes.holdsNames(value)
                || value.written() instanceof ValueType.Items items
                        && items.item() instanceof ValueType.Scalar scalar
                        && scalar.kind() == ScalarKind.QNAME;
        String builtin = builtin(value);
        String namespace = simpleType == null ? "http://www.w3.org/2001/XMLSchema" : simpleType.getNamespaceURI();
        String local = simpleType == null ? builtin : simpleType.getLocalPart();
        if (names) {
            return context.xml(file, "XmlSimple") + ".emptyWithNames(" + JavaText.literal(namespace) + ", "
                    + JavaText.literal(local) + ")";
        }
        return context.xml(file, "XmlSimple") + ".empty(" + JavaText.literal(namespace) + ", " + JavaText.literal(local)
                + ", \"" + builtin + "\")";
    }

    private static String builtin(ValueType value) {
        ScalarKind kind = value.written() instanceof ValueType.Scalar scalar ? scalar.kind() : ScalarKind.STRING;
        return switch (kind) {
            case STRING, NAMES -> "string";
            case NORMALIZED -> "normalizedString";
            case TOKEN -> "token";
            case BOOLEAN -> "boolean";
            case BYTE -> "byte";
            case UNSIGNED_BYTE -> "unsignedByte";
            case SHORT -> "short";
            case UNSIGNED_SHORT -> "unsignedShort";
            case INT -> "int";
            case UNSIGNED_INT -> "unsignedInt";
            case LONG -> "long";
            case UNSIGNED_LONG -> "unsignedLong";
            case INTEGER -> "integer";
            case DECIMAL -> "decimal";
            case FLOAT -> "float";
            case DOUBLE -> "double";
            case DATE_TIME -> "dateTime";
            case DATE -> "date";
            case TIME -> "time";
            case DURATION -> "duration";
            case YEAR -> "gYear";
            case YEAR_MONTH -> "gYearMonth";
            case MONTH -> "gMonth";
            case MONTH_DAY -> "gMonthDay";
            case DAY -> "gDay";
            case HEX -> "hexBinary";
            case BASE64, ATTACHMENT -> "base64Binary";
            case QNAME -> "QName";
        };
    }
}
