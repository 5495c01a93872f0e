package org.protypos.api;

import java.util.ArrayList;
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

    /** What a restriction of simple content demands beside what its base does; null when that is nothing. */
    ValueFacets ofRestriction(ComplexType.SimpleContent content) {
        ValueFacets base = content.type() == null ? ANYTHING : all(content.type());
        ValueFacets narrowed = narrowed(base, content.facets());
        return narrowed.demandsMore() ? narrowed : null;
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
        List<ValueFacets> members = new ArrayList<>();
        type.members().forEach(member -> members.add(all(member)));
        return new ValueFacets.UnionOf(List.copyOf(members));
    }

    private static ValueFacets narrowed(ValueFacets base, List<Facet> facets) {
        ValueFacets narrowed = base;
        for (FacetStep step : FacetStep.of(facets)) {
            narrowed = new ValueFacets.Narrowed(narrowed, step);
        }
        return narrowed;
    }
}
