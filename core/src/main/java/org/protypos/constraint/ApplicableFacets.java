package org.protypos.constraint;

import java.util.EnumSet;
import java.util.Set;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.facet.FacetKind;

/** Which facets say something of values (XML Schema Part 2, section 4.1.5). */
public final class ApplicableFacets {
    private ApplicableFacets() {}

    /** The facets that a restriction of values may have. */
    public static Set<FacetKind> of(ValueRule values) {
        Set<FacetKind> applicable = EnumSet.of(FacetKind.PATTERN, FacetKind.ENUMERATION);
        if (values.members() != null) {
            return applicable;
        }
        applicable.add(FacetKind.WHITE_SPACE);
        if (values.item() != null) {
            applicable.addAll(FacetConstraints.OF_LENGTH);
            return applicable;
        }
        switch (BuiltIn.of(values.primitive())) {
            case ANY_SIMPLE_TYPE -> applicable.clear();
            case BOOLEAN -> applicable.remove(FacetKind.ENUMERATION);
            case STRING, ANY_URI, HEX_BINARY, BASE64_BINARY, QNAME, NOTATION ->
                applicable.addAll(FacetConstraints.OF_LENGTH);
            default -> {
                applicable.addAll(FacetConstraints.LOWER);
                applicable.addAll(FacetConstraints.UPPER);
                if (values.primitive().equals(BuiltIn.DECIMAL.local())) {
                    applicable.addAll(FacetConstraints.OF_DIGITS);
                }
            }
        }
        return applicable;
    }

    /** What values are, in a word or two. */
    public static String described(ValueRule values) {
        return values.members() != null
                ? "a union"
                : values.item() != null ? "a list" : "values of " + values.builtin();
    }
}
