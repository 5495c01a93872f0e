package org.protypos.api.type;

import org.protypos.schema.BuiltIn;

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
    public BuiltIn builtin() {
        return switch (this) {
            case STRING, NAMES -> BuiltIn.STRING;
            case NORMALIZED -> BuiltIn.NORMALIZED_STRING;
            case TOKEN -> BuiltIn.TOKEN;
            case BOOLEAN -> BuiltIn.BOOLEAN;
            case BYTE -> BuiltIn.BYTE;
            case UNSIGNED_BYTE -> BuiltIn.UNSIGNED_BYTE;
            case SHORT -> BuiltIn.SHORT;
            case UNSIGNED_SHORT -> BuiltIn.UNSIGNED_SHORT;
            case INT -> BuiltIn.INT;
            case UNSIGNED_INT -> BuiltIn.UNSIGNED_INT;
            case LONG -> BuiltIn.LONG;
            case UNSIGNED_LONG -> BuiltIn.UNSIGNED_LONG;
            case INTEGER -> BuiltIn.INTEGER;
            case DECIMAL -> BuiltIn.DECIMAL;
            case FLOAT -> BuiltIn.FLOAT;
            case DOUBLE -> BuiltIn.DOUBLE;
            case DATE_TIME -> BuiltIn.DATE_TIME;
            case DATE -> BuiltIn.DATE;
            case TIME -> BuiltIn.TIME;
            case DURATION -> BuiltIn.DURATION;
            case YEAR -> BuiltIn.G_YEAR;
            case YEAR_MONTH -> BuiltIn.G_YEAR_MONTH;
            case MONTH -> BuiltIn.G_MONTH;
            case MONTH_DAY -> BuiltIn.G_MONTH_DAY;
            case DAY -> BuiltIn.G_DAY;
            case HEX -> BuiltIn.HEX_BINARY;
            case BASE64, ATTACHMENT -> BuiltIn.BASE64_BINARY;
            case QNAME -> BuiltIn.QNAME;
        };
    }

    /** The kind that values of a built-in type are of. */
    static ScalarKind of(BuiltIn type) {
        return switch (type) {
            case STRING, ANY_SIMPLE_TYPE -> STRING;
            case NORMALIZED_STRING -> NORMALIZED;
            case TOKEN, LANGUAGE, NAME, NC_NAME, NMTOKEN, NMTOKENS, ID, IDREF, IDREFS, ENTITY, ENTITIES, ANY_URI ->
                TOKEN;
            case BOOLEAN -> BOOLEAN;
            case BYTE -> BYTE;
            case UNSIGNED_BYTE -> UNSIGNED_BYTE;
            case SHORT -> SHORT;
            case UNSIGNED_SHORT -> UNSIGNED_SHORT;
            case INT -> INT;
            case UNSIGNED_INT -> UNSIGNED_INT;
            case LONG -> LONG;
            case UNSIGNED_LONG -> UNSIGNED_LONG;
            case INTEGER, NON_POSITIVE_INTEGER, NEGATIVE_INTEGER, NON_NEGATIVE_INTEGER, POSITIVE_INTEGER -> INTEGER;
            case DECIMAL -> DECIMAL;
            case FLOAT -> FLOAT;
            case DOUBLE -> DOUBLE;
            case DATE_TIME -> DATE_TIME;
            case DATE -> DATE;
            case TIME -> TIME;
            case DURATION -> DURATION;
            case G_YEAR -> YEAR;
            case G_YEAR_MONTH -> YEAR_MONTH;
            case G_MONTH -> MONTH;
            case G_MONTH_DAY -> MONTH_DAY;
            case G_DAY -> DAY;
            case HEX_BINARY -> HEX;
            case BASE64_BINARY -> BASE64;
            case QNAME, NOTATION -> QNAME;
        };
    }
}
