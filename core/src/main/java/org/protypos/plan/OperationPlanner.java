package org.protypos.plan;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.binding.Designators;
import org.protypos.binding.Shaping;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.wire.Recognition;
import org.protypos.wire.WireFault;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** Turns an operation, as its binding carries it, into a method. */
final class OperationPlanner {
    /** Nobody reads longer parameter lists, and some platforms refuse them. */
    private static final int MOST_PARAMETERS = 64;

    private static final Set<String> NO_NAMES =
            Set.of("body", "parameter", "parameters", "part", "in", "input", "request", "message", "payload", "p");

    private final Contract contract;
    private final PackageNames packages;
    private final Naming naming;
    private final NameRules rules;
    private final TypePlanner types;
    private final PartsPlanner parts;
    private final Findings findings;
    private final Map<QName, ValueType> callElements = new LinkedHashMap<>();
    private final Map<QName, ApiFault> faults = new LinkedHashMap<>();

    OperationPlanner(Contract contract, PackageNames packages, Naming naming, TypePlanner types, Findings findings) {
        this.contract = contract;
        this.packages = packages;
        this.naming = naming;
        this.rules = naming.rules();
        this.types = types;
        this.parts = new PartsPlanner(types, rules);
        this.findings = findings;
    }

    Map<QName, ValueType> callElements() {
        return callElements;
    }

    List<ApiFault> faults() {
        return List.copyOf(faults.values());
    }

    /**
     * Plans an operation, or reports why there is no code for it and gives null.
     *
     * @param portType the port type it belongs to
     * @param carried how the binding of the default port carries it
     * @param recognition how a server knows its requests
     */
    ApiOperation plan(PortType portType, WireOperation carried, Recognition recognition, NameScope methods) {
        Operation operation = carried.operation();
        BoundOperation bound = carried.bound();
        if (hasStructuredFields(carried.request())) {
            leaveOut(operation.name(), bound.place(), "has a part with structure, which no query or form can carry");
            return null;
        }
        Subject subject = Designators.operation(portType, operation);
        String method = methods.claim(subject, rules.methodName(operation.name()), "");
        String type = rules.typeName(method);
        ApiMessage input;
        ApiMessage output = null;
        Planned in = new Planned(operation, carried.request(), type + "Input");
        Planned out = new Planned(operation, carried.answer(), type + "Output");
        input = message(in, operation.name());
        if (carried.answer() != null) {
            output = message(out, outputWrapper(input));
        }
        Shaping.Choice<Boolean> plain = types.shapes().plainParameters(subject);
        if (plain != null && !plain.value()) {
            input = input.whole();
            output = output == null ? null : output.whole();
        } else if (plain != null && input.wrapper() == null && input.body() != null) {
            types.shapes().notPlain(plain, subject);
        }
        List<ApiFault> declared = new ArrayList<>();
        List<String> faultActions = new ArrayList<>();
        faults(carried, declared, faultActions);
        return new ApiOperation(
                method,
                types.shapes().isAsync(subject) ? methods.make(method + "Async", "") : null,
                operation.name(),
                parameters(subject, input),
                input,
                output,
                output != null && output.values().size() > 1 ? resultName(portType, type) : null,
                List.copyOf(declared),
                bound.soapAction(),
                recognition,
                bound.location(),
                bound.policy(),
                List.copyOf(faultActions),
                types.shapes().documentation(subject, operation.documentation()));
    }

    private String resultName(PortType portType, String operation) {
        String wanted = operation + "Result";
        return rules.nestsInInterfaces()
                ? wanted
                : packages.scope(packages.of(portType.name().getNamespaceURI())).make(wanted, "");
    }

    /** An answer is taken apart when the request is, whatever its element is called; an empty name stands for none. */
    private static String outputWrapper(ApiMessage input) {
        boolean unwrapped = input.wrapper() != null
                && input.form() != WireMessage.Form.FIELDS
                && input.form() != WireMessage.Form.REPLACED
                && input.body().kind() == Property.Kind.ELEMENT;
        return unwrapped ? null : "";
    }

