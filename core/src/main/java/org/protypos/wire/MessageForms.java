package org.protypos.wire;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.schema.Builtins;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PolicyAssertion;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/** Decides on the form of each message. */
final class MessageForms {
    private static final Set<QName> BINARY = Set.of(Builtins.name("base64Binary"), Builtins.name("hexBinary"));

    private final Contract contract;
    private final BodyTypes types;
    private final Set<QName> addressed;

    MessageForms(Contract contract) {
        this.contract = contract;
        this.types = new BodyTypes(contract.schema());
        this.addressed = addressed(contract);
    }

    WireBinding binding(Binding binding, PortType portType) {
        boolean isAddressed = addressed.contains(portType.name());
        List<WireOperation> operations = new ArrayList<>();
        List<BoundOperation> all = binding.bound(portType);
        for (int i = 0; i < all.size(); i++) {
            Operation operation = portType.operations().get(i);
            BoundOperation bound = all.get(i);
            if (operation.isIncoming() && bound != null) {
                operations.add(new One(binding, portType, operation, bound, isAddressed).decided());
            }
        }
        return new WireBinding(binding, portType, operations);
    }

    /** The port types for which a policy of some port or binding asks for addressing header blocks. */
    private static Set<QName> addressed(Contract contract) {
        Set<QName> addressed = new HashSet<>();
        Map<QName, Binding> bindings = contract.wsdl().bindings();
        for (Binding binding : bindings.values()) {
            if (asksForAddressing(binding.policy())) {
                addressed.add(binding.portType());
            }
        }
        for (Service service : contract.wsdl().services().values()) {
            for (Service.Port port : service.ports()) {
                if (bindings.containsKey(port.binding()) && asksForAddressing(port.policy())) {
                    addressed.add(bindings.get(port.binding()).portType());
                }
            }
        }
        return addressed;
    }

    private static boolean asksForAddressing(List<PolicyAssertion> policy) {
        return policy.stream().anyMatch(PolicyAssertion::isAddressing);
    }

    /** One operation of one binding. */
    private final class One {
        private final Binding binding;
        private final Operation operation;
        private final BoundOperation bound;
        private final Actions actions;

        One(Binding binding, PortType portType, Operation operation, BoundOperation bound, boolean addressed) {
            this.binding = binding;
            this.operation = operation;
            this.bound = bound;
            this.actions = new Actions(portType, operation, bound, addressed);
        }

        WireOperation decided() {
            return new WireOperation(
                    operation,
                    bound,
                    message(operation.input(), bound.input(), false, actions.input()),
                    operation.output() == null
                            ? null
                            : message(operation.output(), bound.output(), true, actions.output()),
                    operation.faults().stream().map(this::fault).toList());
        }

        private WireFault fault(Operation.Use use) {
            Message message = contract.wsdl().messages().get(use.message());
            BoundOperation.BoundFault carried = bound.fault(use);
            String namespace = carried == null ? "" : carried.namespace();
            return new WireFault(
                    use,
                    message,
                    message.parts().stream().map(part -> alone(part, namespace)).toList(),
                    actions.fault(use));
        }

        private WireMessage message(
                Operation.Use use, BoundOperation.Carrier carrier, boolean isAnswer, String action) {
            Message message = contract.wsdl().messages().get(use.message());
            List<Message.Part> inBody = BoundOperation.bodyParts(message, carrier);
            WireMessage.Form form = form(carrier, inBody);
            boolean encoded = carrier != null && carrier.encoded();
            QName wrapper = wrapper(carrier, form, inBody, isAnswer);
            WireMessage.Arrangement arrangement = wrapper != null
                    ? WireMessage.Arrangement.WRAPPED
                    : isOfType(form, inBody, encoded)
                            ? WireMessage.Arrangement.OF_TYPE
                            : WireMessage.Arrangement.ELEMENTS;
            return new WireMessage(
                    binding.protocol(),
                    message,
                    use,
                    isAnswer,
                    form,
                    arrangement,
                    wrapper,
                    encoded,
                    inBody.stream()
                            .map(part -> inBody(part, form, arrangement, carrier == null ? "" : carrier.mediaType()))
                            .toList(),
                    carrier == null
                            ? List.of()
                            : carrier.headers().stream().map(this::block).toList(),
                    carrier == null ? List.of() : attachments(message, carrier),
                    action);
        }

