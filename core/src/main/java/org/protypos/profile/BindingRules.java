package org.protypos.profile;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.profile.ProfileCheck.Told;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Protocol;

/** What the profiles ask of messages, port types, bindings and ports (Basic Profile 1.1, sections 4.3 to 4.8). */
final class BindingRules {
    private final Contract contract;
    private final Profile profile;
    private final Told told;

    BindingRules(Contract contract, Profile profile, Told told) {
        this.contract = contract;
        this.profile = profile;
        this.told = told;
    }

    void judge(Element root) {
        root.children(Xml.WSDL, "message").forEach(this::message);
        root.children(Xml.WSDL, "portType").forEach(this::portType);
        root.children(Xml.WSDL, "binding").forEach(this::binding);
        root.children(Xml.WSDL, "service").forEach(this::service);
    }

    private void message(Element message) {
        for (Element part : message.children(Xml.WSDL, "part")) {
            if (part.attribute("type") != null && part.attribute("element") != null) {
                told.tell(Requirement.R2306, part, null, part.attribute("name"));
            }
        }
    }

    private void portType(Element portType) {
        Set<String> names = new HashSet<>();
        for (Element operation : portType.children(Xml.WSDL, "operation")) {
            String name = operation.attribute("name");
            if (!names.add(name)) {
                told.tell(Requirement.R2304, operation, "name", name);
            }
            List<String> order = operation.children().stream()
                    .filter(child -> child.is(Xml.WSDL, "input") || child.is(Xml.WSDL, "output"))
                    .map(Element::name)
                    .toList();
            if (!order.isEmpty() && order.get(0).equals("output")) {
                told.tell(Requirement.R2303, operation, null, name);
            }
            parameterOrder(operation);
        }
    }

    private void parameterOrder(Element operation) {
        String order = operation.attribute("parameterOrder");
        Element output = operation.child(Xml.WSDL, "output");
        Message message = order == null || output == null ? null : message(output, output.attribute("message"));
        if (message != null) {
            List<String> named = List.of(order.strip().split("\\s+"));
            long left = message.parts().stream()
                    .filter(part -> !named.contains(part.name()))
                    .count();
            if (left > 1) {
                told.tell(Requirement.R2305, operation, "parameterOrder", order);
            }
        }
    }

    private Message message(Element at, String name) {
        QName resolved = name == null ? null : at.resolve(name.strip());
        return resolved == null ? null : contract.wsdl().messages().get(resolved);
    }

    private void binding(Element binding) {
        Element soap = binding.child(profile.soap(), "binding");
        QName type = resolved(binding, "type");
        if (soap == null) {
            if (!isOfferedOtherwise(type)) {
                told.tell(Requirement.R2401, binding, null, binding.attribute("name"));
            }
            return;
        }
        String transport = soap.attribute("transport");
        if (transport == null) {
            told.tell(Requirement.R2701, soap, null, null);
        } else if (!transport.equals(Binding.HTTP_TRANSPORT)) {
            told.tell(Requirement.R2702, soap, "transport", transport);
        }
        String style = soap.attribute("style") == null ? "document" : soap.attribute("style");
        Set<String> styles = new LinkedHashSet<>();
        PortType portType = type == null ? null : contract.wsdl().portTypes().get(type);
        Map<QName, Element> signatures = new HashMap<>();
        for (Element operation : binding.children(Xml.WSDL, "operation")) {
            Element said = operation.child(profile.soap(), "operation");
            String own = said == null || said.attribute("style") == null ? style : said.attribute("style");
            styles.add(own);
            Operation abstractOne = abstractOperation(portType, operation);
            operation(operation, own.equals("rpc"), abstractOne);
            signature(operation, own.equals("rpc"), abstractOne, signatures);
        }
        if (styles.size() > 1) {
            told.tell(Requirement.R2705, binding, null, binding.attribute("name"));
        }
        sameOperations(binding, portType);
    }

    /** Whether the port type has a binding that the profile speaks of: then others are beside it. */
    private boolean isOfferedOtherwise(QName portType) {
        Protocol wanted = profile.soap().equals(Xml.WSDL_SOAP11) ? Protocol.SOAP_1_1 : Protocol.SOAP_1_2;
        return contract.wsdl().bindings().values().stream()
                .anyMatch(
                        other -> other.protocol() == wanted && other.portType().equals(portType));
    }

