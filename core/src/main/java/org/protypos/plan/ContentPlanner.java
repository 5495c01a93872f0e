package org.protypos.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.ElementReference;
import org.protypos.schema.GroupReference;
import org.protypos.schema.ModelGroup;
import org.protypos.schema.Particle;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.schema.Wildcard;

/**
 * Turns a content model into properties. Groups that occur once melt into the class; a group that repeats becomes a
 * class of its own, for only so does the order of what came stay.
 */
final class ContentPlanner {
    private static final int NAMED_BY_MEMBERS = 3;

    private final TypePlanner types;
    private final ApiClass type;

    ContentPlanner(TypePlanner types, ApiClass type) {
        this.types = types;
        this.type = type;
    }

    Content plan(Particle particle) {
        return content(particle, true, null);
    }

    private Content content(Particle particle, boolean required, String hint) {
        Term term = particle.term();
        if (term instanceof GroupReference reference) {
            ModelGroup group = types.schema().groups().get(reference.name()).group();
            return content(
                    new Particle(group, particle.least(), particle.most()),
                    required,
                    SchemaComponents.localName(reference.name()));
        }
        if (term instanceof ModelGroup group) {
            return group(particle, group, required, hint);
        }
        return leaf(particle, required);
    }

    private Content group(Particle particle, ModelGroup group, boolean required, String hint) {
        if (group.particles().isEmpty()) {
            return new Content.InSequence(List.of(), true);
        }
        if (particle.repeats()) {
            return isOneLeaf(group) ? repeatedLeaf(particle, group, required) : repeatedGroup(particle, group, hint);
        }
        boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE;
        boolean optional = particle.least() == 0;
        boolean partsRequired =
                required && !optional && (!choice || group.particles().size() == 1);
        List<Content> parts = new ArrayList<>();
        for (Particle part : group.particles()) {
            parts.add(content(part, partsRequired, null));
        }
        return switch (group.compositor()) {
            case SEQUENCE -> new Content.InSequence(List.copyOf(parts), optional);
            case CHOICE -> new Content.OneOf(List.copyOf(parts), optional);
            case ALL -> new Content.InAnyOrder(List.copyOf(parts), optional);
        };
    }

    private static boolean isOneLeaf(ModelGroup group) {
        return group.particles().size() == 1
                && !(group.particles().get(0).term() instanceof ModelGroup)
                && !(group.particles().get(0).term() instanceof GroupReference);
    }

    /** A group that repeats and holds one element is that element repeated. */
    private Content repeatedLeaf(Particle particle, ModelGroup group, boolean required) {
        Particle inner = group.particles().get(0);
        int least = (int) Math.min(Particle.UNBOUNDED - 1L, (long) particle.least() * inner.least());
        int most = (int) Math.min(Particle.UNBOUNDED, (long) particle.most() * inner.most());
        return leaf(new Particle(inner.term(), least, most), required);
    }

    private Content repeatedGroup(Particle particle, ModelGroup group, String hint) {
        String name = hint != null ? hint : nameOf(group);
        String what = group.compositor().name().toLowerCase(Locale.ROOT);
        ApiClass nested = types.groupClass(
                type, Subject.unnamed(Subject.Kind.TYPE, type.designator(), what, group.place()), name);
        nested.describe(null, false, false, "");
        nested.setGroup();
        nested.memberNames = types.members(nested);
        nested.setContent(new ContentPlanner(types, nested).content(new Particle(group, 1, 1), true, null));
        Property property = new Property(
                type.memberNames.make(
                        Subject.unnamed(Subject.Kind.MEMBER, type.designator(), what, group.place()),
                        types.rules().memberName(name)),
                Property.Kind.GROUP,
                null,
                new ValueType.Structured(nested),
                Property.Cardinality.MANY,
                false,
                null,
                null,
                "");
        type.addElement(property);
        return new Content.Leaf(property, particle.least(), particle.most(), null);
    }

