package org.protypos.draft;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.draft.Sketch.Content;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.draft.Sketch.SketchPort;
import org.protypos.draft.Sketch.SketchProtocol;
import org.protypos.draft.Sketch.Style;
import org.protypos.schema.ElementDeclaration;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;
import org.protypos.wsdl.Service;

/** Says in a sketch what a contract says; what a sketch cannot say is named in notes. */
public final class ContractSketch {
    private final Contract contract;
    private final Findings findings;
    private final Set<QName> wrappers = new LinkedHashSet<>();
    private SchemaSketcher schemas;
    private String namespace;

    private ContractSketch(Contract contract, Findings findings) {
        this.contract = contract;
        this.findings = findings;
    }

    /**
     * Makes the sketch of a contract.
     *
     * @param contract a sound contract
     * @param findings is told what is left unsaid
     */
    public static Sketch of(Contract contract, Findings findings) {
        return new ContractSketch(contract, findings).sketch();
    }

    private void unsaid(Place place, String what) {
        findings.note("sketch-unsaid", place, "a sketch cannot say " + what, "");
    }

    private void undocumented(String documentation, Place place, String what) {
        if (SchemaSketcher.said(documentation) != null) {
            unsaid(place, "what is written about " + what);
        }
    }

    private Sketch sketch() {
        PortType portType = portType();
        namespace = portType != null ? portType.name().getNamespaceURI() : firstNamespace();
        List<Binding> bindings = contract.wsdl().bindings().values().stream()
                .filter(binding -> portType != null && binding.portType().equals(portType.name()))
                .filter(binding -> binding.protocol().isSoap())
                .toList();
        schemas = new SchemaSketcher(contract.schema(), prefixes(), findings);
        Style style = style(portType, bindings);
        Service service = service(bindings);
        List<SketchOperation> operations = new ArrayList<>();
        if (portType != null) {
            undocumented(
                    portType.documentation(),
                    portType.place(),
                    "the port type " + portType.name().getLocalPart());
            Set<String> names = new HashSet<>();
            List<BoundOperation> bound = bound(portType, bindings);
            for (int i = 0; i < portType.operations().size(); i++) {
                Operation operation = portType.operations().get(i);
                if (!names.add(operation.name())) {
                    unsaid(operation.place(), "several operations called " + operation.name());
                    continue;
                }
                SketchOperation said = operation(operation, style, bound.get(i));
                if (said != null) {
                    operations.add(said);
                }
            }
        }
        String type = portType == null ? "Contract" : portType.name().getLocalPart();
        String given = root() == null ? null : root().attribute("name");
        String name = given != null && given.matches(XmlText.NAME) ? given : type;
        return new Sketch(
                name,
                type,
                service == null ? name + "Service" : service.name().getLocalPart(),
                documentation(),
                style,
                schemas.sections(wrappers),
                operations,
                ports(service, bindings));
    }

    /** The root of the document that the contract begins with. */
    private Element root() {
        return contract.documents().entries().isEmpty()
                ? null
                : contract.documents().entries().get(0).root();
    }

    private String documentation() {
        Element root = root();
        Element said = root == null ? null : root.child(Xml.WSDL, "documentation");
        return said == null ? null : SchemaSketcher.said(said.text().strip().replaceAll("\\s+", " "));
    }

    private PortType portType() {
        PortType found = null;
        for (PortType one : contract.wsdl().portTypes().values()) {
            if (found == null || isOverSoap(one) && !isOverSoap(found)) {
                found = one;
            }
        }
        for (PortType one : contract.wsdl().portTypes().values()) {
            if (one != found) {
                unsaid(one.place(), "a second port type: " + one.name().getLocalPart());
            }
        }
        return found;
    }

    private boolean isOverSoap(PortType portType) {
        return contract.wsdl().bindings().values().stream()
                .anyMatch(binding -> binding.portType().equals(portType.name())
                        && binding.protocol().isSoap());
    }

    private String firstNamespace() {
        return contract.schema().elements().keySet().stream()
                .findFirst()
                .or(() -> contract.schema().types().keySet().stream()
                        .filter(name -> !name.getNamespaceURI().equals(Xml.XSD))
                        .findFirst())
                .map(QName::getNamespaceURI)
                .orElse("");
    }

