package org.protypos.change;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.TreeSet;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
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
            item.say("policy", policy(port.policy()) + (binding == null ? "" : policy(binding.policy())));
            item.say("documentation", port.documentation());
            inventory.add(item);
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
        for (Operation operation : portType.operations()) {
            operation(portType, operation);
        }
    }

    private void operation(PortType portType, Operation operation) {
        String designator = Designators.operation(portType, operation).designator();
        Item item = new Item(Item.Kind.OPERATION, designator, operation.place());
        item.say("pattern", operation.pattern());
        item.say("parameter order", String.join(" ", operation.parameterOrder()));
        item.say("documentation", operation.documentation());
        inventory.add(item);
        TreeMap<String, BoundOperation> bound = new TreeMap<>();
        for (Binding binding : wsdl.bindings().values()) {
            BoundOperation found = binding.portType().equals(portType.name()) ? binding.operation(operation) : null;
            if (found != null) {
                bound.putIfAbsent(binding.protocol().title(), found);
            }
        }
        bound.forEach((protocol, found) -> {
            item.say("style over " + protocol, found.rpc() ? "rpc" : "document");
            item.say("SOAP action over " + protocol, "\"" + found.soapAction() + "\"");
            item.say("location over " + protocol, found.location());
            item.say("policy over " + protocol, policy(found.policy()));
        });
        BoundOperation first = bound.isEmpty() ? null : bound.firstEntry().getValue();
        message(designator + " input", operation.input(), first == null ? null : first.input());
        message(designator + " output", operation.output(), first == null ? null : first.output());
        for (Operation.Use fault : operation.faults()) {
            Item declared =
                    new Item(Item.Kind.FAULT, designator + " fault " + content(fault.message(), null), fault.place());
            refer(declared, fault.message());
            inventory.add(declared);
        }
    }

    private void message(String designator, Operation.Use use, BoundOperation.Carrier carrier) {
        if (use == null) {
            return;
        }
        Item item = new Item(Item.Kind.MESSAGE, designator, use.place());
        item.say("content", content(use.message(), carrier));
        item.say("encoded", carrier != null && carrier.encoded() ? "true" : null);
        item.say("namespace", carrier == null ? null : carrier.namespace());
        item.say("action", use.action());
        refer(item, use.message());
        inventory.add(item);
        if (carrier != null) {
            for (BoundOperation.Header header : carrier.headers()) {
                Message message = wsdl.messages().get(header.message());
                Message.Part part = message == null ? null : message.part(header.part());
                if (part != null) {
                    Item block = new Item(Item.Kind.HEADER, designator + " header " + part(part), header.place());
                    refer(block, part);
                    inventory.add(block);
                }
            }
        }
    }

    private String content(QName name, BoundOperation.Carrier carrier) {
        Message message = wsdl.messages().get(name);
        List<String> parts = new ArrayList<>();
        if (message != null) {
            BoundOperation.bodyParts(message, carrier).forEach(part -> parts.add(part(part)));
        }
        return String.join(", ", parts);
    }

    private static String part(Message.Part part) {
        return part.element() != null ? part.element().toString() : part.name() + " of type " + part.type();
    }

    private void refer(Item item, QName message) {
        if (wsdl.messages().containsKey(message)) {
            wsdl.messages().get(message).parts().forEach(part -> refer(item, part));
        }
    }

    private static void refer(Item item, Message.Part part) {
        item.refer(
                part.element() != null
                        ? part.element().toString()
                        : Subject.type(part.type(), null).designator());
    }
}