        private WirePart inBody(
                Message.Part part, WireMessage.Form form, WireMessage.Arrangement arrangement, String mediaType) {
            boolean isGlobal = arrangement == WireMessage.Arrangement.ELEMENTS && part.element() != null;
            // Bytes that stand alone are of any type; where a message is written down they are base64.
            QName base64 = Builtins.name("base64Binary");
            boolean bytes = form == WireMessage.Form.BYTES && !base64.equals(types.primitive(typeOf(part)));
            return new WirePart(
                    part,
                    isGlobal ? part.element() : new QName(part.name()),
                    isGlobal,
                    bytes ? TypeReference.to(base64, part.place()) : typeOf(part),
                    form == WireMessage.Form.BYTES ? mediaType : "",
                    arrangement == WireMessage.Arrangement.OF_TYPE ? types.beginnings(typeOf(part)) : List.of());
        }

        private WirePart block(BoundOperation.Header header) {
            Message message = contract.wsdl().messages().get(header.message());
            return alone(message.part(header.part()), header.namespace());
        }

        private List<WirePart> attachments(Message message, BoundOperation.Carrier carrier) {
            return message.parts().stream()
                    .filter(part -> carrier.attachments().containsKey(part.name()))
                    .map(part -> new WirePart(
                            part,
                            new QName(part.name()),
                            false,
                            typeOf(part),
                            carrier.attachments().get(part.name()).mediaType(),
                            List.of()))
                    .toList();
        }

        /** A part outside of the body: its element, or one called like it when it is of a type (WSDL 1.1, section 3.7). */
        private WirePart alone(Message.Part part, String namespace) {
            boolean isGlobal = part.element() != null;
            return new WirePart(
                    part,
                    isGlobal ? part.element() : new QName(namespace, part.name()),
                    isGlobal,
                    typeOf(part),
                    "",
                    List.of());
        }

        private QName wrapper(
                BoundOperation.Carrier carrier, WireMessage.Form form, List<Message.Part> inBody, boolean isAnswer) {
            if (form == WireMessage.Form.ENVELOPE) {
                String namespace = carrier == null ? "" : carrier.namespace();
                return bound.rpc() ? new QName(namespace, operation.name() + (isAnswer ? "Response" : "")) : null;
            }
            return form == WireMessage.Form.DOCUMENT && !inBody.isEmpty() ? null : new QName(operation.name());
        }

        private WireMessage.Form form(BoundOperation.Carrier carrier, List<Message.Part> inBody) {
            if (binding.protocol().isSoap()) {
                return WireMessage.Form.ENVELOPE;
            }
            return switch (carrier == null ? BoundOperation.Form.XML : carrier.form()) {
                case URL_ENCODED -> WireMessage.Form.FIELDS;
                case URL_REPLACEMENT -> WireMessage.Form.REPLACED;
                case XML, ENVELOPE -> WireMessage.Form.DOCUMENT;
                case CONTENT ->
                    inBody.isEmpty()
                            ? WireMessage.Form.DOCUMENT
                            : isText(inBody) ? WireMessage.Form.TEXT : WireMessage.Form.BYTES;
            };
        }

        private boolean isOfType(WireMessage.Form form, List<Message.Part> inBody, boolean encoded) {
            return form == WireMessage.Form.ENVELOPE
                    && inBody.size() == 1
                    && inBody.get(0).type() != null
                    && !encoded
                    && types.isOfElements(typeOf(inBody.get(0)));
        }

        private boolean isText(List<Message.Part> inBody) {
            TypeReference type = typeOf(inBody.get(0));
            QName primitive = types.primitive(type);
            return inBody.size() == 1 && isSimple(type) && (primitive == null || !BINARY.contains(primitive));
        }
    }

    private TypeReference typeOf(Message.Part part) {
        return part.type() != null
                ? TypeReference.to(part.type(), part.place())
                : contract.schema().typeOf(contract.schema().elements().get(part.element()));
    }

    private boolean isSimple(TypeReference type) {
        return !SchemaComponents.ANY_TYPE.equals(type.name())
                && contract.schema().resolve(type) instanceof SimpleType;
    }
}
