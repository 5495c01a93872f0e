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
     * @param bound how the binding of the default port carries it
     * @param soapActions the SOAP actions of all bindings
     * @param addressed whether a policy asks for addressing
     */
    ApiOperation plan(
            PortType portType,
            Operation operation,
            BoundOperation bound,
            List<String> soapActions,
            boolean addressed,
            NameScope methods) {
        if (bound.location() != null && hasStructuredFields(operation, bound)) {
            leaveOut(operation.name(), bound.place(), "has a part with structure, which no query or form can carry");
            return null;
        }
        Actions actions = new Actions(portType, operation, bound, addressed);
        Subject subject = Designators.operation(portType, operation);
        String method = methods.claim(subject, rules.methodName(operation.name()), "");
        String type = rules.typeName(method);
        ApiMessage input;
        ApiMessage output = null;
        Carried in = new Carried(operation, operation.input(), bound.input(), type + "Input", actions.input());
        Carried out = new Carried(operation, operation.output(), bound.output(), type + "Output", actions.output());
        if (bound.location() != null) {
            input = http(in, operation.name());
            output = operation.output() == null ? null : http(out, outputWrapper(input));
        } else if (bound.rpc()) {
            input = call(in, operation.name());
            output = operation.output() == null ? null : call(out, operation.name() + "Response");
        } else {
            input = message(in, operation.name());
            output = operation.output() == null ? null : message(out, outputWrapper(input));
        }
        Shaping.Choice<Boolean> plain = types.shapes().plainParameters(subject);
        if (plain != null && !plain.value()) {
            input = input.whole();
            output = output == null ? null : output.whole();
        } else if (plain != null && input.wrapper() == null && input.body() != null) {
            types.shapes().notPlain(plain.place(), subject);
        }
        List<ApiFault> declared = new ArrayList<>();
        List<String> faultActions = new ArrayList<>();
        faults(operation, bound, actions, declared, faultActions);
        return new ApiOperation(
                method,
                types.shapes().isAsync(subject) ? methods.make(method + "Async", "") : null,
                operation.name(),
                parameters(subject, input),
                input,
                output,
                output != null && output.values().size() > 1 ? type + "Result" : null,
                List.copyOf(declared),
                bound.soapAction(),
                soapActions,
                bound.location(),
                bound.policy(),
                List.copyOf(faultActions),
                types.shapes().documentation(subject, operation.documentation()));
    }

    /** An answer is taken apart when the request is, whatever its element is called; an empty name stands for none. */
    private static String outputWrapper(ApiMessage input) {
        boolean unwrapped = input.wrapper() != null
                && input.form() != ApiMessage.Form.FIELDS
                && input.form() != ApiMessage.Form.REPLACED
                && input.body().kind() == Property.Kind.ELEMENT;
        return unwrapped ? null : "";
    }

    /** A message with all that says how to plan it. */
    private record Carried(
            Operation operation, Operation.Use use, BoundOperation.Carrier carrier, String name, String action) {
        boolean isEncoded() {
            return carrier != null && carrier.encoded();
        }
    }

    private void leaveOut(String operation, Place place, String reason) {
        findings.warning(
                "not-generated",
                place.towards("name"),
                "the operation " + operation + " " + reason,
                "it is left out; the other operations are generated");
    }

    private boolean hasStructuredFields(Operation operation, BoundOperation bound) {
        BoundOperation.Form form = bound.input() == null ? null : bound.input().form();
        return (form == BoundOperation.Form.URL_ENCODED || form == BoundOperation.Form.URL_REPLACEMENT)
                && bodyParts(operation.input(), bound.input()).stream().anyMatch(part -> !isSimple(part));
    }

    private boolean isSimple(Message.Part part) {
        TypeReference type = part.type() != null
                ? TypeReference.to(part.type(), part.place())
                : contract.schema().typeOf(contract.schema().elements().get(part.element()));
        return !SchemaComponents.ANY_TYPE.equals(type.name())
                && contract.schema().resolve(type) instanceof SimpleType;
    }

    private Message.Part headerPart(BoundOperation.Header header) {
        return contract.wsdl().messages().get(header.message()).part(header.part());
    }

    private Message declared(Carried message) {
        return contract.wsdl().messages().get(message.use().message());
    }

    private List<Message.Part> bodyParts(Operation.Use use, BoundOperation.Carrier carrier) {
        return BoundOperation.bodyParts(contract.wsdl().messages().get(use.message()), carrier);
    }

    /**
     * Plans a message.
     *
     * @param wrapperName the local name that the body's element must have to be taken for a wrapper; null for any, empty
     *     for none
     */
    private ApiMessage message(Carried message, String wrapperName) {
        List<Message.Part> inBody = bodyParts(message.use(), message.carrier());
        if (inBody.size() == 1 && inBody.get(0).type() != null && !message.isEncoded()) {
            ApiClass content = bodyType(inBody.get(0));
            if (content != null) {
                return envelope(message, body(Property.Kind.GROUP, firstElement(content), content), null, false);
            }
        }
        if (inBody.size() > 1 || !inBody.isEmpty() && inBody.get(0).type() != null) {
            String packageName = packageOf(message.use());
            ApiClass together =
                    parts.beside(packageName, message.name() + "Parts", declared(message), inBody, message.isEncoded());
            inBody.stream()
                    .filter(part -> part.type() != null && !message.isEncoded())
                    .forEach(this::ofType);
            return envelope(message, body(Property.Kind.GROUP, firstElement(together), together), together, false);
        }
        Property body = inBody.isEmpty()
                ? null
                : part(inBody.get(0).element(), telling(inBody.get(0)), Property.Cardinality.REQUIRED, true);
        return envelope(message, body, wrapper(body, wrapperName), false);
    }

    private ApiMessage envelope(Carried message, Property body, ApiClass wrapper, boolean anyWrapper) {
        return new ApiMessage(
                message.name(),
                ApiMessage.Form.ENVELOPE,
                body,
                wrapper,
                anyWrapper,
                message.isEncoded(),
                headers(message.carrier()),
                attachments(message),
                message.action());
    }

    /** The class of a type that the body itself is of (WSDL 1.1, section 3.5), or null when it holds no elements alone. */
    private ApiClass bodyType(Message.Part part) {
        ValueType type = types.value(TypeReference.to(part.type(), part.place()), Owner.global(part.type()));
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

    private void ofType(Message.Part part) {
        findings.warning(
                "part-of-type",
                part.place(),
                "the part " + part.name() + " of a document is of a type that no body can be of: it is taken for an"
                        + " element called " + part.name() + " in no namespace",
                "give the part an element instead");
    }

    /** A message of a remote procedure call: its parts in an element called like the operation. */
    private ApiMessage call(Carried message, String wrapperName) {
        ApiClass wrapper = fields(message);
        String namespace = message.carrier() == null ? "" : message.carrier().namespace();
        Property body = body(Property.Kind.ELEMENT, new QName(namespace, wrapperName), wrapper);
        callElements.putIfAbsent(body.xmlName(), body.type());
        return envelope(
                message, body, wrapper, message.use() == message.operation().output());
    }

    private ApiClass fields(Carried message) {
        return parts.call(
                packageOf(message.use()),
                message.name() + "Parts",
                declared(message),
                bodyParts(message.use(), message.carrier()),
                message.operation().parameterOrder(),
                message.isEncoded());
    }

    /** A message without an envelope (WSDL 1.1, sections 4 and 5); its element may be a wrapper as in one with an envelope. */
    private ApiMessage http(Carried message, String wrapperName) {
        List<Message.Part> inBody = bodyParts(message.use(), message.carrier());
        ApiMessage.Form form = form(message.carrier(), inBody);
        Property body = null;
        ApiClass wrapper = null;
        boolean anyName = false;
        List<Property> attachments = List.of();
        if (form == ApiMessage.Form.BYTES) {
            attachments = inBody.stream().limit(1).map(this::attachment).toList();
        } else if (form == ApiMessage.Form.DOCUMENT
                && !inBody.isEmpty()
                && inBody.get(0).element() != null) {
            body = part(inBody.get(0).element(), telling(inBody.get(0)), Property.Cardinality.REQUIRED, false);
            wrapper = wrapper(body, wrapperName);
        } else if (form != ApiMessage.Form.DOCUMENT) {
            wrapper = fields(message);
            body = body(Property.Kind.ELEMENT, new QName("", message.operation().name()), wrapper);
            anyName = true;
        } else if (!inBody.isEmpty()) {
            Message.Part part = inBody.get(0);
            QName root = new QName("", part.name());
            TypeReference type = TypeReference.to(part.type(), part.place());
            body = new Property(
                    rules.memberName(part.name()),
                    Property.Kind.ELEMENT,
                    root,
                    types.value(type, Owner.global(root)),
                    Property.Cardinality.REQUIRED,
                    false,
                    null,
                    null,
                    "");
            anyName = true;
        }
        return new ApiMessage(message.name(), form, body, wrapper, anyName, false, List.of(), attachments, null);
    }

    private ApiMessage.Form form(BoundOperation.Carrier carrier, List<Message.Part> inBody) {
        BoundOperation.Form bound = carrier == null ? BoundOperation.Form.XML : carrier.form();
        boolean text = inBody.size() == 1 && isSimple(inBody.get(0)) && !isBinary(inBody.get(0));
        return switch (bound) {
            case URL_ENCODED -> ApiMessage.Form.FIELDS;
            case URL_REPLACEMENT -> ApiMessage.Form.REPLACED;
            case CONTENT ->
                inBody.isEmpty() ? ApiMessage.Form.DOCUMENT : text ? ApiMessage.Form.TEXT : ApiMessage.Form.BYTES;
            case XML, ENVELOPE -> ApiMessage.Form.DOCUMENT;
        };
    }

    private boolean isBinary(Message.Part part) {
        return part.type() != null
                && types.value(TypeReference.to(part.type(), part.place()), Owner.global(part.type()))
                        instanceof ValueType.Scalar scalar
                && (scalar.kind() == ScalarKind.BASE64 || scalar.kind() == ScalarKind.HEX);
    }

    /** The parts that travel beside the envelope. */
    private List<Property> attachments(Carried message) {
        Message declared = declared(message);
        return message.carrier() == null
                ? List.of()
                : declared.parts().stream()
                        .filter(part -> message.carrier().attachments().contains(part.name()))
                        .map(this::attachment)
                        .toList();
    }

    private Property attachment(Message.Part part) {
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

    private String packageOf(Operation.Use use) {
        return packages.of(use.message().getNamespaceURI());
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

    private List<Property> headers(BoundOperation.Carrier carrier) {
        List<Property> headers = new ArrayList<>();
        if (carrier != null) {
            for (BoundOperation.Header header : carrier.headers()) {
                Message.Part part = headerPart(header);
                String name = part.element() != null ? part.element().getLocalPart() : part.name();
                headers.add(outside(part, header.namespace(), name, Property.Cardinality.OPTIONAL));
            }
        }
        return List.copyOf(headers);
    }

    /**
     * A part that stands alone, in a header or in the detail of a fault: its element, or one called like the part when it is
     * of a type (WSDL 1.1, sections 3.6 and 3.7).
     */
    private Property outside(Message.Part part, String namespace, String name, Property.Cardinality cardinality) {
        if (part.element() != null) {
            return part(part.element(), name, cardinality, false);
        }
        QName element = new QName(namespace, part.name());
        TypeReference type = TypeReference.to(part.type(), part.place());
        ValueType value = types.value(type, Owner.global(element)).written();
        callElements.putIfAbsent(element, value);
        return new Property(
                rules.memberName(name), Property.Kind.ELEMENT, element, value, cardinality, false, null, null, "");
    }

    /** Many parts are called what every part could be called; then the element has the better name. */
    private static String telling(Message.Part part) {
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

    private void faults(
            Operation operation, BoundOperation bound, Actions actions, List<ApiFault> declared, List<String> to) {
        Set<QName> elements = new HashSet<>();
        for (Operation.Use use : operation.faults()) {
            ApiFault fault = faults.computeIfAbsent(use.message(), name -> fault(operation, use, bound));
            if (fault != null && elements.add(fault.element())) {
                declared.add(fault);
                if (actions.fault(use) != null) {
                    to.add(actions.fault(use));
                }
            }
        }
    }

    private static String namespaceOf(Operation.Use fault, BoundOperation bound) {
        BoundOperation.BoundFault carried = bound.fault(fault);
        return carried == null ? "" : carried.namespace();
    }

    private ApiFault fault(Operation operation, Operation.Use use, BoundOperation bound) {
        Message message = contract.wsdl().messages().get(use.message());
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
        boolean telling = local.matches("(?i).*(fault|exception|error)");
        String wanted = rules.typeName(telling ? local : local + "Fault");
        Property detail =
                outside(message.parts().get(0), namespaceOf(use, bound), "detail", Property.Cardinality.REQUIRED);
        return new ApiFault(
                packageName,
                packages.scope(packageName)
                        .claim(Subject.wsdl(Subject.Kind.FAULT, message.name(), message.place()), wanted, "Exception"),
                detail.xmlName(),
                detail,
                message.documentation());
    }
}
