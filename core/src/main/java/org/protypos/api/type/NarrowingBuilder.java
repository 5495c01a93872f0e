package org.protypos.api.type;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.ComplexType;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;

/**
 * Finds out what a restriction demands of the members that it inherits. How often an element may come is told by counting through its
 * content model; in which order, and together with what, is not.
 */
final class NarrowingBuilder {
    private final TypeBuilder types;
    private final StructuredType base;

    NarrowingBuilder(TypeBuilder types, StructuredType base) {
        this.types = types;
        this.base = base;
    }

    /** How often something may come. */
    private record Range(long least, long most) {
        static final Range NEVER = new Range(0, 0);
        static final Range ONCE = new Range(1, 1);
        static final Range ANY = new Range(0, Particle.UNBOUNDED);

        Range plus(Range other) {
            return new Range(bounded(least + other.least), bounded(most + other.most));
        }

        Range or(Range other) {
            return new Range(Math.min(least, other.least), Math.max(most, other.most));
        }

        Range times(Particle particle) {
            return new Range(bounded(least * particle.least()), bounded(most * particle.most()));
        }

        private static long bounded(long count) {
            return Math.min(count, Particle.UNBOUNDED);
        }
    }

    /** What is demanded of inherited attributes. */
    List<Narrowing> attributes(List<AttributeUse> uses, Map<QName, Member> inherited) {
        List<Narrowing> narrowings = new ArrayList<>();
        for (AttributeUse use : uses) {
            AttributeDeclaration declared = types.schema().declaration(use);
            Member member = declared == null ? null : inherited.get(declared.name());
            if (member != null) {
                boolean prohibited = use.use() == AttributeUse.Use.PROHIBITED;
                add(
                        member,
                        new Range(use.use() == AttributeUse.Use.REQUIRED ? 1 : 0, prohibited ? 0 : 1),
                        declared.type(),
                        use.fixedBy(declared),
                        narrowings);
            }
        }
        return narrowings;
    }

    /** What is demanded of inherited elements. */
    List<Narrowing> elements(ComplexType restriction) {
        List<Narrowing> narrowings = new ArrayList<>();
        inherited().forEach((name, member) -> {
            Particle particle = restriction.particle();
            Range range = particle == null ? Range.NEVER : range(particle, name, new HashMap<>());
            ElementDeclaration element = particle == null ? null : find(particle.term(), name, new HashSet<>());
            add(
                    member,
                    range,
                    element == null ? null : types.schema().typeOf(element),
                    element == null ? null : element.fixedValue(),
                    narrowings);
        });
        return narrowings;
    }

    /** The elements that are declared once in all bases, and that no other may stand for. */
    private Map<QName, Member> inherited() {
        Map<QName, Member> inherited = new LinkedHashMap<>();
        Set<QName> twice = new HashSet<>();
        for (StructuredType type = base; type != null; type = type.base()) {
            if (type.isMixed()) {
                return Map.of();
            }
            for (Member member : type.elements()) {
                if (member.kind() == Member.Kind.ELEMENT && inherited.put(member.xmlName(), member) != null) {
                    twice.add(member.xmlName());
                }
            }
        }
        inherited.keySet().removeAll(twice);
        return inherited;
    }

    private void add(Member member, Range range, TypeReference type, String fixed, List<Narrowing> to) {
        ValueFacets facets = type == null ? null : types.facets().of(type, fixed);
        boolean same = facets == null || facets.equals(member.facets());
        boolean many = member.cardinality() == Member.Cardinality.MANY;
        boolean more = range.least > 0 && member.cardinality() != Member.Cardinality.REQUIRED
                || range.most == 0
                || many && range.most < Particle.UNBOUNDED;
        if (more || !same) {
            to.add(new Narrowing(member, (int) range.least, (int) range.most, same ? null : facets));
        }
    }

    /**
     * How often an element comes in a particle.
     *
     * @param groups what is known of groups: each is counted through once, and one that leads to itself comes any number of times
     */
    private Range range(Particle particle, QName name, Map<QName, Range> groups) {
        return term(particle.term(), name, groups).times(particle);
    }

    private Range term(Term term, QName name, Map<QName, Range> groups) {
        return term.map(new Term.Cases<>(
                element -> element.name().equals(name) ? Range.ONCE : Range.NEVER,
                reference -> reference.name().equals(name) ? Range.ONCE : Range.NEVER,
                group -> {
                    Range known = groups.putIfAbsent(group.name(), Range.ANY);
                    if (known == null && types.schema().groups().containsKey(group.name())) {
                        known = term(types.schema().groups().get(group.name()).group(), name, groups);
                        groups.put(group.name(), known);
                    }
                    return known == null ? Range.ANY : known;
                },
                model -> model(model, name, groups),
                wildcard -> wildcard.allows(name.getNamespaceURI()) ? Range.ANY : Range.NEVER));
    }

    private Range model(ModelGroup model, QName name, Map<QName, Range> groups) {
        Range range = null;
        for (Particle part : model.particles()) {
            Range one = range(part, name, groups);
            range = range == null
                    ? one
                    : model.compositor() == ModelGroup.Compositor.CHOICE ? range.or(one) : range.plus(one);
        }
        return range == null ? Range.NEVER : range;
    }

    private ElementDeclaration find(Term term, QName name, Set<QName> groups) {
        return term.map(new Term.Cases<>(
                element -> element.name().equals(name) ? element : null,
                reference -> reference.name().equals(name)
                        ? types.schema().elements().get(name)
                        : null,
                group -> groups.add(group.name()) && types.schema().groups().containsKey(group.name())
                        ? find(types.schema().groups().get(group.name()).group(), name, groups)
                        : null,
                model -> {
                    ElementDeclaration found = null;
                    for (Particle part : model.particles()) {
                        found = found == null ? find(part.term(), name, groups) : found;
                    }
                    return found;
                },
                wildcard -> null));
    }
}
