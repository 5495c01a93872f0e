package org.protypos.api;

/** The kinds of single values that a target has a type for (XML Schema Part 2, section 3). */
public enum ScalarKind {
    /** Text as it stands. */
    STRING,
    /** Text in which white space characters are spaces. */
    NORMALIZED,
    /** Text with its white space collapsed. */
    TOKEN,
    /** Text as it stands, in which qualified names may be: a value of a union that has names among its members. */
    NAMES,
    BOOLEAN,
    BYTE,
    UNSIGNED_BYTE,
    SHORT,
    UNSIGNED_SHORT,
    INT,
    UNSIGNED_INT,
    LONG,
    UNSIGNED_LONG,
    /** A whole number of any size. */
    INTEGER,
    DECIMAL,
    FLOAT,
    DOUBLE,
    DATE_TIME,
    DATE,
    TIME,
    DURATION,
    /** A year alone. */
    YEAR,
    /** A month of a year. */
    YEAR_MONTH,
    /** A month of any year. */
    MONTH,
    /** A day of a month of any year. */
    MONTH_DAY,
    /** A day of any month. */
    DAY,
    HEX,
    BASE64,
    /** Bytes of some media type, perhaps too many to hold in memory. */
    ATTACHMENT,
    QNAME;

    /** Whether values are kept as text. */
    public boolean isText() {
        return this == STRING || this == NORMALIZED || this == TOKEN || this == NAMES;
    }

    /** Whether values are whole numbers. */
    public boolean isIntegral() {
        return switch (this) {
            case BYTE, UNSIGNED_BYTE, SHORT, UNSIGNED_SHORT, INT, UNSIGNED_INT, LONG, UNSIGNED_LONG, INTEGER -> true;
            default -> false;
        };
    }

    /** Whether values are numbers. */
    public boolean isNumber() {
        return isIntegral() || this == DECIMAL || this == FLOAT || this == DOUBLE;
    }

    /** Whether one value can be written in several ways that a message may choose from; dates are kept as they are written. */
    public boolean isWrittenInWays() {
        return isNumber() || this == BOOLEAN || this == HEX || this == BASE64 || this == ATTACHMENT;
    }

    /** The built-in type that values of the kind are of when nothing says more. */
    public String builtin() {
        return switch (this) {
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

    static ScalarKind of(String builtin) {
        return switch (builtin) {
            case "string", "anySimpleType" -> STRING;
            case "normalizedString" -> NORMALIZED;
            case "boolean" -> BOOLEAN;
            case "byte" -> BYTE;
            case "unsignedByte" -> UNSIGNED_BYTE;
            case "short" -> SHORT;
            case "unsignedShort" -> UNSIGNED_SHORT;
            case "int" -> INT;
            case "unsignedInt" -> UNSIGNED_INT;
            case "long" -> LONG;
            case "integer", "nonPositiveInteger", "negativeInteger", "nonNegativeInteger", "positiveInteger" -> INTEGER;
            case "unsignedLong" -> UNSIGNED_LONG;
            case "decimal" -> DECIMAL;
            case "float" -> FLOAT;
            case "double" -> DOUBLE;
            case "dateTime" -> DATE_TIME;
            case "date" -> DATE;
            case "time" -> TIME;
            case "duration" -> DURATION;
            case "gYear" -> YEAR;
            case "gYearMonth" -> YEAR_MONTH;
            case "gMonth" -> MONTH;
            case "gMonthDay" -> MONTH_DAY;
            case "gDay" -> DAY;
            case "hexBinary" -> HEX;
            case "base64Binary" -> BASE64;
            case "QName", "NOTATION" -> QNAME;
            default -> TOKEN;
        };
    }
}
