package org.protypos.api;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.api.type.ApiValue;
import org.protypos.api.type.Content;
import org.protypos.api.type.Member;
import org.protypos.api.type.PartsBuilder;
import org.protypos.api.type.ScalarKind;
import org.protypos.api.type.Scope;
import org.protypos.api.type.StructuredType;
import org.protypos.api.type.TypeBuilder;
import org.protypos.binding.Designators;
import org.protypos.binding.Shape;
import org.protypos.binding.Shaping;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Renaming;
import org.protypos.naming.Subject;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SimpleType;
import org.protypos.schema.TypeReference;
import org.protypos.wire.Recognition;
import org.protypos.wire.WireFault;
import org.protypos.wire.WireInterface;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Operation;
import org.protypos.wsdl.PortType;

/** Builds an operation as its binding carries it. */
final class OperationBuilder {
    private static final Set<String> NO_NAMES =
            Set.of("body", "parameter", "parameters", "part", "in", "input", "request", "message", "payload", "p");

    private final Contract contract;
    private final Shaping shaping;
    private final Renaming renaming;
    private final TypeBuilder types;
    private final PartsBuilder parts;
    private final Findings findings;
    private final Map<QName, ApiValue> callElements = new LinkedHashMap<>();
    private final Map<QName, ApiFault> faults = new LinkedHashMap<>();

    OperationBuilder(Contract contract, Renaming renaming, Shaping shaping, TypeBuilder types, Findings findings) {
        this.contract = contract;
        this.renaming = renaming;
        this.shaping = shaping;
        this.types = types;
        this.parts = new PartsBuilder(types);
        this.findings = findings;
    }

    Map<QName, ApiValue> callElements() {
        return callElements;
    }

    /**
     * Builds an operation, or reports why there is no code for it and gives null.
     *
     * @param portType the port type it belongs to
     * @param type what it is called through
     * @param carried how that carries it
     * @param recognition how a server knows its requests
     */
    ApiOperation build(PortType portType, WireInterface type, WireOperation carried, Recognition recognition) {
        Operation operation = carried.operation();
        BoundOperation bound = carried.bound();
        if (hasStructuredFields(carried.request())) {
            leaveOut(operation.name(), bound.place(), "has a part with structure, which no query or form can carry");
            return null;
        }
        Subject subject = Designators.operation(portType, operation);
        ApiMessage input = message(new Carried(operation, carried.request()), operation.name());
        ApiMessage output = carried.answer() == null
                ? null
                : message(new Carried(operation, carried.answer()), outputWrapper(input));
        Shaping.Choice<Boolean> apart = shaping.choice(subject, Shape::plainParameters);
        if (apart != null && !apart.value()) {
            input = input.whole();
            output = output == null ? null : output.whole();
        } else if (apart != null && input.wrapper() == null && input.body() != null) {
            apart.useless(
                    renaming.shown(subject) + " has a request that cannot be taken apart into parameters", findings);
        }
        List<ApiFault> declared = new ArrayList<>();
        List<String> faultActions = new ArrayList<>();
        faults(carried, declared, faultActions);
        return new ApiOperation(
                subject,
                operation.name(),
                input,
                output,
                List.copyOf(declared),
                type.bindings().stream().map(one -> one.binding().name()).toList(),
                bound.soapAction(),
                recognition,
                type.locations(operation),
                bound.policy(),
                List.copyOf(faultActions),
                types.remarks().of(subject, operation.documentation()));
    }

    /** An answer is taken apart when the request is, whatever its element is called; an empty name stands for none. */
    private static String outputWrapper(ApiMessage input) {
        boolean unwrapped = input.wrapper() != null
                && input.form() != WireMessage.Form.FIELDS
                && input.form() != WireMessage.Form.REPLACED
                && input.body().kind() == Member.Kind.ELEMENT;
        return unwrapped ? null : "";
    }

