package org.protypos.schema.facet;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Place;
import org.protypos.schema.pattern.SchemaPattern;

/** One thing that a restriction demands of values: the facets that belong together, as one (XML Schema Part 2, 4.3). */
public sealed interface FacetStep {
    /** Where the first of its facets stands. */
    Place place();

    /** Which facet it is; where there are two, the one that says more. */
    FacetKind kind();

    /** What becomes of it in the case that it is. */
    <R> R map(Cases<R> cases);

    /** What becomes of each of them: whoever knows them all is told by the compiler when there is one more. */
    record Cases<R>(
            Function<WhiteSpace, R> whiteSpace,
            Function<Matching, R> matching,
            Function<OneOf, R> oneOf,
            Function<Least, R> least,
            Function<Most, R> most,
            Function<Length, R> length,
            Function<Digits, R> digits) {}

    /** How white space is treated. */
    record WhiteSpace(String treatment, Place place) implements FacetStep {
        @Override
        public FacetKind kind() {
            return FacetKind.WHITE_SPACE;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.whiteSpace().apply(this);
        }
    }

    /** Some pattern is matched; patterns of one restriction are alternatives. */
    record Matching(String pattern, String java, List<SchemaPattern> patterns, Place place) implements FacetStep {
        @Override
        public FacetKind kind() {
            return FacetKind.PATTERN;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.matching().apply(this);
        }
    }

    /** The value is one of some. */
    record OneOf(List<String> values, UnaryOperator<String> namespaces, Place place) implements FacetStep {
        @Override
        public FacetKind kind() {
            return FacetKind.ENUMERATION;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.oneOf().apply(this);
        }
    }

    /** The value is not less than a bound. */
    record Least(String bound, boolean exclusive, Place place) implements FacetStep {
        @Override
        public FacetKind kind() {
            return exclusive ? FacetKind.MIN_EXCLUSIVE : FacetKind.MIN_INCLUSIVE;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.least().apply(this);
        }
    }

    /** The value is not greater than a bound. */
    record Most(String bound, boolean exclusive, Place place) implements FacetStep {
        @Override
        public FacetKind kind() {
            return exclusive ? FacetKind.MAX_EXCLUSIVE : FacetKind.MAX_INCLUSIVE;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.most().apply(this);
        }
    }

    /** The length lies between bounds. */
    record Length(int least, int most, Place place) implements FacetStep {
        @Override
        public FacetKind kind() {
            return least == most ? FacetKind.LENGTH : least > 0 ? FacetKind.MIN_LENGTH : FacetKind.MAX_LENGTH;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.length().apply(this);
        }
    }

    /** The number of digits is bounded. */
    record Digits(int total, int fraction, Place place) implements FacetStep {
        /** As many digits as a number has, all of them and behind the point (XML Schema Part 2, sections 4.3.11 and 4.3.12). */
        public static Digits of(BigDecimal number) {
            BigDecimal plain = number.stripTrailingZeros();
            int behind = Math.max(0, plain.scale());
            return new Digits(Math.max(plain.precision() - Math.min(0, plain.scale()), behind), behind, null);
        }

        @Override
        public FacetKind kind() {
            return total == Integer.MAX_VALUE ? FacetKind.FRACTION_DIGITS : FacetKind.TOTAL_DIGITS;
        }

        @Override
        public <R> R map(Cases<R> cases) {
            return cases.digits().apply(this);
        }
    }

    /** The steps that the facets of one restriction amount to. A facet with a value that makes no sense is left out. */
    static List<FacetStep> of(List<Facet> facets) {
        List<FacetStep> steps = new ArrayList<>();
        List<Facet> patterns = new ArrayList<>();
        List<Facet> values = new ArrayList<>();
        for (Facet facet : facets) {
            switch (facet.kind()) {
                case WHITE_SPACE -> steps.add(0, new WhiteSpace(facet.value(), facet.place()));
                case MIN_INCLUSIVE -> steps.add(new Least(facet.value().strip(), false, facet.place()));
                case MIN_EXCLUSIVE -> steps.add(new Least(facet.value().strip(), true, facet.place()));
                case MAX_INCLUSIVE -> steps.add(new Most(facet.value().strip(), false, facet.place()));
                case MAX_EXCLUSIVE -> steps.add(new Most(facet.value().strip(), true, facet.place()));
                case LENGTH -> steps.add(new Length(count(facet, 0), count(facet, Integer.MAX_VALUE), facet.place()));
                case MIN_LENGTH -> steps.add(new Length(count(facet, 0), Integer.MAX_VALUE, facet.place()));
                case MAX_LENGTH -> steps.add(new Length(0, count(facet, Integer.MAX_VALUE), facet.place()));
                case TOTAL_DIGITS ->
                    steps.add(new Digits(count(facet, Integer.MAX_VALUE), Integer.MAX_VALUE, facet.place()));
                case FRACTION_DIGITS ->
                    steps.add(new Digits(Integer.MAX_VALUE, count(facet, Integer.MAX_VALUE), facet.place()));
                case PATTERN -> patterns.add(facet);
                case ENUMERATION -> values.add(facet);
            }
        }
        if (!patterns.isEmpty()) {
            addMatching(patterns, steps);
        }
        if (!values.isEmpty()) {
            steps.add(new OneOf(
                    values.stream().map(Facet::value).toList(),
                    values.get(0).namespaces(),
                    values.get(0).place()));
        }
        return steps;
    }

    private static int count(Facet facet, int otherwise) {
        try {
            return Math.max(0, Integer.parseInt(facet.value().strip()));
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    private static void addMatching(List<Facet> facets, List<FacetStep> steps) {
        List<SchemaPattern> patterns = new ArrayList<>();
        StringBuilder text = new StringBuilder();
        StringBuilder java = new StringBuilder();
        for (Facet facet : facets) {
            try {
                SchemaPattern pattern = SchemaPattern.of(facet.value());
                patterns.add(pattern);
                text.append(text.isEmpty() ? "" : " or ").append(facet.value());
                java.append(java.isEmpty() ? "" : "|").append(pattern.toJava());
            } catch (IllegalArgumentException e) {
                // The contract's findings tell of it; what cannot be read can neither be demanded.
                return;
            }
        }
        steps.add(new Matching(
                text.toString(),
                java.toString(),
                List.copyOf(patterns),
                facets.get(0).place()));
    }
}
