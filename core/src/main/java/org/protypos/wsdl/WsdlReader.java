package org.protypos.wsdl;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.source.Document;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Reads the WSDL components of a contract over all its documents. The door of this package. */
public final class WsdlReader {
    /** What may be the name of a method (RFC 9110, sections 5.6.2 and 9.1): anything else would say more than that. */
    private static final Pattern METHOD = Pattern.compile("[A-Za-z0-9!#$%&'*+.^_`|~-]+");

    private static final Set<String> TOP =
            Set.of("import", "documentation", "types", "message", "portType", "binding", "service");

    private final Findings findings = new Findings();
    private final Map<QName, Message> messages = new LinkedHashMap<>();
    private final Map<QName, PortType> portTypes = new LinkedHashMap<>();
    private final Map<QName, Binding> bindings = new LinkedHashMap<>();
    private final Map<QName, Service> services = new LinkedHashMap<>();
    private String target = "";

    private final PolicyParser policies;

    private WsdlReader(Documents documents) {
        policies = new PolicyParser(documents, findings);
    }

    /**
     * Reads all definitions that the documents hold.
     *
     * @return the components, with a finding for each place that breaks the rules of WSDL
     */
    public static Definitions read(Documents documents) {
        WsdlReader reader = new WsdlReader(documents);
        for (Document document : documents.all()) {
            Element root = document.root();
            if (root.is(Xml.WSDL, "definitions")) {
                reader.definitions(root);
            } else if (!root.is(Xml.XSD, "schema")) {
                reader.foreign(root);
            }
        }
        return new Definitions(
                reader.messages, reader.portTypes, reader.bindings, reader.services, reader.findings.sorted());
    }

    private void foreign(Element root) {
        if (Xml.isDraftOfSchema(root)) {
            return;
        }
        boolean wsdl2 = root.is("http://www.w3.org/ns/wsdl", "description");
        findings.error(
                "not-a-contract",
                root.place(),
                wsdl2
                        ? "the document is WSDL 2.0, which is not supported"
                        : "the document is no contract: its root element is <" + root.name() + ">",
                wsdl2
                        ? "ask for a WSDL 1.1 description of the service"
                        : "give a WSDL 1.1 document or an XML Schema document; a service often shows its contract"
                                + " when a query is added to its address");
    }

    private void definitions(Element root) {
        target = root.attribute("targetNamespace") == null
                ? ""
                : root.attribute("targetNamespace").strip();
        for (Element child : root.children()) {
            if (!child.namespace().equals(Xml.WSDL)) {
                continue;
            }
            switch (child.name()) {
                case "message" -> add(messages, message(child), child);
                case "portType" -> add(portTypes, portType(child), child);
                case "binding" -> add(bindings, binding(child), child);
                case "service" -> add(services, service(child), child);
                default -> {
                    if (!TOP.contains(child.name())) {
                        findings.error(
                                "misplaced-element",
                                child.place(),
                                "wsdl:" + child.name() + " cannot stand inside wsdl:definitions",
                                NearestName.of(child.name(), TOP)
                                        .map(name -> "did you mean wsdl:" + name + "?")
                                        .orElse("leave it out"));
                    }
                }
            }
        }
    }

    private <T> void add(Map<QName, T> table, T component, Element element) {
        QName name = name(element);
        if (table.putIfAbsent(name, component) != null) {
            findings.error(
                    "declared-twice",
                    element.place("name"),
                    "the " + element.name() + " " + name.getLocalPart() + " is declared twice",
                    "keep one of the two");
        }
    }

    private QName name(Element element) {
        return new QName(target, localName(element));
    }

    private String localName(Element element) {
        String name = element.attribute("name");
        if (name == null) {
            findings.error(
                    "name-missing",
                    element.place(),
                    "wsdl:" + element.name() + " needs a name",
                    "give it a name attribute");
            return "unnamed";
        }
        return name.strip();
    }

    private static String documentation(Element element) {
        Element documentation = element.child(Xml.WSDL, "documentation");
        return documentation == null ? "" : documentation.text().strip();
    }

    private QName reference(Element element, String attribute) {
        String value = element.attribute(attribute);
        if (value == null || value.isBlank()) {
            return null;
        }
        QName name = element.resolve(value.strip());
        if (name == null) {
            findings.error(
                    "undeclared-prefix",
                    element.place(attribute),
                    "the prefix of \"" + value + "\" is not declared",
                    "declare it with an xmlns attribute");
            return new QName("", value);
        }
        return name;
    }

    private QName required(Element element, String attribute) {
        QName name = reference(element, attribute);
        if (name == null) {
            findings.error(
                    "attribute-missing",
                    element.place(),
                    "<" + element.name() + "> needs the attribute " + attribute,
                    "add it");
            return new QName("", "");
        }
        return name;
    }

    private Message message(Element element) {
        List<Message.Part> parts = new ArrayList<>();
        for (Element part : element.children(Xml.WSDL, "part")) {
            QName of = reference(part, "element");
            QName type = reference(part, "type");
            Place place = part.place(of != null ? "element" : "type");
            if ((of == null) == (type == null)) {
                findings.error(
                        "part-type",
                        part.place(),
                        "the part " + part.attribute("name") + (of == null ? " has neither" : " has both")
                                + " element and type",
                        "give it one of the two");
            }
            parts.add(new Message.Part(localName(part), of, type, place));
        }
        return new Message(name(element), List.copyOf(parts), documentation(element), element.place());
    }

