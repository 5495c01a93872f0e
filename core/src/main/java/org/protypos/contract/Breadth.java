package org.protypos.contract;

import java.util.IdentityHashMap;
import java.util.Map;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Limit;
import org.protypos.schema.ComplexType;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.Term;

/**
 * Counts the places of content models: a few groups that refer to each other twice make millions, and what a class can hold
 * is limited (JVM specification, section 4.7.3: no method is longer than 65,535 bytes).
 */
final class Breadth {
    /** The most elements and wildcards that one type may have, named groups written out. */
    private static final Limit PLACES = Limit.of("limit.places", 2_500);

    private final SchemaComponents schema;
    private final Findings findings;
    private final Map<ModelGroup, Integer> counted = new IdentityHashMap<>();

    Breadth(SchemaComponents schema, Findings findings) {
        this.schema = schema;
        this.findings = findings;
    }

    void check(ComplexType type) {
        if (type.content() instanceof ComplexType.ElementContent content
                && content.particle() != null
                && count(content.particle().term()) > PLACES.most()) {
            findings.error(
                    "too-wide",
                    type.place(),
                    "the type has more than " + PLACES.most() + " places for elements, named groups written out",
                    "put some of them into elements of their own" + PLACES.cure());
        }
    }

    private int count(Term term) {
        if (term instanceof GroupReference reference) {
            ModelGroupDefinition definition = schema.groups().get(reference.name());
            return definition == null ? 0 : count(definition.group());
        }
        return term instanceof ModelGroup group ? count(group) : 1;
    }

    private int count(ModelGroup group) {
        Integer known = counted.putIfAbsent(group, 0);
        if (known != null) {
            return known;
        }
        int count = 0;
        for (Particle particle : group.particles()) {
            count = Math.min(PLACES.most() + 1, count + count(particle.term()));
        }
        counted.put(group, count);
        return count;
    }
}
