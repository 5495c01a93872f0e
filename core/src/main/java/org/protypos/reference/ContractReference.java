package org.protypos.reference;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Place;
import org.protypos.schema.AttributeDeclaration;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.wire.Wire;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;
import org.protypos.wire.WirePort;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;

/** What there is to know of each component of a contract: its structure, and who uses it. The door of this package. */
public final class ContractReference {
    private static final int MOST_LEVELS = 5;
    private static final int MOST_LINES = 200;

    private final Contract contract;
    private final Map<String, String> inCode;
    private final Components components;
    private final Demands demands;
    private Usages usages;
    private Structure own;
    private Structure whole;
    private Wire wire;
    private Map<Place, Operation> operations;

    /**
     * Begins.
     *
     * @param contract a sound contract
     * @param inCode the names that components have in code, by designators
     */
    public ContractReference(Contract contract, Map<String, String> inCode) {
        this.contract = contract;
        this.inCode = inCode;
        this.components = Components.of(contract);
        this.demands = new Demands(contract.schema());
    }

    /** The components that can be asked for. */
    public Components components() {
        return components;
    }

    /** Who uses what. */
    public Usages usages() {
        usages = usages == null ? Usages.of(contract, components) : usages;
        return usages;
    }

    /** The name of a component in code, empty when it has none. */
    public String inCode(Component component) {
        return inCode.getOrDefault(component.designator(), "");
    }

    /** The type that a type is derived from by adding to it, as rules speak of it; empty when there is none in the contract. */
    public String extended(Component component) {
        SchemaType type = component.kind() == Component.Kind.TYPE
                ? contract.schema().types().get(component.name())
                : null;
        boolean extending = type instanceof ComplexType complex
                && complex.derivation() == ComplexType.Derivation.EXTENSION
                && contract.schema().types().containsKey(complex.base().name());
        return extending ? "~" + type.base().name() : "";
    }

    /** What a component is beyond its structure, each in a few words: what it comes from, what its values have to be. */
    public List<String> traits(Component component) {
        List<String> traits = new ArrayList<>();
        SchemaComponents schema = contract.schema();
        if (component.kind() == Component.Kind.ATTRIBUTE) {
            AttributeDeclaration declared = schema.attributes().get(component.name());
            traits.add(demands.inWords(declared.type()));
            traits.addAll(demands.of(declared.type()));
        }
        if (component.kind() == Component.Kind.OPERATION) {
            WireOperation carried = carried(operation(component));
            List<String> asked = carried == null
                    ? List.of()
                    : PolicyAssertion.inWords(carried.bound().policy());
            asked.forEach(one -> traits.add("asks for " + one));
        }
        if (component.kind() != Component.Kind.TYPE) {
            return traits;
        }
        SchemaType type = schema.types().get(component.name());
        if (type instanceof ComplexType complex) {
            if (complex.isAbstract()) {
                traits.add("abstract");
            }
            if (complex.base() != null
                    && !SchemaComponents.ANY_TYPE.equals(complex.base().name())) {
                traits.add((complex.derivation() == ComplexType.Derivation.EXTENSION ? "extends " : "restricts ")
                        + demands.inWords(complex.base()));
            }
        } else if (type instanceof SimpleType) {
            traits.addAll(demands.of(TypeReference.to(component.name(), null)));
        }
        return traits;
    }

    /** How many levels of a component one reads at a time: five, or fewer where that is too much. */
    public int readableDepth(Component component) {
        int depth = MOST_LEVELS;
        while (depth > 1 && count(structure(component, depth)) > MOST_LINES) {
            depth--;
        }
        return depth;
    }

    private static int count(List<Node> nodes) {
        return nodes.stream().mapToInt(node -> 1 + count(node.children())).sum();
    }

    /**
     * The structure of a component.
     *
     * @param depth how many levels of it are told
     */
    public List<Node> structure(Component component, int depth) {
        whole = whole == null ? new Structure(contract, inCode, true) : whole;
        return structure(component, depth, whole.anew());
    }

    /** What a component has beyond other components that have names: of those only is told that it has them. */
    public List<Node> own(Component component) {
        own = own == null ? new Structure(contract, inCode, false) : own;
        return structure(component, MOST_LEVELS, own.anew());
    }

