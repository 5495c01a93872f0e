package org.protypos.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Subject;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/** Takes services and operations into an inventory, with how their bindings carry them. */
final class WsdlInventory {
    /** Stands in facts that bindings of one protocol tell. */
    static final String OVER = " over ";

    /** Begins the facts that tell where a header block is not bound, though it is elsewhere. */
    private static final String ABSENT = "absent";

    private static final String STYLE = "style";

    private final Definitions wsdl;
    private final Inventory inventory;

    WsdlInventory(Definitions wsdl, Inventory inventory) {
        this.wsdl = wsdl;
        this.inventory = inventory;
    }

    void take() {
        wsdl.services().values().forEach(this::service);
        wsdl.portTypes().values().forEach(this::portType);
    }

    private void service(Service service) {
        Subject subject = Subject.wsdl(Subject.Kind.SERVICE, service.name(), service.place());
        inventory.add(new Item(Item.Kind.SERVICE, subject.designator(), service.place())
                .say("documentation", service.documentation()));
        for (Service.Port port : service.ports()) {
            Item item = new Item(
                    Item.Kind.PORT,
                    subject.inside(Subject.Kind.PORT, port.name(), port.place()).designator(),
                    port.place());
            Binding binding = wsdl.bindings().get(port.binding());
            item.say("address", port.address());
            item.say("protocol", port.protocol().title());
            item.say("port type", binding == null ? null : binding.portType());
            item.say("transport", binding == null ? null : binding.transport());
            item.say("HTTP method", binding == null ? null : binding.verb());
            policies(item, "", port.policy());
            policies(item, "", binding == null ? List.of() : binding.policy());
            item.say("documentation", port.documentation());
            inventory.add(item);
        }
    }

    /** What policies ask for: each assertion says its own, what they demand apart from what may be done without. */
    private static void policies(Item item, String over, List<PolicyAssertion> assertions) {
        for (PolicyAssertion assertion : assertions) {
            String name = assertion.name().getLocalPart();
            String detail = words(assertion).substring(name.length()).replaceFirst("^\\?", "");
            String all = assertion.optional() ? "offered" : "demanded";
            item.say((assertion.optional() ? "optional policy " : "policy ") + name + over, all + detail);
        }
    }

    private static String policy(List<PolicyAssertion> assertions) {
        TreeSet<String> words = new TreeSet<>();
        assertions.forEach(assertion -> words.add(words(assertion)));
        return String.join("; ", words);
    }

    private static String words(PolicyAssertion assertion) {
        String nested = policy(assertion.nested());
        return assertion.name().getLocalPart()
                + assertion.detail()
                + (assertion.optional() ? "?" : "")
                + (nested.isEmpty() ? "" : "(" + nested + ")");
    }

    private void portType(PortType portType) {
        Subject subject = Subject.wsdl(Subject.Kind.PORT_TYPE, portType.name(), portType.place());
        inventory.add(new Item(Item.Kind.PORT_TYPE, subject.designator(), portType.place())
                .say("documentation", portType.documentation()));
        List<Map<String, BoundOperation>> bound = portType.operations().stream()
                .map(any -> (Map<String, BoundOperation>) new TreeMap<String, BoundOperation>())
                .toList();
        for (Binding binding : wsdl.bindings().values()) {
            if (binding.portType().equals(portType.name())) {
                List<BoundOperation> found = binding.bound(portType);
                for (int i = 0; i < found.size(); i++) {
                    if (found.get(i) != null) {
                        String protocol = binding.protocol().title();
                        boolean again = bound.get(i).containsKey(protocol);
                        String how = again ? protocol + " by " + binding.name().getLocalPart() : protocol;
                        bound.get(i).putIfAbsent(how, found.get(i));
                    }
                }
            }
        }
        for (int i = 0; i < bound.size(); i++) {
            operation(portType, portType.operations().get(i), bound.get(i));
        }
    }

    /** Takes an operation with how it is bound, by protocol. */
    private void operation(PortType portType, Operation operation, Map<String, BoundOperation> bound) {
        String designator = Designators.operation(portType, operation).designator();
        Item item = new Item(Item.Kind.OPERATION, designator, operation.place());
        item.say("pattern", operation.pattern().inWords());
        item.say("parameter order", String.join(" ", operation.parameterOrder()));
        item.say("documentation", operation.documentation());
        inventory.add(item);
        bound.forEach((protocol, found) -> {
            item.say(STYLE + OVER + protocol, found.rpc() ? "rpc" : "document");
            item.say("SOAP action over " + protocol, "\"" + found.soapAction() + "\"");
            item.say("location over " + protocol, found.location());
            policies(item, " over " + protocol, found.policy());
        });
        message(designator + " input", operation.input(), carriers(bound, BoundOperation::input));
        message(designator + " output", operation.output(), carriers(bound, BoundOperation::output));
        for (Operation.Use fault : operation.faults()) {
            Item declared = new Item(
                    Item.Kind.FAULT, designator + " fault " + content(fault.message(), null, true), fault.place());
            inventory.add(declared);
        }
    }

