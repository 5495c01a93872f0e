package org.protypos.schema;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.Map;

/**
 * The built-in simple types, each with the one that it is derived from (XML Schema Part 2, section 3). What differs by them is
 * decided by exhaustive switches over this list, so that one more does not compile before all of that is decided.
 */
public enum BuiltIn {
    ANY_SIMPLE_TYPE("anySimpleType", null),
    STRING("string", ANY_SIMPLE_TYPE),
    NORMALIZED_STRING("normalizedString", STRING),
    TOKEN("token", NORMALIZED_STRING),
    LANGUAGE("language", TOKEN),
    NAME("Name", TOKEN),
    NC_NAME("NCName", NAME),
    NMTOKEN("NMTOKEN", TOKEN),
    NMTOKENS("NMTOKENS", ANY_SIMPLE_TYPE),
    ID("ID", NC_NAME),
    IDREF("IDREF", NC_NAME),
    IDREFS("IDREFS", ANY_SIMPLE_TYPE),
    ENTITY("ENTITY", NC_NAME),
    ENTITIES("ENTITIES", ANY_SIMPLE_TYPE),
    BOOLEAN("boolean", ANY_SIMPLE_TYPE),
    DECIMAL("decimal", ANY_SIMPLE_TYPE),
    INTEGER("integer", DECIMAL),
    NON_POSITIVE_INTEGER("nonPositiveInteger", INTEGER),
    NEGATIVE_INTEGER("negativeInteger", NON_POSITIVE_INTEGER),
    NON_NEGATIVE_INTEGER("nonNegativeInteger", INTEGER),
    POSITIVE_INTEGER("positiveInteger", NON_NEGATIVE_INTEGER),
    LONG("long", INTEGER),
    INT("int", LONG),
    SHORT("short", INT),
    BYTE("byte", SHORT),
    UNSIGNED_LONG("unsignedLong", NON_NEGATIVE_INTEGER),
    UNSIGNED_INT("unsignedInt", UNSIGNED_LONG),
    UNSIGNED_SHORT("unsignedShort", UNSIGNED_INT),
    UNSIGNED_BYTE("unsignedByte", UNSIGNED_SHORT),
    FLOAT("float", ANY_SIMPLE_TYPE),
    DOUBLE("double", ANY_SIMPLE_TYPE),
    DATE_TIME("dateTime", ANY_SIMPLE_TYPE),
    DATE("date", ANY_SIMPLE_TYPE),
    TIME("time", ANY_SIMPLE_TYPE),
    DURATION("duration", ANY_SIMPLE_TYPE),
    G_YEAR("gYear", ANY_SIMPLE_TYPE),
    G_YEAR_MONTH("gYearMonth", ANY_SIMPLE_TYPE),
    G_MONTH("gMonth", ANY_SIMPLE_TYPE),
    G_MONTH_DAY("gMonthDay", ANY_SIMPLE_TYPE),
    G_DAY("gDay", ANY_SIMPLE_TYPE),
    BASE64_BINARY("base64Binary", ANY_SIMPLE_TYPE),
    HEX_BINARY("hexBinary", ANY_SIMPLE_TYPE),
    ANY_URI("anyURI", ANY_SIMPLE_TYPE),
    QNAME("QName", ANY_SIMPLE_TYPE),
    NOTATION("NOTATION", ANY_SIMPLE_TYPE);

    private static final Map<String, BuiltIn> BY_NAME = new HashMap<>();

    static {
        for (BuiltIn type : values()) {
            BY_NAME.put(type.local, type);
        }
    }

    private final String local;
    private final BuiltIn base;

    BuiltIn(String local, BuiltIn base) {
        this.local = local;
        this.base = base;
    }

    /** The built-in type of a local name, or null when there is none. */
    public static BuiltIn of(String local) {
        return BY_NAME.get(local);
    }

    /** Its local name. */
    public String local() {
        return local;
    }

    /** Whether it is another, or derived from it. */
    public boolean isA(BuiltIn other) {
        for (BuiltIn type = this; type != null; type = type.base) {
            if (type == other) {
                return true;
            }
        }
        return false;
    }

    /** Whether its values are items with white space between. */
    public boolean isList() {
        return this == NMTOKENS || this == IDREFS || this == ENTITIES;
    }

    /** Whether its values are whole numbers. */
    public boolean isWhole() {
        return isA(INTEGER);
    }

    /** Whether its values are numbers. */
    public boolean isNumber() {
        return isA(DECIMAL) || this == FLOAT || this == DOUBLE;
    }

    /** The least of its numbers; null where there is none. */
    public BigDecimal least() {
        return switch (this) {
            case BYTE -> BigDecimal.valueOf(Byte.MIN_VALUE);
            case SHORT -> BigDecimal.valueOf(Short.MIN_VALUE);
            case INT -> BigDecimal.valueOf(Integer.MIN_VALUE);
            case LONG -> BigDecimal.valueOf(Long.MIN_VALUE);
            case POSITIVE_INTEGER -> BigDecimal.ONE;
            default -> isA(NON_NEGATIVE_INTEGER) ? BigDecimal.ZERO : null;
        };
    }

    /** The greatest of its numbers; null where there is none. */
    public BigDecimal most() {
        return switch (this) {
            case BYTE -> BigDecimal.valueOf(Byte.MAX_VALUE);
            case SHORT -> BigDecimal.valueOf(Short.MAX_VALUE);
            case INT -> BigDecimal.valueOf(Integer.MAX_VALUE);
            case LONG -> BigDecimal.valueOf(Long.MAX_VALUE);
            case UNSIGNED_BYTE -> BigDecimal.valueOf(0xff);
            case UNSIGNED_SHORT -> BigDecimal.valueOf(0xffff);
            case UNSIGNED_INT -> BigDecimal.valueOf(0xffff_ffffL);
            case UNSIGNED_LONG -> new BigDecimal("18446744073709551615");
            case NEGATIVE_INTEGER -> BigDecimal.ONE.negate();
            case NON_POSITIVE_INTEGER -> BigDecimal.ZERO;
            default -> null;
        };
    }
}
