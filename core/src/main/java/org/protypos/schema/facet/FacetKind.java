package org.protypos.schema.facet;

import java.util.HashMap;
import java.util.Map;

/** The constraining facets (XML Schema Part 2, section 4.3). */
public enum FacetKind {
    LENGTH("length"),
    MIN_LENGTH("minLength"),
    MAX_LENGTH("maxLength"),
    PATTERN("pattern"),
    MIN_INCLUSIVE("minInclusive"),
    MIN_EXCLUSIVE("minExclusive"),
    MAX_INCLUSIVE("maxInclusive"),
    MAX_EXCLUSIVE("maxExclusive"),
    TOTAL_DIGITS("totalDigits"),
    FRACTION_DIGITS("fractionDigits"),
    ENUMERATION("enumeration"),
    WHITE_SPACE("whiteSpace");

    private static final Map<String, FacetKind> BY_NAME = new HashMap<>();

    static {
        for (FacetKind kind : values()) {
            BY_NAME.put(kind.local, kind);
        }
    }

    private final String local;

    FacetKind(String local) {
        this.local = local;
    }

    /** The facet of a local name, or null. */
    public static FacetKind of(String local) {
        return BY_NAME.get(local);
    }

    /** Its local name. */
    public String local() {
        return local;
    }

    /** What its value is. */
    public Form form() {
        return switch (this) {
            case LENGTH, MIN_LENGTH, MAX_LENGTH, TOTAL_DIGITS, FRACTION_DIGITS -> Form.COUNT;
            case MIN_INCLUSIVE, MIN_EXCLUSIVE, MAX_INCLUSIVE, MAX_EXCLUSIVE -> Form.BOUND;
            case PATTERN -> Form.PATTERN;
            case ENUMERATION -> Form.VALUE;
            case WHITE_SPACE -> Form.WORD;
        };
    }

    /** What values of facets are. */
    public enum Form {
        /** A number without a sign. */
        COUNT,
        /** A value of the type that it bounds. */
        BOUND,
        /** A regular expression (XML Schema Part 2, appendix F). */
        PATTERN,
        /** A value of the type. */
        VALUE,
        /** One of some words. */
        WORD
    }

    @Override
    public String toString() {
        return local;
    }
}