    /** The components that have something of a name in what is their own: an element, an attribute or a part. */
    public List<Component> holders(String name) {
        return components.all().stream()
                .filter(component -> holds(own(component), name))
                .toList();
    }

    private static boolean holds(List<Node> nodes, String name) {
        return nodes.stream()
                .anyMatch(node -> node.label().equals(name)
                        || node.label().replaceFirst("^@(.*:)?", "").equals(name)
                        || holds(node.children(), name));
    }

    private List<Node> structure(Component component, int depth, Structure structure) {
        return switch (component.kind()) {
            case OPERATION -> operation(component, structure, depth);
            case MESSAGE -> parts(contract.wsdl().messages().get(component.name()), structure, depth);
            case ELEMENT -> List.of(structure.element(component.name(), depth));
            case TYPE -> structure.type(component.name(), depth - 1);
            case GROUP -> structure.group(component.name(), depth - 1);
            case ATTRIBUTE_GROUP -> structure.attributeGroup(component.name());
            case ATTRIBUTE -> List.of();
        };
    }

    private static List<Node> parts(Message message, Structure structure, int depth) {
        List<Node> all = new ArrayList<>();
        if (message != null) {
            for (Message.Part part : message.parts()) {
                all.add(
                        part.element() != null
                                ? structure.used(part.element(), depth)
                                : structure.value(
                                        Node.Kind.PART,
                                        part.name(),
                                        TypeReference.to(part.type(), part.place()),
                                        part.place(),
                                        depth));
            }
        }
        return all;
    }

    /** The operation as some binding carries it, or null. */
    private WireOperation carried(Operation operation) {
        wire = wire == null ? Wire.of(contract) : wire;
        for (WirePort port : wire.ports()) {
            WireOperation carried = port.carried().operation(operation);
            if (carried != null) {
                return carried;
            }
        }
        return null;
    }

    private Operation operation(Component component) {
        if (operations == null) {
            Map<Place, Operation> all = new HashMap<>();
            for (PortType type : contract.wsdl().portTypes().values()) {
                type.operations().forEach(one -> all.put(one.place(), one));
            }
            operations = all;
        }
        return operations.get(component.place());
    }

    private List<Node> operation(Component component, Structure structure, int depth) {
        Operation operation = operation(component);
        WireOperation carried = carried(operation);
        List<Node> all = new ArrayList<>();
        message("request", operation.input(), carried == null ? null : carried.request(), structure, depth, all);
        message("response", operation.output(), carried == null ? null : carried.answer(), structure, depth, all);
        for (Operation.Use fault : operation.faults()) {
            message("fault " + (fault.name() == null ? "" : fault.name()), fault, null, structure, depth, all);
        }
        return all;
    }

    private void message(
            String label, Operation.Use use, WireMessage carried, Structure structure, int depth, List<Node> all) {
        if (use == null) {
            return;
        }
        List<Node> inside = new ArrayList<>();
        if (carried == null) {
            inside.addAll(parts(contract.wsdl().messages().get(use.message()), structure, depth));
        } else {
            carried.blocks().forEach(block -> inside.add(header(block, structure, depth)));
            carried.parts().forEach(part -> inside.add(part(part, structure, depth)));
            carried.attachments().forEach(part -> inside.add(attached(part, structure)));
        }
        all.add(new Node(
                Node.Kind.MESSAGE,
                label.strip(),
                "",
                "",
                List.of(),
                use.documentation() == null ? "" : use.documentation().strip(),
                "",
                "",
                "",
                use.place(),
                inside,
                false));
    }

    private static Node part(WirePart part, Structure structure, int depth) {
        return part.isGlobal()
                ? structure.used(part.element(), depth)
                : structure.value(Node.Kind.PART, part.name(), part.type(), null, depth);
    }

    private static Node header(WirePart block, Structure structure, int depth) {
        return part(block, structure, depth).as(Node.Kind.HEADER, "header");
    }

    private static Node attached(WirePart part, Structure structure) {
        Node node = structure
                .value(Node.Kind.PART, part.name(), part.type(), null, 0)
                .as(Node.Kind.PART, "attached");
        return node.referring("");
    }
}
