package org.protypos.constraint;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Printable;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Protocol;

/** Whether bindings go with the port types that they are of (WSDL 1.1, sections 2.5 and 3). */
final class BindingConstraints {
    private final Definitions wsdl;
    private final Findings findings;

    private BindingConstraints(Definitions wsdl, Findings findings) {
        this.wsdl = wsdl;
        this.findings = findings;
    }

    static void check(Contract contract, Findings findings) {
        BindingConstraints constraints = new BindingConstraints(contract.wsdl(), findings);
        for (Element root : contract.documents().definitions()) {
            String target = root.attribute("targetNamespace");
            root.children(Xml.WSDL, "binding").forEach(binding -> constraints.binding(binding, target));
            root.children(Xml.WSDL, "portType").forEach(constraints::portType);
        }
    }

    /** The message that an element names, or null. */
    private Message message(Element use) {
        String reference = use == null ? null : use.attribute("message");
        QName name = reference == null ? null : use.resolve(reference.strip());
        return name == null ? null : wsdl.messages().get(name);
    }

    private void portType(Element portType) {
        for (Element operation : portType.children(Xml.WSDL, "operation")) {
            order(operation);
            for (Element fault : operation.children(Xml.WSDL, "fault")) {
                if (fault.attribute("name") == null) {
                    findings.warning(
                            "name-missing",
                            fault.place(),
                            "a fault of " + operation.attribute("name") + " has no name: no binding can speak of it",
                            "give it a name attribute");
                }
            }
        }
    }

    /** The parameters of a remote procedure call are parts (WSDL 1.1, section 2.4.6). */
    private void order(Element operation) {
        String order = operation.attribute("parameterOrder");
        if (order == null || order.isBlank()) {
            return;
        }
        Set<String> parts = new HashSet<>();
        for (String way : List.of("input", "output")) {
            Message message = message(operation.child(Xml.WSDL, way));
            if (message != null) {
                message.parts().forEach(part -> parts.add(part.name()));
            }
        }
        for (String word : order.strip().split("\\s+")) {
            if (!parts.contains(word)) {
                findings.warning(
                        "unresolved-name",
                        operation.place("parameterOrder"),
                        "the messages of " + operation.attribute("name") + " have no part " + Printable.of(word),
                        NearestName.cure(word, parts, "leave it out"));
            }
        }
    }

    private void binding(Element element, String target) {
        String name = element.attribute("name");
        Binding binding = name == null
                ? null
                : wsdl.bindings().get(new QName(target == null ? "" : target.strip(), name.strip()));
        PortType portType = binding == null ? null : wsdl.portTypes().get(binding.portType());
        if (portType == null) {
            return;
        }
        old(binding);
        List<BoundOperation> all = binding.bound(portType);
        for (int i = 0; i < all.size(); i++) {
            bothWays(portType.operations().get(i), all.get(i));
        }
        Map<String, Long> declared =
                portType.operations().stream().collect(Collectors.groupingBy(Operation::name, Collectors.counting()));
        Map<String, Integer> bound = new HashMap<>();
        for (Element operation : element.children(Xml.WSDL, "operation")) {
            String called = String.valueOf(operation.attribute("name")).strip();
            int times = bound.merge(called, 1, Integer::sum);
            if (times > declared.getOrDefault(called, Long.MAX_VALUE)) {
                findings.warning(
                        "declared-twice",
                        operation.place("name"),
                        "the operation " + Printable.of(called) + " is bound already",
                        "leave one of them out: one is not read");
            }
            List<Operation> meant = portType.operations().stream()
                    .filter(one -> one.name().equals(called))
                    .toList();
            operation(operation, meant, binding.protocol());
        }
    }

    /** The encoding of SOAP is no part of what services of today agree on (WS-I Basic Profile 1.1, R2706). */
    private void old(Binding binding) {
        boolean encoded = binding.operations().stream()
                .flatMap(operation -> Stream.of(operation.input(), operation.output()))
                .anyMatch(carrier -> carrier != null && carrier.encoded());
        if (encoded) {
            findings.note(
                    "soap-encoding",
                    binding.place().towards("name"),
                    "the binding " + binding.name().getLocalPart()
                            + " sends in the encoding of SOAP, which few others still read",
                    "nothing to do for a service that is there; say use=\"literal\" in a new one");
        }
    }

