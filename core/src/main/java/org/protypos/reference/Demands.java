package org.protypos.reference;

import java.util.ArrayList;
import java.util.List;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;
import org.protypos.schema.facet.FacetStep;

/** Says in a few words what a simple type is and what it demands (XML Schema Part 2, section 4.3). */
final class Demands {
    /** A chain of restrictions is short; one that is not has told enough by then. */
    private static final int MOST_STEPS = 30;

    private final SchemaComponents schema;

    Demands(SchemaComponents schema) {
        this.schema = schema;
    }

    /** What a type is called, or what it is when it has no name. */
    String inWords(TypeReference reference) {
        if (reference == null) {
            return "";
        }
        if (reference.name() != null) {
            return SchemaComponents.localName(reference.name());
        }
        return reference.anonymous() instanceof SimpleType simple ? inWords(simple) : "";
    }

    private String inWords(SimpleType type) {
        return switch (type.variety()) {
            case BUILT_IN -> type.name().getLocalPart();
            case RESTRICTION -> inWords(type.base());
            case LIST -> "list of " + inWords(type.base());
            case UNION ->
                String.join(
                        " or ",
                        type.members().stream().map(this::inWords).distinct().toList());
        };
    }

    /** What the values of a type have to be beyond what its name says: the kind that it comes from, and its facets. */
    List<String> of(TypeReference reference) {
        List<String> demands = new ArrayList<>();
        if (reference != null && schema.resolve(reference) instanceof SimpleType type) {
            // Values that are listed say what they are.
            boolean listed = isListed(type);
            if (reference.name() != null && type.variety() != SimpleType.Variety.BUILT_IN && !listed) {
                demands.add(kind(type, 0));
            }
            collect(type, demands, 0);
        }
        return demands.stream().distinct().toList();
    }

    private static boolean isListed(SimpleType type) {
        return type.facets().stream().anyMatch(facet -> facet.kind() == FacetKind.ENUMERATION);
    }

    /** The built-in type in the end, or what it is made of. */
    private String kind(SimpleType type, int depth) {
        if (type.variety() == SimpleType.Variety.RESTRICTION
                && depth < MOST_STEPS
                && schema.resolve(type.base()) instanceof SimpleType base) {
            return kind(base, depth + 1);
        }
        return inWords(type);
    }

    private void collect(SimpleType type, List<String> demands, int depth) {
        if (type.variety() != SimpleType.Variety.RESTRICTION || depth > MOST_STEPS) {
            return;
        }
        demands.addAll(of(type.facets()));
        // Values that are listed say all that the types before say too.
        SchemaType base = schema.resolve(type.base());
        if (!isListed(type) && base instanceof SimpleType simple) {
            collect(simple, demands, depth + 1);
        }
    }

    /** What facets demand. */
    List<String> of(List<Facet> facets) {
        return FacetStep.of(facets).stream()
                .map(step -> step.map(new FacetStep.Cases<String>(
                        space -> "",
                        matching -> "like " + matching.pattern(),
                        values -> String.join(" | ", values.values()),
                        bound -> (bound.exclusive() ? "more than " : "at least ") + bound.bound(),
                        bound -> (bound.exclusive() ? "less than " : "at most ") + bound.bound(),
                        length -> length(length.least(), length.most()),
                        digits -> digits.total() == Integer.MAX_VALUE
                                ? counted(digits.fraction(), "digit") + " behind the point at most"
                                : counted(digits.total(), "digit") + " at most")))
                .filter(words -> !words.isEmpty())
                .toList();
    }

    private static String length(int least, int most) {
        if (least == most) {
            return least + " long";
        }
        return least > 0 ? "at least " + least + " long" : "at most " + most + " long";
    }

    private static String counted(int number, String what) {
        return number + " " + what + (number == 1 ? "" : "s");
    }
}
