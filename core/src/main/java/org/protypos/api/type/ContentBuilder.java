package org.protypos.api.type;

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
 * Turns a content model into members. Groups that occur once melt into the type; a group that repeats becomes a type of
 * its own, for only so does the order of what came stay.
 */
final class ContentBuilder {
    private static final int NAMED_BY_MEMBERS = 3;

    private final TypeBuilder types;
    private final StructuredType type;

    ContentBuilder(TypeBuilder types, StructuredType type) {
        this.types = types;
        this.type = type;
    }

    Content<Member> build(Particle particle) {
        return content(particle, true, null);
    }

    private Content<Member> content(Particle particle, boolean required, String hint) {
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

    private Content<Member> group(Particle particle, ModelGroup group, boolean required, String hint) {
        if (holdsNothing(group)) {
            return new Content.InSequence<>(List.of(), true);
        }
        if (particle.repeats()) {
            return isOneLeaf(group) ? repeatedLeaf(particle, group, required) : repeatedGroup(particle, group, hint);
        }
        boolean choice = group.compositor() == ModelGroup.Compositor.CHOICE;
        boolean optional = particle.least() == 0;
        boolean partsRequired =
                required && !optional && (!choice || group.particles().size() == 1);
        List<Content<Member>> parts = new ArrayList<>();
        for (Particle part : group.particles()) {
            parts.add(content(part, partsRequired, null));
        }
        return switch (group.compositor()) {
            case SEQUENCE -> new Content.InSequence<>(List.copyOf(parts), optional);
            case CHOICE -> new Content.OneOf<>(List.copyOf(parts), optional);
            case ALL -> new Content.InAnyOrder<>(List.copyOf(parts), optional);
        };
    }

    /** Whether there is no element in a group, however deep. */
    private boolean holdsNothing(ModelGroup group) {
        return group.particles().stream().map(Particle::term).allMatch(term -> {
            ModelGroup inner = types.schema().group(term);
            return inner != null && holdsNothing(inner);
        });
    }

    private static boolean isOneLeaf(ModelGroup group) {
        return group.particles().size() == 1
                && !(group.particles().get(0).term() instanceof ModelGroup)
                && !(group.particles().get(0).term() instanceof GroupReference);
    }

    /** A group that repeats and holds one element is that element repeated. */
    private Content<Member> repeatedLeaf(Particle particle, ModelGroup group, boolean required) {
        Particle inner = group.particles().get(0);
        int least = (int) Math.min(Particle.UNBOUNDED - 1L, (long) particle.least() * inner.least());
        int most = (int) Math.min(Particle.UNBOUNDED, (long) particle.most() * inner.most());
        return leaf(new Particle(inner.term(), least, most), required);
    }

    private Content<Member> repeatedGroup(Particle particle, ModelGroup group, String hint) {
        String name = hint != null ? hint : nameOf(group);
        String what = group.compositor().name().toLowerCase(Locale.ROOT);
        StructuredType nested = new StructuredType(
                Origin.GROUP,
                Subject.unnamed(Subject.Kind.TYPE, type.designator(), what, group.place()),
                type,
                new QName(name));
        nested.setContent(new ContentBuilder(types, nested).content(new Particle(group, 1, 1), true, null));
        Member member = Member.plain(
                Subject.unnamed(Subject.Kind.MEMBER, type.designator(), what, group.place()),
                name,
                Member.Kind.GROUP,
                null,
                new ApiValue.Structured(nested),
                Member.Cardinality.MANY);
        type.addElement(member);
        return new Content.Leaf<>(member, particle.least(), particle.most(), null);
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

    private Content<Member> leaf(Particle particle, boolean required) {
        Member.Cardinality cardinality = particle.repeats()
                ? Member.Cardinality.MANY
                : required && particle.least() > 0 ? Member.Cardinality.REQUIRED : Member.Cardinality.OPTIONAL;
        Wildcard wildcard = particle.term() instanceof Wildcard any ? any : null;
        Member member = wildcard != null ? wildcard(cardinality) : element(particle.term(), cardinality);
        type.addElement(member);
        return new Content.Leaf<>(member, particle.least(), particle.most(), wildcard);
    }

    private Member wildcard(Member.Cardinality cardinality) {
        return Member.plain(
                Subject.unnamed(Subject.Kind.MEMBER, type.designator(), "any", null),
                "Any",
                Member.Kind.WILDCARD,
                null,
                new ApiValue.NamedElement(null),
                cardinality);
    }

    private ElementDeclaration declaration(Term term) {
        return term instanceof ElementReference reference
                ? types.schema().elements().get(reference.name())
                : (ElementDeclaration) term;
    }

    private Member element(Term term, Member.Cardinality cardinality) {
        ElementDeclaration element = declaration(term);
        TypeReference reference = types.schema().typeOf(element);
        boolean substitutable = term instanceof ElementReference
                && (element.isAbstract() || types.schema().substitutions().containsKey(element.name()));
        QName name = element.name();
        Subject subject = Subject.element(type.designator(), name, element.place());
        ApiValue value = substitutable
                ? open(element)
                : types.elementValue(element, new Scope(term instanceof ElementReference ? null : type, name));
        return new Member(
                subject,
                name.getLocalPart(),
                substitutable ? Member.Kind.SUBSTITUTABLE : Member.Kind.ELEMENT,
                name,
                value,
                substitutable ? null : subject,
                cardinality,
                element.nillable(),
                element.standing(),
                types.remarks().of(subject, documentation(term, element)),
                substitutable ? null : types.facets().of(reference, element.fixedValue()),
                substitutable ? null : types.typeName(value, reference));
    }

    private static String documentation(Term term, ElementDeclaration element) {
        String own = term instanceof ElementReference reference
                        && !reference.documentation().isEmpty()
                ? reference.documentation()
                : element.documentation();
        return Remarks.withConstraints(own, element);
    }

    private ApiValue open(ElementDeclaration head) {
        TypeReference reference = types.schema().typeOf(head);
        SchemaType resolved = types.schema().resolve(reference);
        if (resolved instanceof SimpleType simple) {
            // A complex type with text may stand there as well, of a member of the group or named by the message.
            return types.substitutions().isExtended(simple, head)
                    ? new ApiValue.NamedElement(null)
                    : new ApiValue.NamedSimple();
        }
        ApiValue value = types.value(reference, Scope.global(head.name()));
        return new ApiValue.NamedElement(value.structure());
    }
}
