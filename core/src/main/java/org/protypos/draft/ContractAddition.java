package org.protypos.draft;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.authoring.DocumentEdit;
import org.protypos.authoring.Markup;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Setting;
import org.protypos.draft.Sketch.SketchOperation;
import org.protypos.draft.Sketch.SketchProtocol;
import org.protypos.draft.Sketch.Style;
import org.protypos.draft.WsdlParts.DraftMessage;
import org.protypos.draft.WsdlParts.DraftOperation;
import org.protypos.draft.WsdlParts.Part;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;
import org.protypos.source.XmlText;
import org.protypos.wsdl.Binding;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** Adds to the text of a contract: an operation, or a binding with its service and port. */
public final class ContractAddition {
    private static final Pattern SIGNATURE = Pattern.compile(
            "\\s*(" + XmlText.NAME + ")\\s*\\((.*?)\\)\\s*(?:->\\s*(.*?))?\\s*"
                    + "((?:;\\s*(?:faults|headers|answerHeaders)\\s[^;]*)*)",
            Pattern.DOTALL);
    private static final Pattern MORE = Pattern.compile(";\\s*(\\w+)\\s([^;]*)");
    private static final String TNS = "tns";

    private final Contract contract;
    private final Findings findings;
    private final Map<Document, DocumentEdit> edits = new LinkedHashMap<>();
    private final Set<String> added = new LinkedHashSet<>();

    /** The messages of faults and headers that have been added, by their names. */
    private final Map<String, DraftMessage> carrying = new LinkedHashMap<>();

    /**
     * Begins.
     *
     * @param contract a sound contract
     * @param findings is told what cannot be
     */
    public ContractAddition(Contract contract, Findings findings) {
        this.contract = contract;
        this.findings = findings;
    }

    private void wrong(String message, String cure) {
        findings.error("addition", null, message, cure);
    }

    /** The bytes of the documents that have changed; empty when something cannot be. */
    public Map<Document, byte[]> changed() {
        Map<Document, byte[]> changed = new LinkedHashMap<>();
        edits.forEach((document, edit) -> {
            byte[] bytes = edit.bytes();
            if (bytes == null) {
                wrong(
                        document.name() + " is in an encoding that cannot say that, or that is not known",
                        "write it in UTF-8 first");
            } else {
                changed.put(document, bytes);
            }
        });
        return findings.hasErrors() ? Map.of() : changed;
    }

    private DocumentEdit edit(Element element) {
        return edits.computeIfAbsent(element.document(), DocumentEdit::new);
    }

    /** The element of a document that declares something of WSDL, or null. */
    private Element declared(String tag, QName name) {
        for (Document document : contract.documents().all()) {
            Element root = document.root();
            if (root != null
                    && root.is(Xml.WSDL, "definitions")
                    && name.getNamespaceURI().equals(stripped(root.attribute("targetNamespace")))) {
                for (Element child : root.children(Xml.WSDL, tag)) {
                    if (name.getLocalPart().equals(stripped(child.attribute("name")))) {
                        return child;
                    }
                }
            }
        }
        return null;
    }

    private static String stripped(String text) {
        return text == null ? "" : text.strip();
    }

    /**
     * Adds an operation.
     *
     * @param signature {@code readTide(gauge: string, at: dateTime?) -> height: decimal}; without an arrow it is one-way, with
     *     nothing behind it the answer is empty; {@code ; faults noGauge; headers keeper} behind it names elements of the contract
     * @param on the local name of the port type, or null when there is only one
     */
    public void operation(String signature, String on) {
        Matcher form = SIGNATURE.matcher(signature);
        if (!form.matches()) {
            wrong(
                    "\"" + signature + "\" says no operation",
                    "write it like readTide(gauge: string, at: dateTime?) -> height: decimal");
            return;
        }
        String name = form.group(1);
        PortType portType = portType(on);
        if (portType == null) {
            return;
        }
        boolean taken =
                portType.operations().stream().anyMatch(one -> one.name().equals(name)) || !added.add(name);
        if (taken) {
            wrong("there is an operation " + name + " already", "call it otherwise");
            return;
        }
        List<Binding> bindings = contract.wsdl().bindings().values().stream()
                .filter(binding -> binding.portType().equals(portType.name()))
                .toList();
        Style style = style(portType, bindings);
        if (style == null) {
            return;
        }
        SketchReader reader = SketchReader.of(findings);
        Sketch.Content in = new Sketch.Content(null, reader.line(form.group(2), null));
        Sketch.Content out = form.group(3) == null ? null : new Sketch.Content(null, reader.line(form.group(3), null));
        Map<String, List<String>> more = more(form.group(4));
        Map<String, String> faults = new LinkedHashMap<>();
        more.getOrDefault("faults", List.of()).forEach(element -> faults.put(SketchReader.capital(element), element));
        SketchOperation said = new SketchOperation(
                name,
                in,
                out,
                faults,
                more.getOrDefault("headers", List.of()),
                more.getOrDefault("answerHeaders", List.of()),
                null,
                null,
                null);
        if (out == null && !(faults.isEmpty() && said.answerHeaders().isEmpty())) {
            wrong(
                    name + " gives no answer, so that nothing can come with it",
                    "write -> for an answer without content");
        }
        if (!findings.hasErrors()) {
            add(said, portType, bindings, style);
        }
    }

