package org.protypos.contract;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Limit;
import org.protypos.diagnostic.Place;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.ModelGroupDefinition;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;

/** Checks that no type is derived from itself or made of itself, no group contains itself, and none does so too deep. */
final class Circles {
    /**
     * The most steps from a type to the last that it is made from, and from a group to the last within it. Each step of a
     * complex type is a class that extends another, of which compilers follow some hundreds.
     */
    private static final Limit STEPS = Limit.of("limit.steps", 200);

    private final SchemaComponents schema;
    private final Findings findings;

    Circles(SchemaComponents schema, Findings findings) {
        this.schema = schema;
        this.findings = findings;
    }

    void check() {
        bases();
        parts();
        groups();
    }

    private void bases() {
        Chains<SchemaType> chains = new Chains<>(schema.types().values(), this::base);
        for (SchemaType type : schema.types().values()) {
            String name = type.name().getLocalPart();
            if (chains.isCircular(type)) {
                findings.error(
                        "circular-base",
                        type.place(),
                        "the type " + name + " is derived from itself",
                        "name another base");
            }
            if (chains.length(type) == STEPS.most() + 1) {
                tooDeep(
                        type.place(),
                        "the type " + name + " is more than " + STEPS.most() + " steps away from its last base");
            }
        }
    }

    private List<SchemaType> base(SchemaType type) {
        if (type instanceof SimpleType simple && simple.variety() != SimpleType.Variety.RESTRICTION) {
            return List.of();
        }
        return resolved(type.base());
    }

    private List<SchemaType> resolved(TypeReference reference) {
        SchemaType resolved = reference == null ? null : schema.resolve(reference);
        return resolved == null ? List.of() : List.of(resolved);
    }

    /** A list or a union somewhere on a circle makes it one of parts, and of all types on it. */
    private void parts() {
        List<SchemaType> types = schema.types().values().stream()
                .filter(SimpleType.class::isInstance)
                .toList();
        Chains<SchemaType> chains = new Chains<>(types, this::parts);
        Set<Object> made = new HashSet<>();
        for (SchemaType type : types) {
            boolean several = ((SimpleType) type).variety() != SimpleType.Variety.RESTRICTION;
            if (several && parts(type).stream().anyMatch(part -> chains.circle(part) == chains.circle(type))) {
                made.add(chains.circle(type));
            }
        }
        for (SchemaType type : types) {
            if (made.contains(chains.circle(type))) {
                findings.error(
                        "circular-base",
                        type.place(),
                        "the type " + type.name().getLocalPart() + " is a list or a union of itself",
                        "name another type");
            }
            if (chains.length(type) == STEPS.most() + 1) {
                tooDeep(
                        type.place(),
                        "the type " + type.name().getLocalPart() + " is made of types more than " + STEPS.most()
                                + " steps deep");
            }
        }
    }

    private List<SchemaType> parts(SchemaType type) {
        if (!(type instanceof SimpleType simple)) {
            return List.of();
        }
        List<SchemaType> parts = new ArrayList<>(resolved(simple.base()));
        simple.members().forEach(member -> parts.addAll(resolved(member)));
        return parts;
    }

    private void groups() {
        Chains<ModelGroupDefinition> chains = new Chains<>(schema.groups().values(), definition -> {
            List<ModelGroupDefinition> inside = new ArrayList<>();
            addReferences(definition.group(), inside);
            return inside;
        });
        for (ModelGroupDefinition definition : schema.groups().values()) {
            String name = definition.name().getLocalPart();
            if (chains.isCircular(definition)) {
                findings.error(
                        "circular-group",
                        definition.place(),
                        "the group " + name + " contains itself",
                        "put an element between");
            }
            if (chains.length(definition) == STEPS.most() + 1) {
                tooDeep(
                        definition.place(),
                        "the group " + name + " holds groups more than " + STEPS.most() + " steps deep");
            }
        }
    }

    private void addReferences(ModelGroup group, List<ModelGroupDefinition> to) {
        for (Particle particle : group.particles()) {
            if (particle.term() instanceof ModelGroup inner) {
                addReferences(inner, to);
            } else if (particle.term() instanceof GroupReference reference
                    && schema.groups().get(reference.name()) != null) {
                to.add(schema.groups().get(reference.name()));
            }
        }
    }

    private void tooDeep(Place place, String message) {
        findings.error("too-deep", place, message, "make it of fewer, one from the other" + STEPS.cure());
    }
}
