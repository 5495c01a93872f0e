package org.protypos.record;

import java.util.IdentityHashMap;
import java.util.Map;
import org.protypos.api.type.ValueFacets;
import org.protypos.message.model.FacetRule;
import org.protypos.runtime.check.ValueRule;

/** Writes what records hold as the patterns of the contract want it: a number has no zeros before it in a record. */
final class Spelling {
    private final Map<ValueFacets, ValueRule> rules = new IdentityHashMap<>();

    /**
     * The text of a value in the way that its type wants it.
     *
     * @param facets what the contract demands of the value, or null for nothing
     */
    String of(String text, ValueFacets facets) {
        return facets == null || !facets.isAboutText() ? text : rule(facets).fitting(text);
    }

    private ValueRule rule(ValueFacets facets) {
        ValueRule known = rules.get(facets);
        if (known == null) {
            known = facets.map(new ValueFacets.Cases<>(
                    builtIn -> ValueRule.of(builtIn.type().local()),
                    list -> ValueRule.listOf(rule(list.item())),
                    union -> ValueRule.unionOf(
                            union.members().stream().map(this::rule).toArray(ValueRule[]::new)),
                    narrowed -> FacetRule.of(rule(narrowed.base()), narrowed.step()),
                    fixed -> rule(fixed.base()).values(fixed.value())));
            rules.put(facets, known);
        }
        return known;
    }
}