    /** A message with what to call it. */
    private record Planned(Operation operation, WireMessage carried, String name) {}

    private void leaveOut(String operation, Place place, String reason) {
        findings.warning(
                "not-generated",
                place.towards("name"),
                "the operation " + operation + " " + reason,
                "it is left out; the other operations are generated");
    }

    private boolean hasStructuredFields(WireMessage request) {
        boolean fields = request.form() == WireMessage.Form.FIELDS || request.form() == WireMessage.Form.REPLACED;
        return fields && request.parts().stream().anyMatch(part -> !isSimple(part.type()));
    }

    private boolean isSimple(TypeReference type) {
        return !SchemaComponents.ANY_TYPE.equals(type.name())
                && contract.schema().resolve(type) instanceof SimpleType;
    }

    /**
     * Plans a message.
     *
     * @param wrapperName the local name that the body's element must have to be taken for a wrapper; null for any, empty
     *     for none
     */
    private ApiMessage message(Planned message, String wrapperName) {
        return !message.carried.isSoap()
                ? http(message, wrapperName)
                : message.carried.isWrapped() ? call(message) : document(message, wrapperName);
    }

    private ApiMessage document(Planned message, String wrapperName) {
        WireMessage carried = message.carried;
        List<WirePart> inBody = carried.parts();
        ApiClass content = carried.isOfType() ? bodyType(inBody.get(0)) : null;
        if (content != null) {
            return envelope(message, body(Property.Kind.GROUP, firstElement(content), content), null, false);
        }
        if (carried.isGroup()) {
            ApiClass together = parts.beside(
                    packageOf(carried), message.name() + "Parts", carried.message(), inBody, carried.isEncoded());
            inBody.stream()
                    .filter(part -> !part.isGlobal() && !carried.isEncoded())
                    .forEach(this::ofType);
            return envelope(message, body(Property.Kind.GROUP, firstElement(together), together), together, false);
        }
        Property body = inBody.isEmpty()
                ? null
                : part(inBody.get(0).element(), telling(inBody.get(0)), Property.Cardinality.REQUIRED, true);
        return envelope(message, body, wrapper(body, wrapperName), false);
    }

    private ApiMessage envelope(Planned message, Property body, ApiClass wrapper, boolean anyWrapper) {
        return new ApiMessage(
                message.name(),
                WireMessage.Form.ENVELOPE,
                body,
                wrapper,
                anyWrapper,
                message.carried.isEncoded(),
                message.carried.blocks().stream().map(this::block).toList(),
                message.carried.attachments().stream().map(this::attachment).toList(),
                message.carried.attachments().stream().map(WirePart::mediaType).toList(),
                message.carried.action());
    }

    /** The class of a type that the body itself is of (WSDL 1.1, section 3.5), or null when it holds no elements alone. */
    private ApiClass bodyType(WirePart part) {
        ValueType type = types.value(part.type(), Owner.global(part.part().type()));
        if (type instanceof ValueType.Structured structured) {
            ApiClass content = structured.type();
            return content.isAbstract() || content.isMixed() || content.isSimple() ? null : content;
        }
        return null;
    }

    private static QName firstElement(ApiClass content) {
        return content.elements().stream()
                .map(Property::xmlName)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(new QName(""));
    }

    private void ofType(WirePart part) {
        findings.warning(
                "part-of-type",
                part.part().place(),
                "the part " + part.name() + " of a document is of a type that no body can be of: it is taken for an"
                        + " element called " + part.name() + " in no namespace",
                "give the part an element instead");
    }

    /** A message of a remote procedure call: its parts in an element called like the operation. */
    private ApiMessage call(Planned message) {
        ApiClass wrapper = fields(message);
        Property body = body(Property.Kind.ELEMENT, message.carried.wrapper(), wrapper);
        callElements.putIfAbsent(body.xmlName(), body.type());
        return envelope(message, body, wrapper, message.carried.isAnswer());
    }