    private static Operation abstractOperation(PortType portType, Element operation) {
        return portType == null
                ? null
                : portType.operations().stream()
                        .filter(one -> one.name().equals(operation.attribute("name")))
                        .findFirst()
                        .orElse(null);
    }

    private void sameOperations(Element binding, PortType portType) {
        if (portType == null) {
            return;
        }
        Set<String> bound = new LinkedHashSet<>();
        binding.children(Xml.WSDL, "operation").forEach(one -> bound.add(one.attribute("name")));
        Set<String> declared = new LinkedHashSet<>();
        portType.operations().forEach(one -> declared.add(one.name()));
        List<String> other = new ArrayList<>();
        declared.stream().filter(name -> !bound.contains(name)).forEach(other::add);
        bound.stream().filter(name -> !declared.contains(name)).forEach(other::add);
        if (!other.isEmpty()) {
            told.tell(Requirement.R2718, binding, null, String.join(", ", other));
        }
    }

    /** What a receiver can tell operations apart by: the element in the body. */
    private void signature(Element operation, boolean rpc, Operation abstractOne, Map<QName, Element> signatures) {
        Message input = abstractOne == null || abstractOne.input() == null
                ? null
                : contract.wsdl().messages().get(abstractOne.input().message());
        if (rpc || input == null) {
            return;
        }
        QName element = input.parts().isEmpty()
                ? new QName("")
                : input.parts().size() == 1 ? input.parts().get(0).element() : null;
        Element other = element == null ? null : signatures.putIfAbsent(element, operation);
        if (other != null) {
            told.tell(
                    Requirement.R2710,
                    operation,
                    null,
                    other.attribute("name") + " and " + operation.attribute("name"));
        }
    }

    private void operation(Element operation, boolean rpc, Operation abstractOne) {
        for (Element direction : operation.children()) {
            boolean input = direction.is(Xml.WSDL, "input");
            if (input || direction.is(Xml.WSDL, "output")) {
                Operation.Use use = abstractOne == null ? null : input ? abstractOne.input() : abstractOne.output();
                Message message =
                        use == null ? null : contract.wsdl().messages().get(use.message());
                direction(direction, rpc, message);
            } else if (direction.is(Xml.WSDL, "fault")) {
                fault(direction, rpc, abstractOne);
            }
        }
        if (abstractOne != null) {
            Set<String> bound = new HashSet<>();
            operation.children(Xml.WSDL, "fault").forEach(one -> bound.add(one.attribute("name")));
            abstractOne.faults().stream()
                    .filter(fault -> !bound.contains(fault.name()))
                    .forEach(fault -> told.tell(Requirement.R2740, operation, null, fault.name()));
        }
    }

    private void direction(Element direction, boolean rpc, Message message) {
        List<Element> extensions = new ArrayList<>(direction.children(profile.soap(), "body"));
        List<Element> headers = new ArrayList<>(direction.children(profile.soap(), "header"));
        Set<String> elsewhere = new HashSet<>();
        List<Element> packages = direction.children(Xml.WSDL_MIME, "multipartRelated");
        for (Element whole : packages) {
            List<Element> bodies = new ArrayList<>();
            for (Element part : whole.children(Xml.WSDL_MIME, "part")) {
                bodies.addAll(part.children(profile.soap(), "body"));
                headers.addAll(part.children(profile.soap(), "header"));
                part.children(Xml.WSDL_MIME, "content").forEach(content -> elsewhere.add(content.attribute("part")));
            }
            if (bodies.size() != 1) {
                told.tell(Requirement.R2911, whole, null, null);
            }
            extensions.addAll(bodies);
        }
        if (extensions.isEmpty() && packages.isEmpty() && profile == Profile.ATTACHMENTS_1_0) {
            told.tell(Requirement.R2901, direction, null, null);
        }
        for (Element header : headers) {
            header(header, rpc);
            if (message != null && message.name().equals(resolved(header, "message"))) {
                elsewhere.add(header.attribute("part"));
            }
        }
        for (Element body : extensions) {
            body(body, rpc, message, elsewhere);
        }
    }

