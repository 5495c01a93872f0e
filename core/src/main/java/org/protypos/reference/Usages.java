package org.protypos.reference;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeUse;
import org.protypos.schema.Attributes;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.Term;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** Who uses which component of a contract, and as what. */
public final class Usages {
    private final Map<Key, List<Use>> uses = new HashMap<>();
    private final Map<Key, Component> components = new HashMap<>();
    private Component user;

    /** What tells a component that may be used from all others. */
    private record Key(Component.Kind kind, QName name) {
        static Key of(Component component) {
            return new Key(component.kind(), component.name());
        }
    }

    /**
     * A use.
     *
     * @param as what it is used as: the path of what is of a type, or a word
     * @param place where
     */
    public record Use(Component user, String as, Place place) {}

    private Usages() {}

    /** All uses in a sound contract. */
    public static Usages of(Contract contract, Components components) {
        Usages usages = new Usages();
        components.all().forEach(one -> usages.components.put(Key.of(one), one));
        usages.wsdl(contract, components::designated);
        usages.schema(contract.schema());
        return usages;
    }

    /** The uses of a component, in the order of the contract. */
    public List<Use> of(Component component) {
        return List.copyOf(uses.getOrDefault(Key.of(component), List.of()));
    }

    /** The operations whose messages a component is in, however deep. */
    public List<Component> operations(Component component) {
        Set<Component> found = new LinkedHashSet<>();
        Deque<Component> open = new ArrayDeque<>(List.of(component));
        Set<Component> seen = new LinkedHashSet<>(open);
        while (!open.isEmpty()) {
            for (Use use : of(open.pop())) {
                if (seen.add(use.user())) {
                    open.add(use.user());
                    if (use.user().kind() == Component.Kind.OPERATION) {
                        found.add(use.user());
                    }
                }
            }
        }
        return List.copyOf(found);
    }

    private boolean isUser(Component.Kind kind, QName name) {
        user = components.get(new Key(kind, name));
        return user != null;
    }

    private void use(Component.Kind kind, QName name, String as, Place place) {
        if (name != null && components.containsKey(new Key(kind, name))) {
            uses.computeIfAbsent(new Key(kind, name), any -> new ArrayList<>()).add(new Use(user, as, place));
        }
    }

    private void wsdl(Contract contract, Function<String, Component> designated) {
        for (PortType type : contract.wsdl().portTypes().values()) {
            for (Operation operation : type.operations()) {
                user = designated.apply(Designators.operation(type, operation).designator());
                if (user != null) {
                    message(operation.input(), "request");
                    message(operation.output(), "response");
                    operation.faults().forEach(fault -> message(fault, "fault"));
                }
            }
        }
        for (Message message : contract.wsdl().messages().values()) {
            if (isUser(Component.Kind.MESSAGE, message.name())) {
                for (Message.Part part : message.parts()) {
                    use(Component.Kind.ELEMENT, part.element(), "part " + part.name(), part.place());
                    use(Component.Kind.TYPE, part.type(), "part " + part.name(), part.place());
                }
            }
        }
    }

    private void message(Operation.Use used, String as) {
        if (used != null) {
            use(Component.Kind.MESSAGE, used.message(), as, used.place());
        }
    }

    private void schema(SchemaComponents schema) {
        schema.elements().forEach((name, element) -> {
            if (isUser(Component.Kind.ELEMENT, name)) {
                use(Component.Kind.ELEMENT, element.substitutionHead(), "stands for it", element.place());
                type(element.type(), "its type", "");
            }
        });
        schema.types().forEach((name, type) -> {
            if (isUser(Component.Kind.TYPE, name)) {
                inside(type, "");
            }
        });
        schema.groups().forEach((name, group) -> {
            if (isUser(Component.Kind.GROUP, name)) {
                term(group.group(), "");
            }
        });
        schema.attributes().forEach((name, attribute) -> {
            if (isUser(Component.Kind.ATTRIBUTE, name)) {
                type(attribute.type(), "its type", "");
            }
        });
        schema.attributeGroups().forEach((name, group) -> {
            if (isUser(Component.Kind.ATTRIBUTE_GROUP, name)) {
                attributes(group.attributes(), "");
            }
        });
    }

    /** A type that is named or stands here. */
    private void type(TypeReference reference, String as, String path) {
        if (reference == null) {
            return;
        }
        if (reference.name() != null) {
            use(Component.Kind.TYPE, reference.name(), as, reference.place());
        } else {
            inside(reference.anonymous(), path);
        }
    }

    private void inside(SchemaType type, String path) {
        if (type instanceof SimpleType simple) {
            String as =
                    switch (simple.variety()) {
                        case LIST -> "lists it";
                        default -> "restricts it";
                    };
            type(simple.base(), as, path);
            simple.members().forEach(member -> type(member, "one of its members", path));
        } else if (type instanceof ComplexType complex) {
            type(
                    complex.base(),
                    complex.derivation() == ComplexType.Derivation.EXTENSION ? "extends it" : "restricts it",
                    path);
            attributes(complex.attributes(), path);
            if (complex.content() instanceof ComplexType.ElementContent elements && elements.particle() != null) {
                term(elements.particle().term(), path);
            } else if (complex.content() instanceof ComplexType.SimpleContent simple) {
                type(simple.type(), "restricts its text to it", path);
            }
        }
    }

    private void attributes(Attributes attributes, String path) {
        for (AttributeUse use : attributes.uses()) {
            if (use.declaration() != null) {
                String here = inside(path, "@" + use.declaration().name().getLocalPart());
                type(use.declaration().type(), here, here);
            } else {
                use(Component.Kind.ATTRIBUTE, use.reference(), path.isEmpty() ? "has it" : path, use.place());
            }
        }
        for (Attributes.GroupUse use : attributes.groups()) {
            use(Component.Kind.ATTRIBUTE_GROUP, use.name(), path.isEmpty() ? "has it" : path, use.place());
        }
    }

    private static String inside(String path, String name) {
        return path.isEmpty() ? name : path + "/" + name;
    }

    private void term(Term term, String path) {
        term.act(new Term.Acts(
                element -> {
                    String here = inside(path, element.name().getLocalPart());
                    type(element.type(), here, here);
                },
                reference -> use(
                        Component.Kind.ELEMENT,
                        reference.name(),
                        path.isEmpty() ? "holds it" : path + " holds it",
                        reference.place()),
                group -> use(Component.Kind.GROUP, group.name(), path.isEmpty() ? "holds it" : path, group.place()),
                model -> model.particles().forEach(particle -> term(particle.term(), path)),
                wildcard -> {}));
    }
}