    /** A prefix for each namespace, after its last word. */
    private Map<String, String> prefixes() {
        Map<String, String> prefixes = new LinkedHashMap<>();
        prefixes.put(namespace, "");
        Set<String> taken = new HashSet<>(Set.of("xs", "main", "xml"));
        List<QName> names = new ArrayList<>(contract.schema().types().keySet());
        names.addAll(contract.schema().elements().keySet());
        for (QName name : names) {
            String of = name.getNamespaceURI();
            if (of.equals(Xml.XSD) || of.equals(Xml.SOAP_ENCODING) || prefixes.containsKey(of)) {
                continue;
            }
            String declared = root() == null ? null : root().prefixOf(of);
            if (declared != null && declared.matches("(?!xml)[A-Za-z][\\w-]*") && taken.add(declared)) {
                prefixes.put(of, declared);
                continue;
            }
            String word = of.replaceAll("[^A-Za-z]+$", "")
                    .replaceAll(".*[^A-Za-z]", "")
                    .toLowerCase(Locale.ROOT);
            String prefix = word.isEmpty() || word.startsWith("xml") ? "n" : word;
            String free = prefix;
            for (int i = 2; !taken.add(free); i++) {
                free = prefix + i;
            }
            prefixes.put(of, free);
        }
        return prefixes;
    }

    private Style style(PortType portType, List<Binding> bindings) {
        Set<Boolean> rpc = new LinkedHashSet<>();
        for (Binding binding : bindings) {
            undocumented(
                    binding.documentation(),
                    binding.place(),
                    "the binding " + binding.name().getLocalPart());
            if (!binding.policy().isEmpty()) {
                unsaid(
                        binding.place(),
                        "the policies of the binding " + binding.name().getLocalPart());
            }
            for (BoundOperation bound : binding.operations()) {
                rpc.add(bound.rpc());
                if (!bound.policy().isEmpty()) {
                    unsaid(bound.place(), "the policies of " + bound.name());
                }
                if (bound.input() != null && bound.input().encoded()) {
                    unsaid(bound.place(), "that " + bound.name() + " is encoded");
                }
            }
        }
        if (rpc.size() > 1) {
            unsaid(portType.place(), "that some operations are of style rpc and some of style document");
        }
        if (!rpc.isEmpty()) {
            return rpc.contains(false) ? Style.DOCUMENT : Style.RPC;
        }
        boolean typed = portType != null
                && portType.operations().stream()
                        .filter(operation -> operation.input() != null)
                        .map(operation -> message(operation.input()))
                        .anyMatch(message ->
                                message != null && message.parts().stream().anyMatch(part -> part.type() != null));
        return typed ? Style.RPC : Style.DOCUMENT;
    }

    /** For each operation how the first binding that has it binds it, or null. */
    private static List<BoundOperation> bound(PortType portType, List<Binding> bindings) {
        List<BoundOperation> first =
                new ArrayList<>(Collections.nCopies(portType.operations().size(), null));
        for (Binding binding : bindings) {
            List<BoundOperation> all = binding.bound(portType);
            for (int i = 0; i < all.size(); i++) {
                if (first.get(i) == null) {
                    first.set(i, all.get(i));
                }
            }
        }
        return first;
    }

    private Message message(Operation.Use use) {
        return contract.wsdl().messages().get(use.message());
    }

    private SketchOperation operation(Operation operation, Style style, BoundOperation bound) {
        if (!operation.isIncoming()) {
            unsaid(operation.place(), "operations that begin with a message that goes out: " + operation.name());
            return null;
        }
        Content in = content(operation, operation.input(), operation.name(), style);
        Content out = operation.output() == null
                ? null
                : content(operation, operation.output(), operation.name() + "Response", style);
        if (in == null || operation.output() != null && out == null) {
            unsaid(
                    operation.place(),
                    "the messages of " + operation.name()
                            + ", which are of more than one part, or not of the usual form");
            return null;
        }
        tellOfUse(operation.input());
        if (operation.output() != null) {
            tellOfUse(operation.output());
        }
        Map<String, String> faults = new LinkedHashMap<>();
        for (Operation.Use use : operation.faults()) {
            tellOfUse(use);
            QName element = element(use);
            if (element == null) {
                unsaid(use.place(), "the fault " + use.name() + ", which is not one element");
            } else {
                faults.put(use.name(), schemas.named(element));
            }
        }
        if (!operation.parameterOrder().isEmpty()) {
            unsaid(operation.place(), "the order of parameters of " + operation.name());
        }
        if (bound != null
                && bound.rpc()
                && bound.input() != null
                && !namespace.equals(bound.input().namespace())) {
            unsaid(
                    bound.place(),
                    "another namespace of calls of " + operation.name() + ": "
                            + bound.input().namespace());
        }
        return new SketchOperation(
                operation.name(),
                in,
                out,
                faults,
                bound == null ? List.of() : headers(bound.input(), operation),
                bound == null ? List.of() : headers(bound.output(), operation),
                action(bound, operation),
                SchemaSketcher.said(operation.documentation()),
                null);
    }

