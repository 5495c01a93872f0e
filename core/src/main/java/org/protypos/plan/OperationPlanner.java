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
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.NameRules;
import org.protypos.naming.NameScope;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.TypeReference;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;

/** Turns an operation, as its binding carries it, into a method. */
final class OperationPlanner {
    /** Nobody reads longer parameter lists, and some platforms refuse them. */
    private static final int MOST_PARAMETERS = 64;

    private static final Set<String> NO_NAMES =
            Set.of("body", "parameter", "parameters", "part", "in", "input", "request", "message", "payload", "p");

    private final Contract contract;
    private final PackageNames packages;
    private final NameRules rules;
    private final TypePlanner types;
    private final PartsPlanner parts;
    private final Findings findings;
    private final Map<QName, ValueType> callElements = new LinkedHashMap<>();
    private final Map<QName, ApiFault> faults = new LinkedHashMap<>();

    OperationPlanner(Contract contract, PackageNames packages, NameRules rules, TypePlanner types, Findings findings) {
        this.contract = contract;
        this.packages = packages;
        this.rules = rules;
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
     * Plans an operation, or reports why there is no code for it yet and gives null.
     *
     * @param bound how the binding of the default port carries it
     * @param soapActions the SOAP actions of all bindings
     */
    ApiOperation plan(Operation operation, BoundOperation bound, List<String> soapActions, NameScope methods) {
        if (!isSupported(operation, bound)) {
            return null;
        }
        String method = methods.claim(rules.methodName(operation.name()), "");
        String type = rules.typeName(method);
        ApiMessage input;
        ApiMessage output = null;
        if (bound.rpc()) {
            input = call(operation, operation.input(), bound.input(), type + "Input", operation.name());
            if (operation.output() != null) {
                String response = operation.name() + "Response";
                output = call(operation, operation.output(), bound.output(), type + "Output", response);
            }
        } else {
            input = message(operation.input(), bound.input(), type + "Input", operation.name());
            boolean unwrapped = input.wrapper() != null;
            output = operation.output() == null
                    ? null
                    : message(operation.output(), bound.output(), type + "Output", unwrapped ? null : "");
        }
        return new ApiOperation(
                method,
                methods.claim(method + "Async", ""),
                operation.name(),
                parameters(input),
                input,
                output,
                output != null && output.values().size() > 1 ? type + "Result" : null,
                faults(operation, bound),
                bound.soapAction(),
                soapActions,
                operation.documentation());
    }

    private boolean isSupported(Operation operation, BoundOperation bound) {
        String reason = null;
        if (!bound.rpc() && (isEncoded(bound.input()) || isEncoded(bound.output()))) {
            reason = "is a document in the SOAP encoding";
        } else if (bound.input() != null && bound.input().attachments()
                || bound.output() != null && bound.output().attachments()) {
            reason = "carries attachments";
        } else if (!bound.rpc()
                && (!isOfElements(operation.input(), bound.input())
                        || operation.output() != null && !isOfElements(operation.output(), bound.output()))) {
            reason = "has a body of a type rather than of elements";
        }
        if (reason != null) {
            leaveOut(operation.name(), bound.place(), reason);
        }
        return reason == null;
    }

    private void leaveOut(String operation, Place place, String reason) {
        findings.warning(
                "not-generated",
                place.towards("name"),
                "the operation " + operation + " " + reason + ", for which no code is generated yet",
                "it is left out; the other operations are generated");
    }

    private static boolean isEncoded(BoundOperation.Carrier carrier) {
        return carrier != null
                && (carrier.encoded() || carrier.headers().stream().anyMatch(BoundOperation.Header::encoded));
    }

    private boolean isOfElements(Operation.Use use, BoundOperation.Carrier carrier) {
        return bodyParts(use, carrier).stream().allMatch(part -> part.element() != null);
    }

    private Message.Part headerPart(BoundOperation.Header header) {
        return contract.wsdl().messages().get(header.message()).part(header.part());
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
    private ApiMessage message(Operation.Use use, BoundOperation.Carrier carrier, String name, String wrapperName) {
        List<Message.Part> parts = bodyParts(use, carrier);
        if (parts.size() > 1) {
            ApiClass together = this.parts.elements(packageOf(use), name + "Parts", parts);
            Property body = body(Property.Kind.GROUP, parts.get(0).element(), together);
            return new ApiMessage(name, body, together, false, false, headers(carrier));
        }
        Property body = parts.isEmpty()
                ? null
                : part(parts.get(0).element(), telling(parts.get(0)), Property.Cardinality.REQUIRED);
        return new ApiMessage(name, body, wrapper(body, wrapperName), false, false, headers(carrier));
    }

    /** A message of a remote procedure call: its parts in an element called like the operation. */
    private ApiMessage call(
            Operation operation, Operation.Use use, BoundOperation.Carrier carrier, String name, String wrapperName) {
        boolean encoded = carrier != null && carrier.encoded();
        ApiClass wrapper = parts.call(
                packageOf(use), name + "Parts", bodyParts(use, carrier), operation.parameterOrder(), encoded);
        String namespace = carrier == null ? "" : carrier.namespace();
        Property body = body(Property.Kind.ELEMENT, new QName(namespace, wrapperName), wrapper);
        callElements.putIfAbsent(body.xmlName(), body.type());
        return new ApiMessage(name, body, wrapper, use == operation.output(), encoded, headers(carrier));
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
            return part(part.element(), name, cardinality);
        }
        QName element = new QName(namespace, part.name());
        TypeReference type = TypeReference.to(part.type(), part.place());
        ValueType value = types.value(type, Owner.global(element));
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

    private Property part(QName element, String name, Property.Cardinality cardinality) {
        ElementDeclaration declared = contract.schema().elements().get(element);
        return new Property(
                rules.memberName(name),
                Property.Kind.ELEMENT,
                element,
                types.value(contract.schema().typeOf(declared), Owner.global(element)),
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

    private List<String> parameters(ApiMessage input) {
        NameScope names = NameScope.of(rules.reservedParameters());
        List<String> parameters = new ArrayList<>();
        for (Property value : input.values()) {
            String xmlName = value.xmlName().getLocalPart();
            boolean isBody = value == input.body();
            parameters.add(names.claim(rules.parameterName(isBody ? value.name() : xmlName), ""));
        }
        return List.copyOf(parameters);
    }

    private List<ApiFault> faults(Operation operation, BoundOperation bound) {
        List<ApiFault> declared = new ArrayList<>();
        Set<QName> elements = new HashSet<>();
        for (Operation.Use use : operation.faults()) {
            ApiFault fault = faults.computeIfAbsent(use.message(), name -> fault(operation, use, bound));
            if (fault != null && elements.add(fault.element())) {
                declared.add(fault);
            }
        }
        return List.copyOf(declared);
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
                packages.scope(packageName).claim(wanted, "Exception"),
                detail.xmlName(),
                detail,
                message.documentation());
    }
}