    private static QName resolved(Element element, String attribute) {
        String value = element.attribute(attribute);
        return value == null ? null : element.resolve(value.strip());
    }

    private void literal(Element element) {
        String use = element.attribute("use");
        if (use != null && !use.equals("literal")) {
            told.tell(Requirement.R2706, element, "use", use);
        }
    }

    private void body(Element body, boolean rpc, Message message, Set<String> elsewhere) {
        literal(body);
        String namespace = body.attribute("namespace");
        if (rpc && (namespace == null || !namespace.contains(":"))) {
            told.tell(Requirement.R2717, body, namespace == null ? null : "namespace", namespace);
        } else if (!rpc && namespace != null) {
            told.tell(Requirement.R2716, body, "namespace", namespace);
        }
        String listed = body.attribute("parts");
        List<String> named = listed == null || listed.isBlank()
                ? List.of()
                : List.of(listed.strip().split("\\s+"));
        if (!rpc && named.size() > 1) {
            told.tell(Requirement.R2201, body, "parts", listed);
        }
        if (message == null) {
            return;
        }
        List<Message.Part> carried = message.parts().stream()
                .filter(part -> listed == null ? !elsewhere.contains(part.name()) : named.contains(part.name()))
                .toList();
        if (!rpc && listed == null && carried.size() > 1) {
            told.tell(Requirement.R2210, body, null, message.name().getLocalPart());
        }
        for (Message.Part part : carried) {
            if (rpc && part.element() != null) {
                told.tell(Requirement.R2203, body, null, part.name());
            } else if (!rpc && part.type() != null) {
                told.tell(Requirement.R2204, body, null, part.name());
            }
        }
        message.parts().stream()
                .filter(part -> listed != null && !named.contains(part.name()) && !elsewhere.contains(part.name()))
                .forEach(part -> told.tell(Requirement.R2209, body, null, part.name()));
    }

    private void header(Element header, boolean rpc) {
        literal(header);
        if (header.attribute("parts") != null) {
            told.tell(Requirement.R2749, header, "parts", header.attribute("parts"));
        }
        if (header.attribute("part") == null) {
            told.tell(Requirement.R2720, header, null, null);
        }
        ofElement(header, message(header, header.attribute("message")), header.attribute("part"), rpc);
        header.children(profile.soap(), "headerfault").forEach(fault -> header(fault, rpc));
    }

    /** What a header or a fault carries is an element, which has a namespace of its own. */
    private void ofElement(Element at, Message message, String part, boolean rpc) {
        if (at.attribute("namespace") != null) {
            told.tell(rpc ? Requirement.R2726 : Requirement.R2716, at, "namespace", at.attribute("namespace"));
        }
        if (message != null) {
            message.parts().stream()
                    .filter(one -> (part == null || one.name().equals(part)) && one.type() != null)
                    .forEach(one -> told.tell(Requirement.R2205, at, null, one.name()));
        }
    }

    private void fault(Element fault, boolean rpc, Operation abstractOne) {
        String name = fault.attribute("name");
        for (Element soap : fault.children(profile.soap(), "fault")) {
            literal(soap);
            String own = soap.attribute("name");
            if (own == null) {
                told.tell(Requirement.R2721, soap, null, null);
            } else if (!own.equals(name)) {
                told.tell(Requirement.R2754, soap, "name", own);
            }
            Operation.Use use = abstractOne == null
                    ? null
                    : abstractOne.faults().stream()
                            .filter(one -> one.name() != null && one.name().equals(name))
                            .findFirst()
                            .orElse(null);
            ofElement(soap, use == null ? null : contract.wsdl().messages().get(use.message()), null, rpc);
        }
    }

    private void service(Element service) {
        Map<String, Element> addresses = new LinkedHashMap<>();
        for (Element port : service.children(Xml.WSDL, "port")) {
            Element address = port.child(profile.soap(), "address");
            String location = address == null ? null : address.attribute("location");
            if (location != null && addresses.putIfAbsent(location, port) != null) {
                told.tell(Requirement.R2711, address, "location", location);
            }
        }
    }
}