    private void tellOfUse(Operation.Use use) {
        undocumented(use.documentation(), use.place(), "a message of an operation");
        Message message = message(use);
        if (message != null) {
            undocumented(
                    message.documentation(),
                    message.place(),
                    "the message " + message.name().getLocalPart());
        }
        if (use.action() != null) {
            unsaid(use.place(), "by which action a message is addressed: " + use.action());
        }
    }

    private String action(BoundOperation bound, Operation operation) {
        String action = bound == null ? null : bound.soapAction();
        return action == null || action.equals(WsdlParts.usualAction(namespace, operation.name())) ? null : action;
    }

    private QName element(Operation.Use use) {
        Message message = message(use);
        return message == null || message.parts().size() != 1
                ? null
                : message.parts().get(0).element();
    }

    private Content content(Operation operation, Operation.Use use, String wrapper, Style style) {
        Message message = message(use);
        if (message == null) {
            return null;
        }
        if (style == Style.RPC) {
            List<SketchMember> parts = new ArrayList<>();
            for (Message.Part part : message.parts()) {
                if (part.type() == null) {
                    return null;
                }
                parts.add(new SketchMember.Named(
                        part.name(), false, TypeTerm.of(schemas.named(part.type())), null, null));
            }
            return new Content(null, parts);
        }
        QName element = element(use);
        ElementDeclaration declared =
                element == null ? null : contract.schema().elements().get(element);
        if (declared == null) {
            return null;
        }
        boolean own = element.equals(new QName(namespace, wrapper));
        List<SketchMember> members = own ? schemas.wrapped(declared) : null;
        if (members != null) {
            wrappers.add(element);
            return new Content(null, members);
        }
        return new Content(schemas.named(element), List.of());
    }

    private List<String> headers(BoundOperation.Carrier carrier, Operation operation) {
        List<String> headers = new ArrayList<>();
        if (carrier == null) {
            return headers;
        }
        if (!carrier.attachments().isEmpty()) {
            unsaid(carrier.place(), "the attachments of " + operation.name());
        }
        for (BoundOperation.Header header : carrier.headers()) {
            Message message = contract.wsdl().messages().get(header.message());
            Message.Part part = message == null ? null : message.part(header.part());
            if (part == null || part.element() == null) {
                unsaid(header.place(), "a header that is no element, of " + operation.name());
            } else {
                headers.add(schemas.named(part.element()));
            }
        }
        return headers;
    }

    private Service service(List<Binding> bindings) {
        Service found = null;
        for (Service one : contract.wsdl().services().values()) {
            boolean offers = one.ports().stream().anyMatch(port -> bindings.stream()
                    .anyMatch(binding -> binding.name().equals(port.binding())));
            if (offers && found == null) {
                found = one;
            } else if (!one.ports().isEmpty()) {
                unsaid(one.place(), "a second service: " + one.name().getLocalPart());
            }
        }
        return found;
    }

    private List<SketchPort> ports(Service service, List<Binding> bindings) {
        List<SketchPort> ports = new ArrayList<>();
        if (service == null) {
            return ports;
        }
        undocumented(
                service.documentation(),
                service.place(),
                "the service " + service.name().getLocalPart());
        for (Service.Port port : service.ports()) {
            undocumented(port.documentation(), port.place(), "the port " + port.name());
            Binding binding = bindings.stream()
                    .filter(one -> one.name().equals(port.binding()))
                    .findFirst()
                    .orElse(null);
            if (binding == null) {
                unsaid(port.place(), "the port " + port.name() + ", which is not one of SOAP, or of another port type");
            } else {
                if (!port.policy().isEmpty()) {
                    unsaid(port.place(), "the policies of the port " + port.name());
                }
                ports.add(new SketchPort(port.name(), SketchProtocol.of(binding.protocol()), port.address(), null));
            }
        }
        return ports;
    }
}
