package org.protypos.layout;

import java.math.BigDecimal;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.ValueFacets;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.facet.FacetStep;

/** What the facets of a simple type say about the room that its values need (XML Schema Part 2, section 4.3). */
final class Bounds {
    private int longest = Integer.MAX_VALUE;
    private int shortest;
    private int digits = Integer.MAX_VALUE;
    private int decimals = Integer.MAX_VALUE;
    private BigDecimal least;
    private BigDecimal most;
    private boolean unsigned;

    private Bounds() {}

    static Bounds of(ValueFacets facets, ApiValue value) {
        Bounds bounds = new Bounds();
        bounds.take(facets);
        if (value instanceof ApiValue.Scalar scalar) {
            bounds.unsigned |= switch (scalar.kind()) {
                case UNSIGNED_BYTE, UNSIGNED_SHORT, UNSIGNED_INT, UNSIGNED_LONG -> true;
                default -> false;
            };
        }
        return bounds;
    }

    private void take(ValueFacets facets) {
        if (facets instanceof ValueFacets.OfBuiltIn builtin) {
            BuiltIn type = builtin.type();
            unsigned |= type == BuiltIn.NON_NEGATIVE_INTEGER || type == BuiltIn.POSITIVE_INTEGER;
        } else if (facets instanceof ValueFacets.Fixed fixed) {
            take(fixed.base());
        } else if (facets instanceof ValueFacets.Narrowed narrowed) {
            take(narrowed.base());
            narrowed.step()
                    .map(new FacetStep.Cases<Void>(
                            space -> null,
                            matching -> null,
                            values -> {
                                longest = Math.min(
                                        longest,
                                        values.values().stream()
                                                .mapToInt(String::length)
                                                .max()
                                                .orElse(1));
                                return null;
                            },
                            bound -> {
                                BigDecimal number = number(bound.bound());
                                least = number == null || least != null && least.compareTo(number) > 0 ? least : number;
                                return null;
                            },
                            bound -> {
                                BigDecimal number = number(bound.bound());
                                most = number == null || most != null && most.compareTo(number) < 0 ? most : number;
                                return null;
                            },
                            length -> {
                                longest = Math.min(longest, length.most());
                                shortest = Math.max(shortest, length.least());
                                return null;
                            },
                            counted -> {
                                digits = Math.min(digits, counted.total());
                                decimals = Math.min(decimals, counted.fraction());
                                return null;
                            }));
        }
    }

    /** A bound of a number; those of dates are none. */
    private static BigDecimal number(String text) {
        try {
            BigDecimal number = new BigDecimal(text);
            return number.precision() - (long) number.scale() > 400 ? null : number;
        } catch (NumberFormatException e) {
            return null;
        }
    }

    /** The most characters or bytes, or {@link Integer#MAX_VALUE}. */
    int longest() {
        return longest;
    }

    /** Whether all values have one length. */
    boolean isFixed() {
        return shortest == longest;
    }

    /** Whether no value is negative. */
    boolean isUnsigned() {
        return unsigned || least != null && least.signum() >= 0;
    }

    /** The digits behind the point: none for whole numbers, {@link Integer#MAX_VALUE} when nothing is said. */
    int decimals(ScalarKind kind) {
        return kind.isIntegral() ? 0 : decimals;
    }

    /** The digits before the point, or {@link Integer#MAX_VALUE} when nothing is said. */
    int whole(ScalarKind kind) {
        int ofKind =
                switch (kind) {
                    case BYTE, UNSIGNED_BYTE -> 3;
                    case SHORT, UNSIGNED_SHORT -> 5;
                    case INT, UNSIGNED_INT -> 10;
                    case LONG -> 19;
                    case UNSIGNED_LONG -> 20;
                    default -> Integer.MAX_VALUE;
                };
        int bounded = Math.min(ofKind, digits);
        if (least != null && most != null) {
            bounded = Math.min(bounded, Math.max(wholeDigits(least), wholeDigits(most)));
        } else if (most != null && isUnsigned()) {
            bounded = Math.min(bounded, wholeDigits(most));
        }
        return bounded;
    }

    private static int wholeDigits(BigDecimal number) {
        return Math.max(1, number.precision() - number.scale());
    }
}