    /** A message with the operation that it belongs to. */
    private record Carried(Operation operation, WireMessage message) {}

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
     * Builds a message.
     *
     * @param wrapperName the local name that the body's element must have to be taken for a wrapper; null for any, empty
     *     for none
     */
    private ApiMessage message(Carried message, String wrapperName) {
        return !message.message().isSoap()
                ? http(message, wrapperName)
                : message.message().isWrapped() ? call(message) : document(message.message(), wrapperName);
    }

    private ApiMessage document(WireMessage carried, String wrapperName) {
        List<WirePart> inBody = carried.parts();
        StructuredType content = carried.isOfType() ? bodyType(inBody.get(0)) : null;
        if (content != null) {
            return envelope(carried, body(Member.Kind.GROUP, firstElement(content), content), null, false);
        }
        if (carried.isGroup()) {
            StructuredType together = parts.beside(carried.message(), inBody, carried.isEncoded());
            inBody.stream()
                    .filter(part -> !part.isGlobal() && !carried.isEncoded())
                    .forEach(this::ofType);
            return envelope(carried, body(Member.Kind.GROUP, firstElement(together), together), together, false);
        }
        Member body = inBody.isEmpty()
                ? null
                : part(inBody.get(0).element(), telling(inBody.get(0)), Member.Cardinality.REQUIRED, true);
        return envelope(carried, body, wrapper(body, wrapperName), false);
    }

    private ApiMessage envelope(WireMessage carried, Member body, StructuredType wrapper, boolean anyWrapper) {
        return new ApiMessage(
                WireMessage.Form.ENVELOPE,
                body,
                wrapper,
                anyWrapper,
                carried.isEncoded(),
                carried.blocks().stream().map(this::block).toList(),
                carried.attachments().stream().map(this::attachment).toList(),
                carried.attachments().stream().map(WirePart::mediaType).toList(),
                carried.action());
    }

    /** The type that the body itself is of (WSDL 1.1, section 3.5), or null when it holds no elements alone. */
    private StructuredType bodyType(WirePart part) {
        StructuredType content =
                types.value(part.type(), Scope.global(part.part().type())).structure();
        return content == null || content.isAbstract() || content.isMixed() || content.isSimple() ? null : content;
    }

