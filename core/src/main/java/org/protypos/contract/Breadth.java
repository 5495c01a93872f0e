package org.protypos.contract;

import java.util.IdentityHashMap;
import java.util.Map;
import java.util.function.IntSupplier;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Limit;
import org.protypos.schema.AttributeGroup;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;

/**
 * Counts the places of content models and the members of unions: a few groups or unions that refer to each other twice make
 * millions, and what a class can hold is limited (JVM specification, section 4.7.3: no method is longer than 65,535 bytes).
 */
final class Breadth {
    /** The most types that the values of one union may be of, unions among them written out. */
    private static final Limit MEMBERS = Limit.of("limit.members", 2_500);

    /** The most elements and wildcards that one type may have, named groups written out. */
    private static final Limit PLACES = Limit.of("limit.places", 2_500);

    private static final int MOST_STEPS = 1_000;

    private final SchemaComponents schema;
    private final Findings findings;
    private final Map<Object, Integer> counted = new IdentityHashMap<>();

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
        if (count(type.attributes()) > PLACES.most()) {
            findings.error(
                    "too-wide",
                    type.place(),
                    "the type has more than " + PLACES.most() + " attributes, named groups written out",
                    "put some of them into elements of their own" + PLACES.cure());
        }
    }

    void check(SimpleType type) {
        if (type.variety() == SimpleType.Variety.UNION
                && members(type, 0) > MEMBERS.most()
                && type.members().stream().allMatch(member -> members(schema.resolve(member), 0) <= MEMBERS.most())) {
            findings.error(
                    "too-wide",
                    type.place(),
                    "the union has more than " + MEMBERS.most() + " members, unions among them written out",
                    "name each type once" + MEMBERS.cure());
        }
    }

    /** What is deeper than a type may be is told of its depth, and not followed. */
    private int members(SchemaType type, int steps) {
        if (!(type instanceof SimpleType simple) || steps > MOST_STEPS) {
            return 1;
        }
        return once(simple, () -> {
            int count = simple.base() == null ? 0 : members(schema.resolve(simple.base()), steps + 1);
            for (TypeReference member : simple.members()) {
                count = Math.min(MEMBERS.most() + 1, count + members(schema.resolve(member), steps + 1));
            }
            return count;
        });
    }

    private int count(Term term) {
        if (term instanceof GroupReference reference) {
            ModelGroupDefinition definition = schema.groups().get(reference.name());
            return definition == null ? 0 : count(definition.group());
        }
        return term instanceof ModelGroup group ? once(group, () -> places(group)) : 1;
    }

    private int places(ModelGroup group) {
        int count = 0;
        for (Particle particle : group.particles()) {
            count = Math.min(PLACES.most() + 1, count + count(particle.term()));
        }
        return count;
    }

    private int count(Attributes attributes) {
        int count = attributes.uses().size();
        for (Attributes.GroupUse use : attributes.groups()) {
            AttributeGroup group = schema.attributeGroups().get(use.name());
            if (group != null) {
                count = Math.min(PLACES.most() + 1, count + once(group, () -> count(group.attributes())));
            }
        }
        return count;
    }

    /** Counts something that others refer to, the first time; what holds nothing is looked at all the same. */
    private int once(Object shared, IntSupplier count) {
        Integer known = counted.putIfAbsent(shared, 0);
        if (known != null) {
            return known;
        }
        int most = Math.max(1, count.getAsInt());
        counted.put(shared, most);
        return most;
    }
}
