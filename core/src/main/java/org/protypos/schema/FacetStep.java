package org.protypos.schema;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Place;
import org.protypos.schema.pattern.SchemaPattern;

/** One thing that a restriction demands of values: the facets that belong together, as one (XML Schema Part 2, 4.3). */
public sealed interface FacetStep {
    /** Where the first of its facets stands. */
    Place place();

    /** How white space is treated. */
    record WhiteSpace(String treatment, Place place) implements FacetStep {}

    /** Some pattern is matched; patterns of one restriction are alternatives. */
    record Matching(String pattern, String java, List<SchemaPattern> patterns, Place place) implements FacetStep {}

    /** The value is one of some. */
    record OneOf(List<String> values, UnaryOperator<String> namespaces, Place place) implements FacetStep {}

    /** The value is not less than a bound. */
    record Least(String bound, boolean exclusive, Place place) implements FacetStep {}

    /** The value is not greater than a bound. */
    record Most(String bound, boolean exclusive, Place place) implements FacetStep {}

    /** The length lies between bounds. */
    record Length(int least, int most, Place place) implements FacetStep {}

    /** The number of digits is bounded. */
    record Digits(int total, int fraction, Place place) implements FacetStep {}

    /** The steps that the facets of one restriction amount to. A facet with a value that makes no sense is left out. */
    static List<FacetStep> of(List<Facet> facets) {
        List<FacetStep> steps = new ArrayList<>();
        List<Facet> patterns = of(facets, "pattern");
        List<Facet> values = of(facets, "enumeration");
        for (Facet facet : facets) {
            switch (facet.kind()) {
                case "whiteSpace" -> steps.add(0, new WhiteSpace(facet.value(), facet.place()));
                case "minInclusive" -> steps.add(new Least(facet.value().strip(), false, facet.place()));
                case "minExclusive" -> steps.add(new Least(facet.value().strip(), true, facet.place()));
                case "maxInclusive" -> steps.add(new Most(facet.value().strip(), false, facet.place()));
                case "maxExclusive" -> steps.add(new Most(facet.value().strip(), true, facet.place()));
                case "length" -> steps.add(new Length(count(facet, 0), count(facet, Integer.MAX_VALUE), facet.place()));
                case "minLength" -> steps.add(new Length(count(facet, 0), Integer.MAX_VALUE, facet.place()));
                case "maxLength" -> steps.add(new Length(0, count(facet, Integer.MAX_VALUE), facet.place()));
                case "totalDigits" ->
                    steps.add(new Digits(count(facet, Integer.MAX_VALUE), Integer.MAX_VALUE, facet.place()));
                case "fractionDigits" ->
                    steps.add(new Digits(Integer.MAX_VALUE, count(facet, Integer.MAX_VALUE), facet.place()));
                default -> {
                    // patterns and values each make one step, below
                }
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

    private static List<Facet> of(List<Facet> facets, String kind) {
        return facets.stream().filter(facet -> facet.kind().equals(kind)).toList();
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
