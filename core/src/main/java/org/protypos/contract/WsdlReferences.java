package org.protypos.contract;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.schema.Builtins;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Names;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/** Checks that every name in the WSDL documents leads somewhere. */
final class WsdlReferences {
    private final Definitions wsdl;
    private final SchemaComponents schema;
    private final Findings findings;
    private final NameFinder names;
    private final Set<Place> named = new HashSet<>();

    WsdlReferences(Definitions wsdl, SchemaComponents schema, NameFinder names, Findings findings) {
        this.wsdl = wsdl;
        this.schema = schema;
        this.findings = findings;
        this.names = names;
    }

    void check() {
        wsdl.messages().values().forEach(this::message);
        wsdl.portTypes().values().forEach(this::portType);
        wsdl.bindings().values().forEach(this::binding);
        wsdl.services().values().forEach(this::service);
    }

    private void message(Message message) {
        for (Message.Part part : message.parts()) {
            if (part.element() != null) {
                names.require(
                        "element",
                        part.element(),
                        part.place(),
                        schema.elements().keySet());
            } else if (part.type() != null
                    && !part.type().equals(SchemaComponents.ANY_TYPE)
                    && schema.type(part.type()) == null) {
                List<QName> existing = new ArrayList<>(schema.types().keySet());
                Builtins.names().forEach(name -> existing.add(Builtins.name(name)));
                names.unresolved("type", part.type(), part.place(), existing);
            }
        }
    }

    private void portType(PortType portType) {
        for (Operation operation : portType.operations()) {
            use(operation.input());
            use(operation.output());
            operation.faults().forEach(this::use);
        }
    }

    private void use(Operation.Use use) {
        // A message that is not named has been told as such.
        if (use != null && !use.message().getLocalPart().isEmpty()) {
            names.require("message", use.message(), use.place(), wsdl.messages().keySet());
        }
    }

    private void binding(Binding binding) {
        PortType portType = wsdl.portTypes().get(binding.portType());
        if (portType == null) {
            names.unresolved(
                    "port type",
                    binding.portType(),
                    binding.place().towards("type"),
                    wsdl.portTypes().keySet());
            return;
        }
        List<String> operations =
                portType.operations().stream().map(Operation::name).toList();
        for (BoundOperation bound : binding.operations()) {
            if (!operations.contains(bound.name())) {
                findings.error(
                        "unresolved-name",
                        bound.place().towards("name"),
                        "the port type " + portType.name().getLocalPart() + " has no operation " + bound.name(),
                        NearestName.cure(
                                bound.name(), operations, "leave it out, or add the operation to the port type"));
            }
            carrier(bound.input());
            carrier(bound.output());
        }
        List<BoundOperation> all = binding.bound(portType);
        for (int i = 0; i < all.size(); i++) {
            Operation operation = portType.operations().get(i);
            BoundOperation bound = all.get(i);
            if (bound != null) {
                if (bound.rpc() && named.add(operation.place())) {
                    Names.check(operation.name(), operation.place().towards("name"), true, findings);
                }
                message(bound, bound.input(), operation.input());
                message(bound, bound.output(), operation.output());
            } else {
                findings.warning(
                        "operation-unbound",
                        operation.place().towards("name"),
                        "the binding " + binding.name().getLocalPart() + " leaves out the operation "
                                + operation.name(),
                        "bind it too, or expect that this binding cannot call it");
            }
        }
    }

    private void message(BoundOperation bound, BoundOperation.Carrier carrier, Operation.Use use) {
        Message message = use == null ? null : wsdl.messages().get(use.message());
        if (message == null) {
            return;
        }
        names(message, carrier);
        // A part that seems to have no place may be the one that is called otherwise there.
        if (carrier != null && areThere(message, carrier)) {
            places(bound, carrier, message);
        }
    }

