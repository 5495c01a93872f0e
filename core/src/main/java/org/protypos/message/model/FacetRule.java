package org.protypos.message.model;

import org.protypos.runtime.check.ValueRule;
import org.protypos.schema.facet.FacetStep;

/** Narrows rules by facets (XML Schema Part 2, section 4.3). */
public final class FacetRule {
    private FacetRule() {}

    /** The rule of what takes only those values of another that pass one more demand. */
    public static ValueRule of(ValueRule base, FacetStep step) {
        return step.map(new FacetStep.Cases<>(
                space -> base.whiteSpace(space.treatment()),
                matching -> base.pattern(matching.pattern(), matching.java()),
                values -> base.values(values.namespaces(), values.values().toArray(String[]::new)),
                least -> base.least(least.bound(), least.exclusive()),
                most -> base.most(most.bound(), most.exclusive()),
                length -> base.length(length.least(), length.most()),
                digits -> base.digits(digits.total(), digits.fraction())));
    }
}