    /** A part of a call that has the same name in the answer is one variable on the other side. */
    private void bothWays(Operation operation, BoundOperation bound) {
        Message in = operation.input() == null
                ? null
                : wsdl.messages().get(operation.input().message());
        Message out = operation.output() == null
                ? null
                : wsdl.messages().get(operation.output().message());
        if (bound == null || !bound.rpc() || in == null || out == null) {
            return;
        }
        for (Message.Part part : in.parts()) {
            if (out.part(part.name()) != null) {
                findings.note(
                        "part-both-ways",
                        operation.place().towards("name"),
                        "the part " + part.name() + " of " + operation.name() + " goes in and comes out",
                        "expect a parameter and a result of that name: what comes out is another value");
            }
        }
    }

    private void operation(Element operation, List<Operation> meant, Protocol protocol) {
        for (Element child : operation.children()) {
            alike(child, protocol, operation);
            if (!child.namespace().equals(Xml.WSDL)) {
                continue;
            }
            child.children().forEach(inner -> {
                alike(inner, protocol, operation);
                headerFaults(inner);
            });
            if (child.name().equals("fault")) {
                fault(child, meant, protocol, operation);
            } else if (protocol.isSoap() && Set.of("input", "output").contains(child.name())) {
                bodies(child, operation);
            }
        }
    }

    /** What is told of a header that is at fault is there (section 3.7). */
    private void headerFaults(Element header) {
        for (Element fault : header.children()) {
            String reference = fault.name().equals("headerfault") ? fault.attribute("message") : null;
            Message message = message(fault);
            String part = fault.attribute("part");
            if (reference != null && (message == null || part != null && message.part(part.strip()) == null)) {
                findings.warning(
                        "unresolved-name",
                        fault.place(message == null ? "message" : "part"),
                        message == null
                                ? "there is no message " + Printable.of(reference)
                                : "the message " + message.name().getLocalPart() + " has no part " + Printable.of(part),
                        "name a part of a message, or leave the headerfault out");
            }
        }
    }

    /** What is said for one protocol says nothing in a binding of another. */
    private void alike(Element extension, Protocol protocol, Element operation) {
        Protocol own =
                switch (extension.namespace()) {
                    case Xml.WSDL_SOAP11 -> Protocol.SOAP_1_1;
                    case Xml.WSDL_SOAP12 -> Protocol.SOAP_1_2;
                    default -> null;
                };
        if (own != null && own != protocol && protocol != Protocol.OTHER) {
            findings.warning(
                    "binding-unlike",
                    extension.place(),
                    "<" + extension.name() + "> of " + operation.attribute("name") + " is one of " + own.title()
                            + " in a binding of " + protocol.title(),
                    "use the element of the binding's protocol");
        }
    }

    private void bodies(Element message, Element operation) {
        boolean packaged = message.child(Xml.WSDL_MIME, "multipartRelated") != null;
        List<Element> bodies = message.children().stream()
                .filter(child -> child.is(Xml.WSDL_SOAP11, "body") || child.is(Xml.WSDL_SOAP12, "body"))
                .toList();
        if (bodies.isEmpty() && !packaged) {
            findings.warning(
                    "body-missing",
                    message.place(),
                    "the " + message.name() + " of " + operation.attribute("name") + " has no body in the binding",
                    "add the body element of SOAP: until then all parts are in it");
        } else if (bodies.size() > 1) {
            findings.warning(
                    "misplaced-element",
                    bodies.get(1).place(),
                    "the " + message.name() + " of " + operation.attribute("name") + " has another body",
                    "leave one of them out: one is not read");
        }
    }

    private void fault(Element fault, List<Operation> meant, Protocol protocol, Element operation) {
        String name = fault.attribute("name");
        List<String> names = meant.stream()
                .flatMap(one -> one.faults().stream())
                .map(Operation.Use::name)
                .filter(one -> one != null)
                .toList();
        if (name == null) {
            findings.warning(
                    "name-missing",
                    fault.place(),
                    "a fault of " + operation.attribute("name") + " has no name in the binding",
                    "give it that of the fault that is meant");
            return;
        }
        if (!meant.isEmpty() && !names.contains(name)) {
            findings.warning(
                    "unresolved-name",
                    fault.place("name"),
                    "the operation " + operation.attribute("name") + " has no fault " + Printable.of(name),
                    NearestName.cure(name, names, "leave it out, or add the fault to the port type"));
        }
        for (Element soap : fault.children()) {
            boolean said = protocol.isSoap() && soap.name().equals("fault") && soap.attribute("name") != null;
            if (said && !soap.attribute("name").strip().equals(name.strip())) {
                findings.warning(
                        "unresolved-name",
                        soap.place("name"),
                        "the fault " + Printable.of(name) + " is called " + Printable.of(soap.attribute("name"))
                                + " inside",
                        "write the same name twice");
            }
        }
    }
}
