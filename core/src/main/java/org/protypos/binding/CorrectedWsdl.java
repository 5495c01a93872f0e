package org.protypos.binding;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Subject;
import org.protypos.schema.SchemaComponents;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/** The components of WSDL documents with corrections laid over them; all places stay those of the documents. */
final class CorrectedWsdl {
    private final Definitions wsdl;
    private final SchemaComponents schema;
    private final Corrections corrections;
    private final Map<QName, Message> messages;

    CorrectedWsdl(Definitions wsdl, SchemaComponents schema, Corrections corrections) {
        this.wsdl = wsdl;
        this.schema = schema;
        this.corrections = corrections;
        this.messages = new LinkedHashMap<>(wsdl.messages());
    }

    Definitions components() {
        Map<QName, Service> services = new LinkedHashMap<>();
        wsdl.services().forEach((name, service) -> services.put(name, service(service)));
        Map<QName, Binding> bindings = new LinkedHashMap<>();
        wsdl.bindings().forEach((name, binding) -> bindings.put(name, binding(binding)));
        return new Definitions(messages, wsdl.portTypes(), bindings, services, wsdl.findings());
    }

    private Service service(Service service) {
        List<Service.Port> ports = new ArrayList<>();
        Subject around = Subject.wsdl(Subject.Kind.SERVICE, service.name(), service.place());
        for (Service.Port port : service.ports()) {
            String designator =
                    around.inside(Subject.Kind.PORT, port.name(), port.place()).designator();
            Rule rule = corrections.about(designator, Correction::address);
            String address =
                    rule == null ? port.address() : rule.effect().correction().address();
            if (rule != null) {
                corrections.changed(rule, designator, port.place(), "address " + port.address(), "address " + address);
            }
            ports.add(new Service.Port(
                    port.name(),
                    port.binding(),
                    port.protocol(),
                    address,
                    port.policy(),
                    port.documentation(),
                    port.place()));
        }
        return new Service(service.name(), List.copyOf(ports), service.documentation(), service.place());
    }

    private Binding binding(Binding binding) {
        PortType portType = wsdl.portTypes().get(binding.portType());
        if (portType == null || !binding.protocol().isSoap()) {
            return binding;
        }
        List<BoundOperation> operations = new ArrayList<>();
        List<BoundOperation> all = binding.bound(portType);
        for (BoundOperation bound : binding.operations()) {
            Operation operation = IntStream.range(0, all.size())
                    .filter(at -> all.get(at) == bound)
                    .mapToObj(portType.operations()::get)
                    .findFirst()
                    .orElse(null);
            operations.add(operation == null ? bound : operation(bound, operation, portType));
        }
        return new Binding(
                binding.name(),
                binding.portType(),
                binding.protocol(),
                binding.transport(),
                binding.verb(),
                List.copyOf(operations),
                binding.policy(),
                binding.documentation(),
                binding.place());
    }

    private BoundOperation operation(BoundOperation bound, Operation operation, PortType portType) {
        String designator = Designators.operation(portType, operation).designator();
        Rule action = corrections.about(designator, Correction::soapAction);
        if (action != null) {
            corrections.changed(
                    action,
                    designator,
                    bound.place(),
                    "soapAction \"" + bound.soapAction() + "\"",
                    "soapAction \"" + action.effect().correction().soapAction() + "\"");
        }
        Rule style = corrections.about(designator, Correction::rpc);
        if (style != null) {
            corrections.changed(
                    style,
                    designator,
                    bound.place(),
                    "style " + style(bound.rpc()),
                    "style " + style(style.effect().correction().rpc()));
        }
        BoundOperation.Carrier input = bound.input();
        BoundOperation.Carrier output = bound.output();
        for (Rule rule : corrections.allAbout(designator, Correction::added)) {
            Correction.Addition added = rule.effect().correction().added();
            if (added.kind() == Correction.Kind.HEADER) {
                input = with(input, rule, added.name(), designator);
            } else if (added.kind() == Correction.Kind.ANSWER_HEADER) {
                output = with(output, rule, added.name(), designator);
            }
        }
        for (Rule rule : corrections.allAbout(designator, Correction::droppedHeader)) {
            QName header = rule.effect().correction().droppedHeader();
            boolean there = has(input, header) || has(output, header);
            if (there) {
                corrections.changed(rule, designator, bound.place(), "header " + header, "no header " + header);
                input = without(input, header, operation.input());
                output = without(output, header, operation.output());
            } else {
                corrections.changed(rule, designator, bound.place(), "no header " + header, "no header " + header);
            }
        }
        return new BoundOperation(
                bound.name(),
                style == null ? bound.rpc() : style.effect().correction().rpc(),
                action == null
                        ? bound.soapAction()
                        : action.effect().correction().soapAction(),
                bound.location(),
                input,
                output,
                bound.faults(),
                bound.policy(),
                bound.place());
    }

    private static String style(boolean rpc) {
        return rpc ? "rpc" : "document";
    }

    private QName element(BoundOperation.Header header) {
        Message message = messages.get(header.message());
        Message.Part part = message == null ? null : message.part(header.part());
        return part == null ? null : part.element();
    }

    private boolean has(BoundOperation.Carrier carrier, QName header) {
        return carrier != null && carrier.headers().stream().anyMatch(one -> header.equals(element(one)));
    }

    private BoundOperation.Carrier with(BoundOperation.Carrier carrier, Rule rule, QName header, String designator) {
        if (carrier == null || !schema.elements().containsKey(header)) {
            corrections.refused(
                    rule,
                    carrier == null
                            ? "there is no such message that could have a header"
                            : "there is no element " + header + " that could be a header",
                    "name an element that the contract has, and a message of the operation");
            return carrier;
        }
        boolean there = has(carrier, header);
        corrections.changed(
                rule, designator, carrier.place(), (there ? "header " : "no header ") + header, "header " + header);
        if (there) {
            return carrier;
        }
        Place place = rule.place();
        // A header is a part of a message: this one has none in the contract.
        QName name = new QName(header.getNamespaceURI(), header.getLocalPart() + "#header");
        messages.putIfAbsent(
                name, new Message(name, List.of(new Message.Part("header", header, null, place)), "", place));
        List<BoundOperation.Header> headers = new ArrayList<>(carrier.headers());
        headers.add(new BoundOperation.Header(name, "header", false, "", place));
        return carrying(carrier, carrier.parts(), headers);
    }

    /** A message without a header block; a part of it does not move to the body for that. */
    private BoundOperation.Carrier without(BoundOperation.Carrier carrier, QName header, Operation.Use use) {
        if (!has(carrier, header)) {
            return carrier;
        }
        List<String> parts = BoundOperation.bodyParts(messages.get(use.message()), carrier).stream()
                .map(Message.Part::name)
                .toList();
        return carrying(
                carrier,
                parts,
                carrier.headers().stream()
                        .filter(one -> !header.equals(element(one)))
                        .toList());
    }

    private static BoundOperation.Carrier carrying(
            BoundOperation.Carrier carrier, List<String> parts, List<BoundOperation.Header> headers) {
        return new BoundOperation.Carrier(
                carrier.name(),
                carrier.form(),
                carrier.encoded(),
                parts,
                carrier.namespace(),
                List.copyOf(headers),
                carrier.attachments(),
                carrier.mediaType(),
                carrier.place());
    }
}