    private ApiClass fields(Planned message) {
        WireMessage carried = message.carried;
        return parts.call(
                packageOf(carried),
                message.name() + "Parts",
                carried.message(),
                carried.parts(),
                message.operation().parameterOrder(),
                carried.isEncoded());
    }

    /** A message without an envelope (WSDL 1.1, sections 4 and 5); its element may be a wrapper as in one with an envelope. */
    private ApiMessage http(Planned message, String wrapperName) {
        List<WirePart> inBody = message.carried.parts();
        WireMessage.Form form = message.carried.form();
        Property body = null;
        ApiClass wrapper = null;
        boolean anyName = false;
        List<Property> attachments = List.of();
        List<String> mediaTypes = List.of();
        if (form == WireMessage.Form.BYTES) {
            attachments = inBody.stream().limit(1).map(this::attachment).toList();
            mediaTypes = inBody.stream().limit(1).map(WirePart::mediaType).toList();
        } else if (form == WireMessage.Form.DOCUMENT
                && !inBody.isEmpty()
                && inBody.get(0).isGlobal()) {
            body = part(inBody.get(0).element(), telling(inBody.get(0)), Property.Cardinality.REQUIRED, false);
            wrapper = wrapper(body, wrapperName);
        } else if (form != WireMessage.Form.DOCUMENT) {
            wrapper = fields(message);
            body = body(Property.Kind.ELEMENT, message.carried.wrapper(), wrapper);
            anyName = true;
        } else if (!inBody.isEmpty()) {
            WirePart part = inBody.get(0);
            QName root = part.element();
            body = new Property(
                    rules.memberName(part.name()),
                    Property.Kind.ELEMENT,
                    root,
                    types.value(part.type(), Owner.global(root)),
                    Property.Cardinality.REQUIRED,
                    false,
                    null,
                    null,
                    "");
            anyName = true;
        }
        return new ApiMessage(
                message.name(), form, body, wrapper, anyName, false, List.of(), attachments, mediaTypes, null);
    }

    private Property attachment(WirePart part) {
        return new Property(
                rules.memberName(part.name()),
                Property.Kind.ELEMENT,
                new QName("", part.name()),
                new ValueType.Scalar(ScalarKind.ATTACHMENT),
                Property.Cardinality.OPTIONAL,
                false,
                null,
                null,
                "");
    }

    private String packageOf(WireMessage carried) {
        return packages.of(carried.message().name().getNamespaceURI());
    }

    private static Property body(Property.Kind kind, QName name, ApiClass type) {
        return new Property(
                "Body",
                kind,
                name,
                new ValueType.Structured(type),
                Property.Cardinality.REQUIRED,
                false,
                null,
                null,
                "");
    }

    private Property block(WirePart block) {
        return outside(block, block.element().getLocalPart(), Property.Cardinality.OPTIONAL);
    }

    /** A part that stands alone, in a header or in the detail of a fault. */
    private Property outside(WirePart part, String name, Property.Cardinality cardinality) {
        QName element = part.element();
        if (part.isGlobal()) {
            return part(element, name, cardinality, false);
        }
        ValueType value = types.value(part.type(), Owner.global(element)).written();
        callElements.putIfAbsent(element, value);
        return new Property(
                rules.memberName(name), Property.Kind.ELEMENT, element, value, cardinality, false, null, null, "");
    }

    /** Many parts are called what every part could be called; then the element has the better name. */
    private static String telling(WirePart part) {
        return NO_NAMES.contains(part.name().toLowerCase(Locale.ROOT))
                ? part.element().getLocalPart()
                : part.name();
    }