    /** The names of elements behind each word. */
    private static Map<String, List<String>> more(String text) {
        Map<String, List<String>> more = new LinkedHashMap<>();
        Matcher one = MORE.matcher(text);
        while (one.find()) {
            for (String name : one.group(2).split(",")) {
                if (!name.isBlank()) {
                    more.computeIfAbsent(one.group(1), none -> new ArrayList<>())
                            .add(name.strip());
                }
            }
        }
        return more;
    }

    /**
     * Adds a binding with a service and a port to each port type that has none.
     *
     * @param port the name of the port, or null for the usual one
     */
    public void bind(SketchProtocol protocol, Style style, String address, String port) {
        List<PortType> unbound = contract.wsdl().portTypes().values().stream()
                .filter(one -> contract.wsdl().bindings().values().stream()
                        .noneMatch(binding -> binding.portType().equals(one.name())))
                .toList();
        if (unbound.isEmpty()) {
            wrong("every port type has a binding", "there is nothing to add");
        }
        if (unbound.size() > 1 && port != null) {
            wrong(
                    "several port types have no binding, and there is one name for a port",
                    "leave " + Setting.PORT + " out");
        }
        unbound.forEach(portType -> bind(portType, protocol, style, address, port));
    }

    private void bind(PortType portType, SketchProtocol protocol, Style style, String address, String port) {
        List<DraftOperation> operations = new ArrayList<>();
        for (Operation operation : portType.operations()) {
            DraftOperation bindable = bindable(operation, style);
            if (bindable != null) {
                operations.add(bindable);
            }
        }
        String name = portType.name().getLocalPart();
        QName binding = new QName(portType.name().getNamespaceURI(), name + protocol.suffix());
        QName service = new QName(binding.getNamespaceURI(), name + "Service");
        if (contract.wsdl().bindings().containsKey(binding)
                || contract.wsdl().services().containsKey(service)) {
            wrong(
                    "there is a binding " + binding.getLocalPart() + " or a service " + service.getLocalPart()
                            + " already",
                    "call it otherwise first");
        }
        if (findings.hasErrors()) {
            return;
        }
        Element root = declared("portType", portType.name()).document().root();
        Map<String, String> wanted = new LinkedHashMap<>();
        wanted.put(binding.getNamespaceURI(), TNS);
        wanted.put(protocol.namespace(), protocol.prefix());
        Speech speech = new Speech(root, wanted);
        WsdlParts parts = new WsdlParts(style, binding.getNamespaceURI(), speech.all());
        String soap = speech.prefixes.get(protocol.namespace());
        Markup bound = Markup.fragment();
        parts.binding(bound, binding.getLocalPart(), portType.name(), soap, operations, protocol);
        Markup offered = Markup.fragment();
        parts.service(offered, service.getLocalPart(), port == null ? name + "Port" : port, binding, soap, address);
        edit(root).append(root, "\n" + speech.said(bound.toString()) + "\n" + speech.said(offered.toString()));
    }

