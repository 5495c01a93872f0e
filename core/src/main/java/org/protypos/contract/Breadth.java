package org.protypos.contract;

import java.util.IdentityHashMap;
import java.util.Map;
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
    private final Map<ModelGroup, Integer> counted = new IdentityHashMap<>();
    private final Map<SchemaType, Integer> members = new IdentityHashMap<>();
    private final Map<Attributes, Integer> attributesCounted = new IdentityHashMap<>();

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
        boolean first =
                type.members().stream().allMatch(member -> members(schema.resolve(member), 0) <= MEMBERS.most());
        if (first && type.variety() == SimpleType.Variety.UNION && members(type, 0) > MEMBERS.most()) {
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
        Integer known = members.putIfAbsent(type, 1);
        if (known != null) {
            return known;
        }
        int count = simple.base() == null ? 0 : members(schema.resolve(simple.base()), steps + 1);
        for (TypeReference member : simple.members()) {
            count = Math.min(MEMBERS.most() + 1, count + members(schema.resolve(member), steps + 1));
        }
        members.put(type, Math.max(1, count));
        return members.get(type);
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
        // One that holds nothing is looked at all the same.
        counted.put(group, Math.max(1, count));
        return counted.get(group);
    }

    private int count(Attributes attributes) {
        int count = attributes.uses().size();
        for (Attributes.GroupUse use : attributes.groups()) {
            AttributeGroup group = schema.attributeGroups().get(use.name());
            count = Math.min(PLACES.most() + 1, count + (group == null ? 0 : inGroup(group.attributes())));
        }
        return count;
    }

    private int inGroup(Attributes attributes) {
        Integer known = attributesCounted.putIfAbsent(attributes, 1);
        if (known != null) {
            return known;
        }
        attributesCounted.put(attributes, Math.max(1, count(attributes)));
        return attributesCounted.get(attributes);
    }
}
