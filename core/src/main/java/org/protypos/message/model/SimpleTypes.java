package org.protypos.message.model;

import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Place;
import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetStep;

/** Makes rules of simple types, and remembers where in the contract each part of a rule comes from. */
final class SimpleTypes {
    private final SchemaComponents schema;
    private final Map<SchemaType, ValueRule> rules = new IdentityHashMap<>();
    private final Map<ValueRule, Place> places = new IdentityHashMap<>();
    private final Map<ValueRule, FacetStep> steps = new IdentityHashMap<>();

    SimpleTypes(SchemaComponents schema) {
        this.schema = schema;
    }

    /** Where the part of a rule stands that a value breaks, or null when it is built in. */
    Place place(ValueRule rule) {
        return places.get(rule);
    }

    /** The facets that made a rule of its base, or null. */
    FacetStep step(ValueRule rule) {
        return steps.get(rule);
    }

    /** The rule of a simple type, or of the text of a complex type with simple content; null for other types. */
    ValueRule rule(SchemaType type) {
        ValueRule known = rules.get(type);
        if (known == null) {
            known = type.map(this::complex, this::simple);
            rules.put(type, known);
        }
        return known;
    }

    private ValueRule rule(TypeReference reference) {
        SchemaType type = schema.resolve(reference);
        ValueRule rule = type == null ? null : rule(type);
        return rule == null ? ValueRule.of("anySimpleType") : rule;
    }

    private ValueRule simple(SimpleType type) {
        return switch (type.variety()) {
            case BUILT_IN -> ValueRule.of(type.name().getLocalPart());
            case LIST -> placed(ValueRule.listOf(rule(type.base())), type.place());
            case UNION ->
                placed(
                        ValueRule.unionOf(
                                schema.members(type).stream().map(this::rule).toArray(ValueRule[]::new)),
                        type.place());
            case RESTRICTION -> narrowed(placed(rule(type.base()).named(), type.place()), type.facets());
        };
    }

    private ValueRule complex(ComplexType type) {
        if (!(type.content() instanceof ComplexType.SimpleContent content)) {
            return null;
        }
        ValueRule base = content.type() != null ? rule(content.type()) : rule(type.base());
        return narrowed(placed(base.named(), type.place()), content.facets());
    }

    private ValueRule placed(ValueRule rule, Place place) {
        places.put(rule, place);
        return rule;
    }

    private ValueRule narrowed(ValueRule base, List<Facet> facets) {
        ValueRule rule = base;
        for (FacetStep step : FacetStep.of(facets)) {
            rule = placed(FacetRule.of(rule, step), step.place());
            steps.put(rule, step);
        }
        return rule;
    }
}