    /** An operation as a binding needs it; told, and null, where it does not go with the style. */
    private DraftOperation bindable(Operation operation, Style style) {
        if (!operation.isIncoming()) {
            wrong(
                    operation.name() + " begins with a message that goes out, which no binding carries",
                    "take it out of the port type");
            return null;
        }
        for (Operation.Use use : operation.output() == null
                ? List.of(operation.input())
                : List.of(operation.input(), operation.output())) {
            Message message = contract.wsdl().messages().get(use.message());
            List<Message.Part> parts = message == null ? List.of() : message.parts();
            boolean fits = style == Style.RPC
                    ? parts.stream().allMatch(part -> part.type() != null)
                    : parts.size() <= 1 && parts.stream().allMatch(part -> part.element() != null);
            if (!fits) {
                wrong(
                        "the message " + use.message().getLocalPart() + " of " + operation.name()
                                + " does not go with style "
                                + (style == Style.RPC
                                        ? "rpc: its parts are elements"
                                        : "document: it is not one element"),
                        style == Style.RPC
                                ? "take " + Setting.STYLE + " document"
                                : "take " + Setting.STYLE + " rpc, or make it one element");
                return null;
            }
        }
        Map<String, DraftMessage> faults = new LinkedHashMap<>();
        operation.faults().forEach(use -> faults.put(use.name(), null));
        SketchOperation said = new SketchOperation(
                operation.name(),
                new Sketch.Content(null, List.of()),
                null,
                Map.of(),
                List.of(),
                List.of(),
                null,
                null,
                null);
        DraftMessage none = new DraftMessage("", List.of());
        return new DraftOperation(said, none, operation.output() == null ? null : none, faults, List.of(), List.of());
    }

    private PortType portType(String on) {
        List<PortType> all = contract.wsdl().portTypes().values().stream()
                .filter(one -> on == null || one.name().getLocalPart().equals(on))
                .toList();
        if (all.size() != 1) {
            String names = String.join(
                    ", ",
                    contract.wsdl().portTypes().keySet().stream()
                            .map(QName::getLocalPart)
                            .toList());
            wrong(
                    all.isEmpty()
                            ? "there is no port type" + (on == null ? "" : " " + on)
                            : "there are several port types: " + names,
                    names.isEmpty()
                            ? "draft a contract first"
                            : "say which: " + Setting.ON + " " + names.split(", ")[0]);
            return null;
        }
        return all.get(0);
    }

    private Style style(PortType portType, List<Binding> bindings) {
        Set<Boolean> rpc = new LinkedHashSet<>();
        for (Binding binding : bindings) {
            if (!binding.protocol().isSoap()) {
                wrong(
                        "the binding " + binding.name().getLocalPart() + " is none of SOAP",
                        "add the operation by hand, or take that binding out first");
                return null;
            }
            binding.operations().forEach(operation -> rpc.add(operation.rpc()));
            boolean encoded = binding.operations().stream()
                    .anyMatch(operation ->
                            operation.input() != null && operation.input().encoded());
            if (encoded) {
                wrong(
                        "the binding " + binding.name().getLocalPart() + " encodes its messages",
                        "add the operation by hand");
                return null;
            }
        }
        if (rpc.size() > 1) {
            wrong("there are operations of both styles, rpc and document", "make two port types of them first");
            return null;
        }
        if (!rpc.isEmpty()) {
            return rpc.contains(true) ? Style.RPC : Style.DOCUMENT;
        }
        return portType.operations().stream().anyMatch(operation -> areTyped(operation.input()))
                ? Style.RPC
                : Style.DOCUMENT;
    }

    private boolean areTyped(Operation.Use use) {
        Message message = use == null ? null : contract.wsdl().messages().get(use.message());
        return message != null && message.parts().stream().anyMatch(part -> part.type() != null);
    }

