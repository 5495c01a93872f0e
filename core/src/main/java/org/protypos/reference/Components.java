package org.protypos.reference;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.NearestName;
import org.protypos.naming.Subject;
import org.protypos.schema.SchemaComponents;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** All components of a contract that can be asked for by their names. */
public final class Components {
    private final List<Component> all;
    private final Map<String, Component> byDesignator = new HashMap<>();

    private Components(List<Component> all) {
        this.all = List.copyOf(all);
        all.forEach(one -> byDesignator.put(one.designator(), one));
    }

    /** The components of a sound contract, in its order. */
    public static Components of(Contract contract) {
        List<Component> all = new ArrayList<>();
        for (PortType type : contract.wsdl().portTypes().values()) {
            for (Operation operation : type.operations()) {
                all.add(new Component(
                        Component.Kind.OPERATION,
                        new QName(type.name().getNamespaceURI(), operation.name()),
                        type.name().getLocalPart(),
                        Designators.operation(type, operation).designator(),
                        operation.documentation(),
                        operation.place()));
            }
        }
        contract.wsdl()
                .messages()
                .forEach((name, message) -> all.add(new Component(
                        Component.Kind.MESSAGE,
                        name,
                        "",
                        Subject.wsdl(Subject.Kind.MESSAGE, name, null).designator(),
                        message.documentation(),
                        message.place())));
        SchemaComponents schema = contract.schema();
        schema.elements()
                .forEach((name, element) -> all.add(new Component(
                        Component.Kind.ELEMENT, name, "", name.toString(), element.documentation(), element.place())));
        schema.types()
                .forEach((name, type) -> all.add(
                        new Component(Component.Kind.TYPE, name, "", "~" + name, type.documentation(), type.place())));
        schema.groups()
                .forEach((name, group) -> all.add(new Component(
                        Component.Kind.GROUP, name, "", "group " + name, group.documentation(), group.place())));
        schema.attributes()
                .forEach((name, attribute) -> all.add(new Component(
                        Component.Kind.ATTRIBUTE, name, "", "@" + name, attribute.documentation(), attribute.place())));
        schema.attributeGroups()
                .forEach((name, group) -> all.add(new Component(
                        Component.Kind.ATTRIBUTE_GROUP,
                        name,
                        "",
                        "attribute group " + name,
                        group.documentation(),
                        group.place())));
        // What comes with the program, such as the attributes of XML itself, is nobody's contract.
        Set<String> documents = contract.documents().all().stream()
                .map(document -> document.text().name())
                .collect(Collectors.toSet());
        all.removeIf(one -> SchemaComponents.isOriginal(one.name())
                || one.place() == null
                || !documents.contains(one.place().document()));
        return new Components(all);
    }

    /** All of them. */
    public List<Component> all() {
        return all;
    }

    /**
     * Those that a name may mean: a local name, one with its kind before it ({@code element:berth}), or as rules speak of it, where
     * {@code ~} stands before types and {@code @} before attributes. Capitals do not count when nothing is called just so.
     */
    public List<Component> named(String wanted) {
        Component designated = designated(wanted);
        if (designated != null) {
            return List.of(designated);
        }
        List<Component> found = matching(one -> isCalled(one, wanted));
        return found.isEmpty() ? matching(one -> one.name().getLocalPart().equalsIgnoreCase(wanted)) : found;
    }

    private List<Component> matching(Predicate<Component> condition) {
        return all.stream().filter(condition).toList();
    }

    private static boolean isCalled(Component one, String wanted) {
        String mark =
                switch (one.kind()) {
                    case TYPE -> "~";
                    case ATTRIBUTE -> "@";
                    default -> "";
                };
        String local = one.name().getLocalPart();
        return wanted.equals(local)
                || wanted.equals(one.called())
                || wanted.equals(mark + local)
                || wanted.equals(one.handle());
    }

    /** The one of which rules speak in this way, or null. */
    public Component designated(String designator) {
        return byDesignator.get(designator);
    }

    /** The name that a misspelt one was probably meant to be. */
    public Optional<String> nearest(String wanted) {
        return NearestName.of(
                wanted,
                all.stream().map(one -> one.name().getLocalPart()).distinct().toList());
    }
}
