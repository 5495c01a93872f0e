package org.protypos.api.type;

import java.util.ArrayList;
import java.util.List;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.TypeReference;
import org.protypos.wire.WirePart;
import org.protypos.wsdl.Message;

/**
 * Makes a type of the parts of a message: what the wrapper of a remote procedure call holds (SOAP 1.1, section 7.1), or
 * several elements side by side in the body.
 */
public final class PartsBuilder {
    private final TypeBuilder types;

    /** Makes types of parts with the types of their contract. */
    public PartsBuilder(TypeBuilder types) {
        this.types = types;
    }

    /**
     * The parts of a call: an element in no namespace for each, called like the part.
     *
     * @param message the message they are of
     * @param order the order of the parameters, as far as the contract says
     * @param encoded whether values may be left out or nil, as the SOAP encoding lets all of them be
     */
    public StructuredType call(Message message, List<WirePart> parts, List<String> order, boolean encoded) {
        StructuredType type = structure(message, parts);
        List<Content<Member>> contents = new ArrayList<>();
        List<Member> members = new ArrayList<>();
        for (WirePart part : parts) {
            Member member = accessor(type, message, part, encoded);
            members.add(member);
            contents.add(new Content.Leaf<>(member, encoded ? 0 : 1, 1, null));
        }
        for (String name : order) {
            for (int i = 0; i < parts.size(); i++) {
                if (parts.get(i).name().equals(name) && !type.elements().contains(members.get(i))) {
                    type.addElement(members.get(i));
                }
            }
        }
        members.stream().filter(member -> !type.elements().contains(member)).forEach(type::addElement);
        type.setContent(new Content.InAnyOrder<>(List.copyOf(contents), false));
        if (encoded) {
            type.setEncodedCall();
        }
        return type;
    }

    private static StructuredType structure(Message message, List<WirePart> parts) {
        StructuredType type = new StructuredType(Origin.PARTS, subject(message), null, message.name());
        type.setMentioned(each -> parts.forEach(part -> each.accept(subject(message, part), part.name())));
        return type;
    }

    private static Subject subject(Message message) {
        return Subject.wsdl(Subject.Kind.MESSAGE, message.name(), message.place());
    }

    private static Subject subject(Message message, WirePart part) {
        return subject(message)
                .inside(Subject.Kind.PART, part.name(), part.part().place());
    }

    private Member accessor(StructuredType type, Message message, WirePart part, boolean encoded) {
        TypeReference reference = part.type();
        ApiValue value = types.withAttachments(types.value(reference, new Scope(type, part.element())), false);
        return new Member(
                subject(message, part),
                part.name(),
                Member.Kind.ELEMENT,
                part.element(),
                value,
                null,
                encoded ? Member.Cardinality.OPTIONAL : Member.Cardinality.REQUIRED,
                encoded,
                null,
                "",
                types.facets().of(reference),
                types.typeName(value, reference));
    }

    /**
     * Parts side by side in the body, each its element, or one called like the part when it is of a type.
     *
     * @param message the message they are of
     * @param encoded whether values may be left out or nil, as the SOAP encoding lets all of them be
     */
    public StructuredType beside(Message message, List<WirePart> parts, boolean encoded) {
        StructuredType type = structure(message, parts);
        List<Content<Member>> contents = new ArrayList<>();
        for (WirePart part : parts) {
            Member member = part.isGlobal() ? element(message, part) : accessor(type, message, part, encoded);
            type.addElement(member);
            contents.add(new Content.Leaf<>(member, encoded && !part.isGlobal() ? 0 : 1, 1, null));
        }
        type.setContent(new Content.InSequence<>(List.copyOf(contents), false));
        return type;
    }

    private Member element(Message message, WirePart part) {
        ElementDeclaration element = types.schema().elements().get(part.element());
        return new Member(
                subject(message, part),
                part.name(),
                Member.Kind.ELEMENT,
                element.name(),
                types.elementValue(element, Scope.global(element.name())),
                Subject.element(element.name(), null),
                Member.Cardinality.REQUIRED,
                element.nillable(),
                null,
                element.documentation(),
                types.facets().of(types.schema().typeOf(element)),
                null);
    }
}