    private void add(SketchOperation said, PortType portType, List<Binding> bindings, Style style) {
        String namespace = portType.name().getNamespaceURI();
        Element type = declared("portType", portType.name());
        Element root = type.document().root();
        Map<String, String> wanted = new LinkedHashMap<>();
        wanted.put(namespace, TNS);
        wanted.put(Xml.XSD, "xs");
        AddedTypes types = new AddedTypes(contract, namespace, this::wrong, this::edit);
        DraftMessage input = message(said.name() + "Input", said.in(), said.name(), "parameters", style, types);
        DraftMessage output = said.out() == null
                ? null
                : message(said.name() + "Output", said.out(), said.name() + "Response", "result", style, types);
        if (style == Style.DOCUMENT) {
            types.elements(said);
        }
        if (findings.hasErrors()) {
            return;
        }
        List<DraftMessage> written = new ArrayList<>(output == null ? List.of(input) : List.of(input, output));
        Map<String, DraftMessage> faults = new LinkedHashMap<>();
        said.faults().forEach((name, element) -> faults.put(name, carrying(name, "fault", element, types, written)));
        DraftOperation drafted = new DraftOperation(
                said,
                input,
                output,
                faults,
                said.headers().stream()
                        .map(element -> header(element, types, written))
                        .toList(),
                said.answerHeaders().stream()
                        .map(element -> header(element, types, written))
                        .toList());
        if (findings.hasErrors()) {
            return;
        }
        written.stream()
                .flatMap(message -> message.parts().stream())
                .map(part -> part.element() == null ? part.type() : part.element())
                .map(QName::getNamespaceURI)
                .forEach(other -> wanted.putIfAbsent(other, "n" + wanted.size()));
        Speech atRoot = new Speech(root, wanted);
        List<Element> others = root.children(Xml.WSDL, "message");
        StringBuilder messages = new StringBuilder();
        for (DraftMessage one : written) {
            Markup message = Markup.fragment();
            new WsdlParts(style, namespace, atRoot.all()).message(message, one);
            messages.append(atRoot.said(message.toString()));
        }
        if (others.isEmpty()) {
            edit(root).before(type, messages.toString());
        } else {
            edit(root).after(others.get(others.size() - 1), messages.toString());
        }
        Markup operation = Markup.fragment();
        Speech inType = new Speech(type, Map.of(namespace, TNS));
        new WsdlParts(style, namespace, inType.all()).operation(operation, drafted, true);
        edit(type).append(type, inType.said(operation.toString()));
        for (Binding binding : bindings) {
            Element bound = declared("binding", binding.name());
            SketchProtocol protocol = SketchProtocol.of(binding.protocol());
            Map<String, String> spoken = new LinkedHashMap<>(Map.of(protocol.namespace(), protocol.prefix()));
            if (!drafted.headers().isEmpty() || !drafted.answerHeaders().isEmpty()) {
                spoken.put(namespace, TNS);
            }
            Speech inBinding = new Speech(bound, spoken);
            Markup lines = Markup.fragment();
            new WsdlParts(style, namespace, inBinding.all())
                    .bound(lines, drafted, protocol, inBinding.prefixes.get(protocol.namespace()));
            edit(bound).append(bound, inBinding.said(lines.toString()));
        }
    }

    private DraftMessage header(String element, AddedTypes types, List<DraftMessage> written) {
        return carrying(SketchReader.capital(element) + "Header", element, element, types, written);
    }

    /** A message that is an element: one that the contract has, or a new one. */
    private DraftMessage carrying(
            String name, String part, String local, AddedTypes types, List<DraftMessage> written) {
        QName element = types.element(local);
        for (Message message : contract.wsdl().messages().values()) {
            List<Message.Part> parts = message.parts();
            if (message.name().getNamespaceURI().equals(types.namespace())
                    && parts.size() == 1
                    && !isExchanged(message.name())
                    && element.equals(parts.get(0).element())) {
                return new DraftMessage(
                        message.name().getLocalPart(),
                        List.of(new Part(parts.get(0).name(), element, null)));
            }
        }
        List<Part> parts = List.of(new Part(part, element, null));
        String free = name;
        for (int i = 2; isTaken(new QName(types.namespace(), free), parts); i++) {
            free = name + i;
        }
        return carrying.computeIfAbsent(free, called -> {
            DraftMessage message = new DraftMessage(called, parts);
            written.add(message);
            return message;
        });
    }

    /** Whether an operation takes or gives a message: then it is not one of a fault or a header. */
    private boolean isExchanged(QName message) {
        return contract.wsdl().portTypes().values().stream()
                .flatMap(portType -> portType.operations().stream())
                .flatMap(operation -> Stream.of(operation.input(), operation.output()))
                .anyMatch(use -> use != null && use.message().equals(message));
    }

    private boolean isTaken(QName message, List<Part> parts) {
        DraftMessage added = carrying.get(message.getLocalPart());
        return contract.wsdl().messages().containsKey(message)
                || added != null && !added.parts().equals(parts);
    }

    private DraftMessage message(
            String name, Sketch.Content content, String wrapper, String part, Style style, AddedTypes types) {
        String namespace = types.namespace();
        if (contract.wsdl().messages().containsKey(new QName(namespace, name))) {
            wrong("there is a message " + name + " already", "call the operation otherwise");
        }
        if (style == Style.DOCUMENT) {
            return new DraftMessage(name, List.of(new Part(part, new QName(namespace, wrapper), null)));
        }
        List<Part> parts = new ArrayList<>();
        for (SketchMember member : content.members()) {
            SketchMember.Named named = (SketchMember.Named) member;
            if (!TypeTerm.of(named.term().type()).equals(named.term())) {
                wrong(
                        "the operations here are of style rpc: a part is of a type that has a name, and there once; "
                                + named.name() + " is " + named.term(),
                        "write the name of a type alone");
            } else {
                parts.add(new Part(named.name(), null, types.named(named.term().type())));
            }
        }
        return new DraftMessage(name, parts);
    }
}