    private PortType portType(Element element) {
        List<Operation> operations = new ArrayList<>();
        for (Element operation : element.children(Xml.WSDL, "operation")) {
            operations.add(operation(operation));
        }
        return new PortType(name(element), List.copyOf(operations), documentation(element), element.place());
    }

    private Operation operation(Element element) {
        Operation.Use input = null;
        Operation.Use output = null;
        boolean inputFirst = false;
        List<Operation.Use> faults = new ArrayList<>();
        String name = localName(element);
        for (Element child : element.children()) {
            if (child.is(Xml.WSDL, "input")) {
                inputFirst = output == null;
                input = use(child);
            } else if (child.is(Xml.WSDL, "output")) {
                output = use(child);
            } else if (child.is(Xml.WSDL, "fault")) {
                faults.add(use(child));
            }
        }
        Operation.Pattern pattern = input == null
                ? Operation.Pattern.NOTIFICATION
                : output == null
                        ? Operation.Pattern.ONE_WAY
                        : inputFirst ? Operation.Pattern.REQUEST_RESPONSE : Operation.Pattern.SOLICIT_RESPONSE;
        String suffix = pattern == Operation.Pattern.REQUEST_RESPONSE ? "Request" : "Solicit";
        String order = element.attribute("parameterOrder");
        return new Operation(
                name,
                pattern,
                named(input, output == null ? name : name + suffix),
                named(output, input == null ? name : name + "Response"),
                List.copyOf(faults),
                order == null || order.isBlank()
                        ? List.of()
                        : List.of(order.strip().split("\\s+")),
                documentation(element),
                element.place());
    }

    /** Input and output have names even where none is written (WSDL 1.1, section 2.4.5). */
    private static Operation.Use named(Operation.Use use, String name) {
        return use == null || use.name() != null
                ? use
                : new Operation.Use(name, use.message(), use.action(), use.documentation(), use.place());
    }

    private Operation.Use use(Element element) {
        return new Operation.Use(
                element.attribute("name"),
                required(element, "message"),
                Xml.ADDRESSING_METADATA.stream()
                        .map(namespace -> element.attribute(namespace, "Action"))
                        .filter(Objects::nonNull)
                        .map(String::strip)
                        .findFirst()
                        .orElse(null),
                documentation(element),
                element.place("message"));
    }

    private Binding binding(Element element) {
        Element extension = null;
        Protocol protocol = Protocol.OTHER;
        for (Element child : element.children()) {
            Protocol found = child.name().equals("binding") ? protocol(child.namespace()) : Protocol.OTHER;
            if (found != Protocol.OTHER) {
                extension = child;
                protocol = found;
            }
        }
        boolean rpc = extension != null && "rpc".equals(extension.attribute("style"));
        List<BoundOperation> operations = new ArrayList<>();
        for (Element operation : element.children(Xml.WSDL, "operation")) {
            operations.add(new BindingParser(this, policies, findings).operation(operation, protocol, rpc));
        }
        return new Binding(
                name(element),
                required(element, "type"),
                protocol,
                extension == null ? null : extension.attribute("transport"),
                protocol == Protocol.HTTP ? verb(extension) : null,
                List.copyOf(operations),
                policies.of(element),
                documentation(element),
                element.place());
    }

    private static String verb(Element extension) {
        String verb = extension.attribute("verb");
        return verb == null || !METHOD.matcher(verb.strip()).matches()
                ? "GET"
                : verb.strip().toUpperCase(Locale.ROOT);
    }

    static Protocol protocol(String namespace) {
        return switch (namespace) {
            case Xml.WSDL_SOAP11 -> Protocol.SOAP_1_1;
            case Xml.WSDL_SOAP12 -> Protocol.SOAP_1_2;
            case Xml.WSDL_HTTP -> Protocol.HTTP;
            default -> Protocol.OTHER;
        };
    }

    private Service service(Element element) {
        List<Service.Port> ports = new ArrayList<>();
        List<PolicyAssertion> common = policies.of(element);
        for (Element port : element.children(Xml.WSDL, "port")) {
            ports.add(port(port, common));
        }
        return new Service(name(element), List.copyOf(ports), documentation(element), element.place());
    }

    private Service.Port port(Element element, List<PolicyAssertion> common) {
        Protocol protocol = Protocol.OTHER;
        String address = "";
        for (Element child : element.children()) {
            if (child.name().equals("address") && child.attribute("location") != null) {
                protocol = protocol(child.namespace());
                address = child.attribute("location").strip();
            }
        }
        return new Service.Port(
                localName(element),
                required(element, "binding"),
                protocol,
                address,
                PolicyAssertion.joined(common, policies.of(element)),
                documentation(element),
                element.place());
    }

    QName requiredReference(Element element, String attribute) {
        return required(element, attribute);
    }

    String requiredName(Element element) {
        return localName(element);
    }
}