    /** A group without a name is called by its members where these are few. */
    private static String nameOf(ModelGroup group) {
        boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE;
        List<String> names = new ArrayList<>();
        for (Particle particle : group.particles()) {
            String name = particle.term() instanceof ElementDeclaration element
                    ? element.name().getLocalPart()
                    : particle.term() instanceof ElementReference reference
                            ? reference.name().getLocalPart()
                            : null;
            if (name == null || names.size() == NAMED_BY_MEMBERS) {
                return choice ? "item" : "entry";
            }
            names.add(name);
        }
        return names.stream().collect(Collectors.joining(choice ? "-or-" : "-and-"));
    }

    private Content leaf(Particle particle, boolean required) {
        Property.Cardinality cardinality = particle.repeats()
                ? Property.Cardinality.MANY
                : required && particle.least() > 0 ? Property.Cardinality.REQUIRED : Property.Cardinality.OPTIONAL;
        Wildcard wildcard = particle.term() instanceof Wildcard any ? any : null;
        Property property = wildcard != null ? wildcard(cardinality) : element(particle.term(), cardinality);
        type.addElement(property);
        if (property.kind() == Property.Kind.ELEMENT) {
            types.nameType(type, property, types.schema().typeOf(declaration(particle.term())));
        }
        return new Content.Leaf(property, particle.least(), particle.most(), wildcard);
    }

    private Property wildcard(Property.Cardinality cardinality) {
        return new Property(
                type.memberNames.make(Subject.unnamed(Subject.Kind.MEMBER, type.designator(), "any", null), "Any"),
                Property.Kind.WILDCARD,
                null,
                new ValueType.NamedElement(null),
                cardinality,
                false,
                null,
                null,
                "");
    }

    private ElementDeclaration declaration(Term term) {
        return term instanceof ElementReference reference
                ? types.schema().elements().get(reference.name())
                : (ElementDeclaration) term;
    }

    private Property element(Term term, Property.Cardinality cardinality) {
        ElementDeclaration element = declaration(term);
        boolean substitutable = term instanceof ElementReference
                && (element.isAbstract() || types.schema().substitutions().containsKey(element.name()));
        QName name = element.name();
        Owner owner = new Owner(term instanceof ElementReference ? null : type, name);
        Subject subject = Subject.element(type.designator(), name, element.place());
        String memberName = type.memberNames.claim(subject, types.rules().memberName(name.getLocalPart()), "");
        boolean tellsNil = element.nillable() && cardinality == Property.Cardinality.OPTIONAL;
        ValueType value = substitutable ? open(element) : types.elementValue(element, subject, owner);
        boolean absent = cardinality == Property.Cardinality.OPTIONAL || element.nillable();
        return new Property(
                memberName,
                substitutable ? Property.Kind.SUBSTITUTABLE : Property.Kind.ELEMENT,
                name,
                value,
                cardinality,
                element.nillable() && !substitutable,
                tellsNil && !substitutable ? type.memberNames.make(memberName + "Nil", "") : null,
                element.defaultValue() != null ? element.defaultValue() : element.fixedValue(),
                types.shapes().documentation(subject, documentation(term, element)),
                substitutable ? null : types.facets().of(types.schema().typeOf(element)),
                types.shapes().access(subject, value, cardinality, absent));
    }

    private static String documentation(Term term, ElementDeclaration element) {
        String own = term instanceof ElementReference reference
                        && !reference.documentation().isEmpty()
                ? reference.documentation()
                : element.documentation();
        return TypePlanner.withConstraints(own, element);
    }

    private ValueType open(ElementDeclaration head) {
        TypeReference reference = types.schema().typeOf(head);
        SchemaType resolved = types.schema().resolve(reference);
        if (resolved instanceof SimpleType simple) {
            // A complex type with text may stand there as well, of a member of the group or named by the message.
            return types.substitutions().isExtended(simple, head)
                    ? new ValueType.NamedElement(null)
                    : new ValueType.NamedSimple();
        }
        ValueType value = types.value(reference, Owner.global(head.name()));
        return new ValueType.NamedElement(value instanceof ValueType.Structured structured ? structured.type() : null);
    }
}
