package org.protypos.api.type;

import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.schema.BuiltIn;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetStep;

/** Follows simple types to their built-in types and gathers what they demand of values. */
final class FacetBuilder {
    private static final ValueFacets ANYTHING = new ValueFacets.OfBuiltIn(BuiltIn.ANY_SIMPLE_TYPE);

    private final SchemaComponents schema;
    private final Map<SchemaType, ValueFacets> known = new IdentityHashMap<>();

    FacetBuilder(SchemaComponents schema) {
        this.schema = schema;
    }

    /** What the type behind a reference demands; null when it is not simple or demands nothing to speak of. */
    ValueFacets of(TypeReference reference) {
        SchemaType type = schema.resolve(reference);
        if (!(type instanceof SimpleType simple)) {
            return null;
        }
        ValueFacets facets = of(simple);
        return facets.demandsMore() ? facets : null;
    }

    /** What the type behind a reference demands and a value that may be fixed; null when that is nothing to speak of. */
    ValueFacets of(TypeReference reference, String fixed) {
        return fixed != null && schema.resolve(reference) instanceof SimpleType simple
                ? new ValueFacets.Fixed(of(simple), fixed)
                : of(reference);
    }

    /** What a restriction of simple content demands beside what its base does; null when that is nothing. */
    ValueFacets ofRestriction(ComplexType complex, ComplexType.SimpleContent content) {
        if (content.type() == null && FacetStep.of(content.facets()).isEmpty()) {
            return null;
        }
        ValueFacets base = content.type() == null ? ground(text(complex.base())) : all(content.type());
        ValueFacets narrowed = narrowed(base, content.facets());
        return narrowed.demandsMore() ? narrowed : null;
    }

    /** What the text of a type with simple content demands. */
    private ValueFacets text(TypeReference reference) {
        TypeReference at = reference;
        for (int step = 0; step <= schema.types().size(); step++) {
            if (!(schema.resolve(at) instanceof ComplexType complex)
                    || !(complex.content() instanceof ComplexType.SimpleContent content)) {
                return all(at);
            }
            if (content.type() != null) {
                return narrowed(all(content.type()), content.facets());
            }
            at = complex.base();
        }
        return ANYTHING;
    }

    /** What values are compared by, without what is demanded of them: that is told where it is demanded. */
    private static ValueFacets ground(ValueFacets facets) {
        return facets.map(new ValueFacets.Cases<>(
                builtIn -> new ValueFacets.OfBuiltIn(ground(builtIn.type())),
                list -> new ValueFacets.ListOf(ground(list.item())),
                union -> union,
                narrowed -> narrowed.step() instanceof FacetStep.WhiteSpace
                        ? new ValueFacets.Narrowed(ground(narrowed.base()), narrowed.step())
                        : ground(narrowed.base()),
                fixed -> ground(fixed.base())));
    }

    private static BuiltIn ground(BuiltIn type) {
        for (BuiltIn base : List.of(BuiltIn.DECIMAL, BuiltIn.TOKEN)) {
            if (type.isA(base)) {
                return base;
            }
        }
        return type;
    }

    private ValueFacets all(TypeReference reference) {
        SchemaType type = schema.resolve(reference);
        return type instanceof SimpleType simple ? of(simple) : ANYTHING;
    }

    private ValueFacets of(SimpleType type) {
        ValueFacets facets = known.get(type);
        if (facets == null) {
            facets = switch (type.variety()) {
                case BUILT_IN -> new ValueFacets.OfBuiltIn(type.builtIn());
                case LIST -> new ValueFacets.ListOf(all(type.base()));
                case UNION -> union(type);
                case RESTRICTION -> narrowed(all(type.base()), type.facets());
            };
            known.put(type, facets);
        }
        return facets;
    }

    private ValueFacets union(SimpleType type) {
        return new ValueFacets.UnionOf(
                schema.members(type).stream().map(this::of).toList());
    }

    private static ValueFacets narrowed(ValueFacets base, List<Facet> facets) {
        ValueFacets narrowed = base;
        for (FacetStep step : FacetStep.of(facets)) {
            narrowed = new ValueFacets.Narrowed(narrowed, step);
        }
        return narrowed;
    }
}