    /** Whether what a binding puts into a body, or beside it, is there (WSDL 1.1, sections 3.5 and 5.4). */
    private boolean areThere(Message message, BoundOperation.Carrier carrier) {
        boolean there = true;
        for (String part : carrier.parts() == null ? List.<String>of() : carrier.parts()) {
            if (message.part(part) == null) {
                part(message, part, carrier.place().towards("part"), "leave it out of the body");
                there = false;
            }
        }
        for (Map.Entry<String, BoundOperation.Attached> part :
                carrier.attachments().entrySet()) {
            if (message.part(part.getKey()) == null) {
                part(message, part.getKey(), part.getValue().place(), "leave it out of the package");
                there = false;
            }
        }
        return there;
    }

    /** A binding carries all parts of a message, and a location has places for them alone (WSDL 1.1, sections 3.5, 4.6 and 5.2). */
    private void places(BoundOperation bound, BoundOperation.Carrier carrier, Message message) {
        List<String> parts = message.parts().stream().map(Message.Part::name).toList();
        boolean replaced = carrier.form() == BoundOperation.Form.URL_REPLACEMENT;
        List<String> placed = replaced ? BoundOperation.placeholders(bound.location()) : List.of();
        Set<String> carried = new HashSet<>(placed);
        carried.addAll(carrier.attachments().keySet());
        carried.addAll(carrier.parts() == null ? List.of() : carrier.parts());
        carrier.headers().stream()
                .filter(header -> header.message().equals(message.name()))
                .forEach(header -> carried.add(header.part()));
        if (!replaced) {
            BoundOperation.bodyParts(message, carrier).forEach(part -> carried.add(part.name()));
        }
        for (String part : parts) {
            if (!carried.contains(part)) {
                findings.warning(
                        "part-without-place",
                        bound.place().towards("name"),
                        (replaced ? "the location of " : "the binding of ") + bound.name()
                                + " has no place for the part " + part + " of "
                                + message.name().getLocalPart() + ": it is not sent",
                        replaced
                                ? "write (" + part + ") where its value belongs, or take http:urlEncoded for a query"
                                : "put it into the body, a header or the package, or expect that it does not arrive");
            }
        }
        for (String name : placed) {
            if (!parts.contains(name)) {
                findings.warning(
                        "part-without-place",
                        bound.place().towards("name"),
                        "the location of " + bound.name() + " has a place for " + name
                                + ", which is no part of its message: the text stays as it is",
                        NearestName.cure(name, parts, "add the part, or take the place out of the location"));
            }
        }
    }

    /** Parts that are of types are elements in messages, but for those that travel beside them, which are called like files. */
    private void names(Message message, BoundOperation.Carrier carrier) {
        for (Message.Part part : message.parts()) {
            boolean beside = carrier != null && carrier.attachments().containsKey(part.name());
            if (part.type() != null && !beside && named.add(part.place())) {
                Names.check(part.name(), part.place().towards("name"), true, findings);
            }
        }
    }

    private void part(Message message, String part, Place place, String cure) {
        findings.error(
                "unresolved-name",
                place,
                "the message " + message.name().getLocalPart() + " has no part " + part,
                NearestName.cure(
                        part, message.parts().stream().map(Message.Part::name).toList(), "add the part, or " + cure));
    }

    private void carrier(BoundOperation.Carrier carrier) {
        if (carrier == null) {
            return;
        }
        for (BoundOperation.Header header : carrier.headers()) {
            names.require(
                    "message",
                    header.message(),
                    header.place().towards("message"),
                    wsdl.messages().keySet());
            Message message = wsdl.messages().get(header.message());
            boolean told = header.part().isEmpty();
            if (message != null && !told && message.part(header.part()) == null) {
                part(message, header.part(), header.place().towards("part"), "leave the header out");
            }
        }
    }

    private void service(Service service) {
        for (Service.Port port : service.ports()) {
            names.require(
                    "binding",
                    port.binding(),
                    port.place().towards("binding"),
                    wsdl.bindings().keySet());
        }
    }
}
