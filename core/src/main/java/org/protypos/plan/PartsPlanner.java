package org.protypos.plan;

import java.util.ArrayList;
import java.util.List;
import org.protypos.naming.NameRules;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.TypeReference;
import org.protypos.wire.WirePart;
import org.protypos.wsdl.Message;

/**
 * Makes a class of the parts of a message: what the wrapper of a remote procedure call holds (SOAP 1.1, section 7.1), or
 * several elements side by side in the body.
 */
final class PartsPlanner {
    private final TypePlanner types;
    private final NameRules rules;

    PartsPlanner(TypePlanner types, NameRules rules) {
        this.types = types;
        this.rules = rules;
    }

    /**
     * The parts of a call: an element in no namespace for each, called like the part.
     *
     * @param message the message they are of
     * @param order the order of the parameters, as far as the contract says
     * @param encoded whether values may be left out or nil, as the SOAP encoding lets all of them be
     */
    ApiClass call(
            String packageName,
            String wanted,
            Message message,
            List<WirePart> parts,
            List<String> order,
            boolean encoded) {
        ApiClass type = partsClass(packageName, wanted, message, parts);
        List<Content> contents = new ArrayList<>();
        List<Property> properties = new ArrayList<>();
        for (WirePart part : parts) {
            Property property = accessor(type, message, part, encoded);
            properties.add(property);
            contents.add(new Content.Leaf(property, encoded ? 0 : 1, 1, null));
        }
        for (String name : order) {
            for (int i = 0; i < parts.size(); i++) {
                if (parts.get(i).name().equals(name) && !type.elements().contains(properties.get(i))) {
                    type.addElement(properties.get(i));
                }
            }
        }
        properties.stream()
                .filter(property -> !type.elements().contains(property))
                .forEach(type::addElement);
        type.setContent(new Content.InAnyOrder(List.copyOf(contents), false));
        if (encoded) {
            type.setEncodedCall();
        }
        return type;
    }

    /** A class in which every part will want a name. */
    private ApiClass partsClass(String packageName, String wanted, Message message, List<WirePart> parts) {
        ApiClass type = types.partsClass(packageName, wanted);
        type.memberNames.expect(expected ->
                parts.forEach(part -> expected.wants(subject(message, part), rules.memberName(part.name()))));
        return type;
    }

    private static Subject subject(Message message, WirePart part) {
        return Subject.wsdl(Subject.Kind.MESSAGE, message.name(), message.place())
                .inside(Subject.Kind.PART, part.name(), part.part().place());
    }

    private Property accessor(ApiClass type, Message message, WirePart part, boolean encoded) {
        TypeReference reference = part.type();
        Property property = new Property(
                type.memberNames.claim(subject(message, part), rules.memberName(part.name()), ""),
                Property.Kind.ELEMENT,
                part.element(),
                types.withAttachments(types.value(reference, new Owner(type, part.element())), false),
                encoded ? Property.Cardinality.OPTIONAL : Property.Cardinality.REQUIRED,
                encoded,
                null,
                null,
                "",
                types.facets().of(reference));
        types.nameType(type, property, reference);
        return property;
    }

    /**
     * Parts side by side in the body, each its element, or one called like the part when it is of a type.
     *
     * @param message the message they are of
     * @param encoded whether values may be left out or nil, as the SOAP encoding lets all of them be
     */
    ApiClass beside(String packageName, String wanted, Message message, List<WirePart> parts, boolean encoded) {
        ApiClass type = partsClass(packageName, wanted, message, parts);
        List<Content> contents = new ArrayList<>();
        for (WirePart part : parts) {
            Property property = part.isGlobal() ? element(type, message, part) : accessor(type, message, part, encoded);
            type.addElement(property);
            contents.add(new Content.Leaf(property, encoded && !part.isGlobal() ? 0 : 1, 1, null));
        }
        type.setContent(new Content.InSequence(List.copyOf(contents), false));
        return type;
    }

    private Property element(ApiClass type, Message message, WirePart part) {
        ElementDeclaration element = types.schema().elements().get(part.element());
        return new Property(
                type.memberNames.claim(subject(message, part), rules.memberName(part.name()), ""),
                Property.Kind.ELEMENT,
                element.name(),
                types.elementValue(element, Subject.element(element.name(), null), Owner.global(element.name())),
                Property.Cardinality.REQUIRED,
                element.nillable(),
                null,
                null,
                element.documentation(),
                types.facets().of(types.schema().typeOf(element)));
    }
}