    private static QName firstElement(StructuredType content) {
        return content.elements().stream()
                .map(Member::xmlName)
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
    private ApiMessage call(Carried message) {
        StructuredType wrapper = fields(message);
        Member body = body(Member.Kind.ELEMENT, message.message().wrapper(), wrapper);
        callElements.putIfAbsent(body.xmlName(), body.value());
        return envelope(message.message(), body, wrapper, message.message().isAnswer());
    }

    private StructuredType fields(Carried message) {
        WireMessage carried = message.message();
        return parts.call(
                carried.message(), carried.parts(), message.operation().parameterOrder(), carried.isEncoded());
    }

    /** A message without an envelope (WSDL 1.1, sections 4 and 5); its element may be a wrapper as in one with an envelope. */
    private ApiMessage http(Carried message, String wrapperName) {
        List<WirePart> inBody = message.message().parts();
        WireMessage.Form form = message.message().form();
        Member body = null;
        StructuredType wrapper = null;
        boolean anyName = false;
        List<Member> attachments = List.of();
        List<String> mediaTypes = List.of();
        if (form == WireMessage.Form.BYTES) {
            attachments = inBody.stream().limit(1).map(this::attachment).toList();
            mediaTypes = inBody.stream().limit(1).map(WirePart::mediaType).toList();
        } else if (form == WireMessage.Form.DOCUMENT
                && !inBody.isEmpty()
                && inBody.get(0).isGlobal()) {
            body = part(inBody.get(0).element(), telling(inBody.get(0)), Member.Cardinality.REQUIRED, false);
            wrapper = wrapper(body, wrapperName);
        } else if (form != WireMessage.Form.DOCUMENT) {
            wrapper = fields(message);
            body = body(Member.Kind.ELEMENT, message.message().wrapper(), wrapper);
            anyName = true;
        } else if (!inBody.isEmpty()) {
            WirePart part = inBody.get(0);
            QName root = part.element();
            body = Member.plain(
                    null,
                    part.name(),
                    Member.Kind.ELEMENT,
                    root,
                    types.value(part.type(), Scope.global(root)),
                    Member.Cardinality.REQUIRED);
            anyName = true;
        }
        return new ApiMessage(form, body, wrapper, anyName, false, List.of(), attachments, mediaTypes, null);
    }

    private Member attachment(WirePart part) {
        return Member.plain(
                null,
                part.name(),
                Member.Kind.ELEMENT,
                new QName("", part.name()),
                new ApiValue.Scalar(ScalarKind.ATTACHMENT),
                Member.Cardinality.OPTIONAL);
    }

    private static Member body(Member.Kind kind, QName name, StructuredType type) {
        return Member.plain(null, "Body", kind, name, new ApiValue.Structured(type), Member.Cardinality.REQUIRED);
    }

    private Member block(WirePart block) {
        return outside(block, block.element().getLocalPart(), Member.Cardinality.OPTIONAL);
    }

    /** A part that stands alone, in a header or in the detail of a fault. */
    private Member outside(WirePart part, String name, Member.Cardinality cardinality) {
        QName element = part.element();
        if (part.isGlobal()) {
            return part(element, name, cardinality, false);
        }
        ApiValue value = types.value(part.type(), Scope.global(element));
        callElements.putIfAbsent(element, value);
        return Member.plain(null, name, Member.Kind.ELEMENT, element, value, cardinality);
    }

    /** Many parts are called what every part could be called; then the element has the better name. */
    private static String telling(WirePart part) {
        return NO_NAMES.contains(part.name().toLowerCase(Locale.ROOT))
                ? part.element().getLocalPart()
                : part.name();
    }

    private Member part(QName element, String name, Member.Cardinality cardinality, boolean inBody) {
        ElementDeclaration declared = contract.schema().elements().get(element);
        return new Member(
                null,
                name,
                Member.Kind.ELEMENT,
                element,
                inBody
                        ? types.elementValue(declared, Scope.global(element))
                        : types.value(contract.schema().typeOf(declared), Scope.global(element)),
                inBody ? Subject.element(element, null) : null,
                cardinality,
                declared.nillable(),
                declared.standing(),
                declared.documentation(),
                null,
                null);
    }

    /**
     * The type whose members are the parameters: that of an element named like the operation which holds nothing but a plain
     * sequence of elements.
     */
    private static StructuredType wrapper(Member body, String wrapperName) {
        StructuredType type = body == null ? null : body.value().structure();
        if (type == null
                || wrapperName != null && !body.xmlName().getLocalPart().equals(wrapperName)
                || body.nillable()) {
            return null;
        }
        boolean plain = type.base() == null
                && !type.isAbstract()
                && !type.isMixed()
                && !type.isSimple()
                && !type.hasDerived()
                && type.attributes().isEmpty()
                && type.attributeWildcard() == null;
        return plain && isPlainSequence(type.content()) ? type : null;
    }

    private static boolean isPlainSequence(Content<Member> content) {
        if (content == null) {
            return true;
        }
        return content instanceof Content.InSequence<Member> sequence
                && (!sequence.optional() || sequence.parts().isEmpty())
                && sequence.parts().stream()
                        .allMatch(part -> part instanceof Content.Leaf<Member> leaf
                                && leaf.member().kind() == Member.Kind.ELEMENT);
    }

    private void faults(WireOperation carried, List<ApiFault> declared, List<String> actions) {
        Set<QName> elements = new HashSet<>();
        for (WireFault one : carried.faults()) {
            ApiFault fault = faults.computeIfAbsent(one.message().name(), name -> fault(carried.operation(), one));
            if (fault != null && elements.add(fault.detail().xmlName())) {
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
        return new ApiFault(
                Subject.wsdl(Subject.Kind.FAULT, message.name(), message.place()),
                message.name(),
                outside(fault.details().get(0), "detail", Member.Cardinality.REQUIRED),
                message.documentation());
    }
}
