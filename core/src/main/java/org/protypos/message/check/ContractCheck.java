package org.protypos.message.check;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.contract.Contract;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.schema.ElementDeclaration;
import org.protypos.schema.TypeReference;
import org.protypos.source.Xml;
import org.protypos.wire.Wire;
import org.protypos.wire.WireBinding;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;

/** Checks whole messages against a contract, with or without an envelope. */
public final class ContractCheck {
    private final Vocabulary vocabulary;
    private final MessageChecker checker;
    private final Wire wire;

    /** Takes a sound contract. */
    public ContractCheck(Contract contract) {
        this.vocabulary = new Vocabulary(contract.schema());
        this.checker = new MessageChecker(vocabulary);
        this.wire = Wire.of(contract);
    }

    /** How the messages of the contract look. */
    public Wire wire() {
        return wire;
    }

    /** The schema as messages see it. */
    public Vocabulary vocabulary() {
        return vocabulary;
    }

    /** Checks an element against a type, whatever its name. */
    public CheckedMessage check(MessageElement element, TypeModel type) {
        return checker.check(element, type);
    }

    /**
     * Checks an element that no schema declares against what it holds.
     *
     * @param parts the types of the elements in it, by their local names; they are in no namespace
     */
    public CheckedMessage check(MessageElement wrapper, Map<String, TypeModel> parts) {
        return checker.check(wrapper, parts);
    }

    /**
     * Whether an element is a header block of which the contract does not speak: addressing, security and the like may come
     * with any message (SOAP 1.1, section 4.2; SOAP 1.2 Part 1, section 5.2).
     */
    public boolean isForeignBlock(MessageElement element) {
        String namespace = element.name().getNamespaceURI();
        return isBlock(element)
                && wire.alone(element.name()) == null
                && vocabulary.schema().elements().keySet().stream()
                        .noneMatch(name -> name.getNamespaceURI().equals(namespace));
    }

    private static boolean isBlock(MessageElement element) {
        return element.parent() != null
                && element.parent().name().getLocalPart().equals("Header")
                && EnvelopeParts.isOfSoap(element.parent());
    }

    /**
     * Checks a message and says of what it is one. Some are not told by their elements: the body may be of a type (WSDL 1.1, section
     * 3.5) or in the SOAP encoding, several calls may have one name, answers any, and so may documents without an envelope. Such a
     * message is taken for the one of the contract that it comes nearest to.
     */
    public Recognized recognize(MessageElement message) {
        CheckedMessage byElements = check(message);
        Recognized nearest = new Recognized(null, null, byElements);
        boolean enveloped = EnvelopeParts.isEnvelope(message);
        List<MessageElement> body = enveloped ? EnvelopeParts.inside(message, "Body") : List.of(message);
        // Each of several elements may be one of the contract, and all of them together no message of it.
        boolean several = body.size() > 1;
        if (byElements.deviations().isEmpty() && !several || EnvelopeParts.reason(message) != null) {
            return nearest;
        }
        boolean known = !several && body.stream().allMatch(this::isKnown);
        for (WireBinding binding : wire.bindings()) {
            String namespace = EnvelopeParts.namespace(binding.binding().protocol());
            if (!(enveloped ? message.name().getNamespaceURI().equals(namespace) : namespace == null)) {
                continue;
            }
            for (WireOperation operation : binding.operations()) {
                OperationCheck check = new OperationCheck(operation, this);
                for (WireMessage carried : operation.messages()) {
                    Recognized one = new Recognized(operation, carried, check.check(message, carried));
                    int wrong = one.checked().deviations().size();
                    boolean first = nearest.byElements() && !known;
                    // Of what is encoded nothing is wrong ever, so that it would be taken for whatever comes.
                    if ((wrong == 0 && !carried.isEncoded() || begins(body, carried))
                            && (first || wrong < nearest.checked().deviations().size())) {
                        nearest = one;
                    }
                }
            }
        }
        return nearest;
    }

    /** Whether what came begins like a message: in the SOAP encoding, what is referred to may stand before it. */
    private static boolean begins(List<MessageElement> body, WireMessage carried) {
        Set<QName> beginnings = carried.beginnings();
        return body.isEmpty()
                ? beginnings.contains(new QName(""))
                : body.stream()
                        .limit(carried.isEncoded() ? body.size() : 1)
                        .anyMatch(element -> beginnings.contains(element.name()));
    }

    private boolean isKnown(MessageElement element) {
        return vocabulary.element(element.name()) != null
                || wire.wrapped(element.name()) != null
                || wire.alone(element.name()) != null;
    }

    /** Checks a message, or an element of one, by what its elements say that it is. */
    public CheckedMessage check(MessageElement message) {
        List<Deviation> deviations = new ArrayList<>();
        Map<MessageElement, TypeModel> types = new IdentityHashMap<>();
        boolean sent = isSent(message);
        if (sent) {
            deviations.addAll(EnvelopeCheck.of(message));
        }
        for (MessageElement part : sent ? EnvelopeParts.carried(message) : List.of(message)) {
            if (isForeignBlock(part)) {
                continue;
            }
            CheckedMessage checked = isBlock(part) ? block(part) : part(part);
            deviations.addAll(checked.deviations());
            types.putAll(checked.types());
        }
        return new CheckedMessage(deviations, types);
    }

    /**
     * Whether a message is an envelope that carries something of the contract. Contracts take in the schema of SOAP for an attribute or
     * two; what it says of envelopes, in which anything may stand, is no word about their messages.
     */
    public boolean isSent(MessageElement message) {
        return EnvelopeParts.isEnvelope(message)
                && (vocabulary.element(message.name()) == null
                        || wire.bindings().stream()
                                .map(binding -> EnvelopeParts.namespace(
                                        binding.binding().protocol()))
                                .anyMatch(message.name().getNamespaceURI()::equals));
    }

    private CheckedMessage part(MessageElement part) {
        List<WirePart> call = wire.wrapped(part.name());
        TypeReference alone = wire.alone(part.name());
        return call != null
                ? checker.check(part, vocabulary.types(call))
                : alone != null ? checker.check(part, vocabulary.type(alone)) : checker.check(part);
    }

    /**
     * Checks a header block of which the contract speaks. Attributes of other namespaces may stand on it, whatever its type says:
     * who must understand it, an identifier to sign it by, a language (SOAP 1.1, section 4.2; SOAP 1.2 Part 1, section 5.2.1).
     */
    public CheckedMessage block(MessageElement block) {
        Map<QName, String> all = new LinkedHashMap<>(block.attributes());
        ElementDeclaration declared = vocabulary.element(block.name());
        Set<QName> known = declared == null
                ? Set.of()
                : vocabulary.typeOf(declared).attributes().keySet();
        block.attributes()
                .keySet()
                .removeIf(name -> !name.getNamespaceURI().isEmpty()
                        && !name.getNamespaceURI().equals(Xml.XSI)
                        && !known.contains(name));
        CheckedMessage checked = part(block);
        block.attributes().clear();
        block.attributes().putAll(all);
        return checked;
    }
}