    private Property part(QName element, String name, Property.Cardinality cardinality, boolean inBody) {
        ElementDeclaration declared = contract.schema().elements().get(element);
        return new Property(
                rules.memberName(name),
                Property.Kind.ELEMENT,
                element,
                inBody
                        ? types.elementValue(declared, Subject.element(element, null), Owner.global(element))
                        : types.value(contract.schema().typeOf(declared), Owner.global(element))
                                .written(),
                cardinality,
                declared.nillable(),
                null,
                null,
                declared.documentation());
    }

    /**
     * The class whose members are the parameters: that of an element named like the operation which holds nothing but a
     * plain sequence of elements.
     */
    private static ApiClass wrapper(Property body, String wrapperName) {
        if (body == null
                || wrapperName != null && !body.xmlName().getLocalPart().equals(wrapperName)
                || body.nillable()
                || !(body.type() instanceof ValueType.Structured structured)) {
            return null;
        }
        ApiClass type = structured.type();
        boolean plain = type.base() == null
                && !type.isAbstract()
                && !type.isMixed()
                && !type.isSimple()
                && !type.hasSubclasses()
                && type.attributes().isEmpty()
                && type.attributeWildcard() == null;
        return plain && type.elements().size() <= MOST_PARAMETERS && isPlainSequence(type.content()) ? type : null;
    }

    private static boolean isPlainSequence(Content content) {
        if (content == null) {
            return true;
        }
        return content instanceof Content.InSequence sequence
                && (!sequence.optional() || sequence.parts().isEmpty())
                && sequence.parts().stream()
                        .allMatch(part -> part instanceof Content.Leaf leaf
                                && leaf.property().kind() == Property.Kind.ELEMENT);
    }

    private List<String> parameters(Subject operation, ApiMessage input) {
        NameScope names = naming.scope(operation.designator(), rules.reservedParameters());
        names.expect(expected -> input.values()
                .forEach(value -> expected.wants(parameter(operation, value), parameterName(input, value))));
        List<String> parameters = new ArrayList<>();
        for (Property value : input.values()) {
            parameters.add(names.claim(parameter(operation, value), parameterName(input, value), ""));
        }
        return List.copyOf(parameters);
    }

    private static Subject parameter(Subject operation, Property value) {
        return operation.inside(Subject.Kind.PARAMETER, value.xmlName().getLocalPart(), operation.place());
    }

    private String parameterName(ApiMessage input, Property value) {
        return rules.parameterName(
                value == input.body() ? value.name() : value.xmlName().getLocalPart());
    }

    private void faults(WireOperation carried, List<ApiFault> declared, List<String> actions) {
        Set<QName> elements = new HashSet<>();
        for (WireFault one : carried.faults()) {
            ApiFault fault = faults.computeIfAbsent(one.message().name(), name -> fault(carried.operation(), one));
            if (fault != null && elements.add(fault.element())) {
                declared.add(fault);
                if (one.action() != null) {
                    actions.add(one.action());
                }
            }
        }
    }

    private ApiFault fault(Operation operation, WireFault fault) {
        Message message = fault.message();
        Operation.Use use = fault.use();
        if (message.parts().size() != 1) {
            findings.warning(
                    "not-generated",
                    use.place(),
                    "the fault "
                            + Objects.requireNonNullElse(
                                    use.name(), message.name().getLocalPart()) + " of " + operation.name()
                            + " is not made of one part, for which no exception is generated yet",
                    "it arrives as an undeclared fault");
            return null;
        }
        String packageName = packages.of(message.name().getNamespaceURI());
        String local = message.name().getLocalPart().replaceFirst("(?<=.)(Message|Msg)$", "");
        String wanted = rules.exceptionName(local);
        Property detail = outside(fault.details().get(0), "detail", Property.Cardinality.REQUIRED);
        return new ApiFault(
                packageName,
                packages.scope(packageName)
                        .claim(Subject.wsdl(Subject.Kind.FAULT, message.name(), message.place()), wanted, "Exception"),
                detail.xmlName(),
                detail,
                message.documentation());
    }
}
