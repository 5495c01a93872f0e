package org.protypos.target.classes;

import java.util.IdentityHashMap;
import java.util.Map;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.Origin;
import org.protypos.api.type.StructuredType;
import org.protypos.naming.NameScope;

/** Gives the members of one class their names and types. */
final class ClassPlanner {
    private final TypePlanner types;
    private final PlannedClass planned;
    private final StructuredType type;
    private final Map<Member, Property> properties = new IdentityHashMap<>();
    private NameScope names;

    ClassPlanner(TypePlanner types, PlannedClass planned) {
        this.types = types;
        this.planned = planned;
        this.type = planned.type();
    }

    void fill() {
        if (type.base() != null) {
            planned.setBase(types.filled(type.base()));
        }
        names = types.members(planned);
        planned.setMemberNames(names);
        names.expect(expected -> type.mentions((subject, name) -> expected.wants(subject, types.memberName(name))));
        if (type.text() != null) {
            String name = names.make(type.text().subject(), type.text().name());
            planned.setText(new Property(name, null, types.value(type.text()), Property.Access.PLAIN, type.text()));
        }
        type.inner()
                .forEach((name, element) ->
                        planned.addInner(name, new KnownElement(types.value(element.value()), element.defaultValue())));
        if (type.content() != null) {
            planned.setContent(type.content().map(this::leaf));
        }
        type.elements().forEach(member -> planned.addElement(properties.get(member)));
        type.attributes().forEach(member -> planned.addAttribute(attribute(member)));
        if (type.attributeWildcard() != null) {
            Member wildcard = type.attributeWildcard();
            planned.setAttributeWildcard(made(wildcard));
        }
    }

    private Property leaf(Content.Leaf<Member> leaf) {
        Member member = leaf.member();
        Property property =
                switch (member.kind()) {
                    case GROUP -> group(member);
                    case WILDCARD -> made(member);
                    default -> element(member);
                };
        properties.put(member, property);
        return property;
    }

    /** A member that has no name in the contract. */
    private Property made(Member member) {
        return new Property(
                names.make(member.subject(), member.name()), null, types.value(member), Property.Access.PLAIN, member);
    }

    private Property group(Member member) {
        ValueType value = types.value(member);
        String name = names.make(member.subject(), types.memberName(member.name()));
        return new Property(name, null, value, Property.Access.PLAIN, member);
    }

    private Property element(Member member) {
        boolean item = member.subject() == null;
        String name = item
                ? names.make(member.name(), "")
                : names.claim(member.subject(), types.memberName(member.name()), "");
        ValueType value = types.value(member);
        boolean tellsNil = !item
                && type.origin() != Origin.PARTS
                && member.nillable()
                && member.kind() == Member.Kind.ELEMENT
                && member.cardinality() == Member.Cardinality.OPTIONAL;
        String nilName = tellsNil ? names.make(name + "Nil", "") : null;
        Property.Access access = item || type.origin() == Origin.PARTS
                ? Property.Access.PLAIN
                : types.shapes().access(member);
        return new Property(name, nilName, value, access, member);
    }

    private Property attribute(Member member) {
        ValueType value = types.value(member);
        String name = names.claim(member.subject(), types.memberName(member.name()), "Attribute");
        return new Property(name, null, value, types.shapes().access(member), member);
    }
}