    private static Map<String, BoundOperation.Carrier> carriers(
            Map<String, BoundOperation> bound, Function<BoundOperation, BoundOperation.Carrier> which) {
        Map<String, BoundOperation.Carrier> carriers = new TreeMap<>();
        bound.forEach((protocol, operation) -> {
            if (which.apply(operation) != null) {
                carriers.put(protocol, which.apply(operation));
            }
        });
        return carriers;
    }

    private void message(String designator, Operation.Use use, Map<String, BoundOperation.Carrier> carriers) {
        if (use == null) {
            return;
        }
        BoundOperation.Carrier carrier = carriers.values().stream().findFirst().orElse(null);
        Item item = new Item(Item.Kind.MESSAGE, designator, use.place());
        carried(item, use, carrier, "");
        item.say("action", use.action());
        carriers.forEach((protocol, one) -> carried(item, use, one, OVER + protocol));
        inventory.add(item);
        headers(designator, carriers);
    }

    private void carried(Item item, Operation.Use use, BoundOperation.Carrier carrier, String over) {
        item.say("content" + over, content(use.message(), carrier, false));
        item.say("encoded" + over, carrier != null && carrier.encoded() ? "true" : null);
        item.say("namespace" + over, carrier == null ? null : carrier.namespace());
        Message message = wsdl.messages().get(use.message());
        if (message != null) {
            BoundOperation.bodyParts(message, carrier).stream()
                    .filter(part -> part.element() == null)
                    .forEach(part -> item.say("type of part " + part.name() + over, part.type()));
        }
        if (carrier != null && !carrier.attachments().isEmpty()) {
            TreeMap<String, String> types = new TreeMap<>();
            carrier.attachments().forEach((part, attached) -> types.put(part, attached.mediaType()));
            item.say("attachments" + over, types);
        }
    }

    private void headers(String designator, Map<String, BoundOperation.Carrier> carriers) {
        Map<String, TreeSet<String>> over = new LinkedHashMap<>();
        Map<String, Place> places = new HashMap<>();
        carriers.forEach((protocol, carrier) -> carrier.headers().forEach(header -> {
            Message message = wsdl.messages().get(header.message());
            Message.Part part = message == null ? null : message.part(header.part());
            if (part != null) {
                over.computeIfAbsent(part(part), any -> new TreeSet<>()).add(protocol);
                places.putIfAbsent(part(part), header.place());
            }
        }));
        over.forEach((part, protocols) -> {
            Item block = new Item(Item.Kind.HEADER, designator + " header " + part, places.get(part));
            carriers.keySet().stream()
                    .filter(protocol -> !protocols.contains(protocol))
                    .forEach(protocol -> block.say(ABSENT + OVER + protocol, "true"));
            inventory.add(block);
        });
    }

    private String content(QName name, BoundOperation.Carrier carrier, boolean withTypes) {
        Message message = wsdl.messages().get(name);
        List<String> parts = new ArrayList<>();
        if (message != null) {
            BoundOperation.bodyParts(message, carrier)
                    .forEach(part ->
                            parts.add(withTypes || part.element() != null ? part(part) : "part " + part.name()));
        }
        return String.join(", ", parts);
    }

    private static String part(Message.Part part) {
        return part.element() != null ? part.element().toString() : part.name() + " of type " + part.type();
    }

    /** What a fact is about, whatever protocol it speaks of. */
    static String base(String fact) {
        int at = fact.indexOf(OVER);
        return at < 0 ? fact : fact.substring(0, at);
    }

    /** Whether a fact of a message only says for one protocol what another fact says of the message. */
    static boolean isOfOneProtocol(Item item, String fact) {
        return item.kind() == Item.Kind.MESSAGE && fact.contains(OVER);
    }

    /** Whether both contracts bind an operation by the protocol of which a fact speaks; other facts are always of both. */
    static boolean isOfBoth(String fact, Item was, Item is) {
        int at = fact.indexOf(OVER);
        String style = at < 0 ? null : STYLE + fact.substring(at);
        return style == null
                || was == null
                || is == null
                || was.facts().containsKey(style) && is.facts().containsKey(style);
    }
}
