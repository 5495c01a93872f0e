package org.protypos.target.content;

import org.protypos.api.type.ScalarKind;

/** How the runtime of every language makes single values of text: by a method of the input for each kind. */
public final class ScalarReading {
    private ScalarReading() {}

    /**
     * The method that makes a value of text, in lower camel case.
     *
     * @return null where the text is the value, and for what is told apart by more than a method: parts of dates and names
     */
    public static String method(ScalarKind kind) {
        return switch (kind) {
            case STRING, NAMES, YEAR, YEAR_MONTH, MONTH, MONTH_DAY, DAY, QNAME -> null;
            case NORMALIZED -> "toNormalized";
            case TOKEN -> "toToken";
            case BOOLEAN -> "toBoolean";
            case BYTE -> "toByte";
            case UNSIGNED_BYTE -> "toUnsignedByte";
            case SHORT -> "toShort";
            case UNSIGNED_SHORT -> "toUnsignedShort";
            case INT -> "toInt";
            case UNSIGNED_INT -> "toUnsignedInt";
            case LONG -> "toLong";
            case UNSIGNED_LONG -> "toUnsignedLong";
            case INTEGER -> "toInteger";
            case DECIMAL -> "toDecimal";
            case FLOAT -> "toFloat";
            case DOUBLE -> "toDouble";
            case DATE_TIME -> "toDateTime";
            case DATE -> "toDate";
            case TIME -> "toTime";
            case DURATION -> "toDuration";
            case HEX -> "toHex";
            case BASE64 -> "toBase64";
            case ATTACHMENT -> "toAttachment";
        };
    }
}
