package org.protypos.message.check;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.schema.TypeReference;
import org.protypos.wire.Wire;
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
        return element.parent() != null
                && element.parent().name().getLocalPart().equals("Header")
                && wire.alone(element.name()) == null
                && vocabulary.schema().elements().keySet().stream()
                        .noneMatch(name -> name.getNamespaceURI().equals(namespace));
    }

    /** Checks a message. */
    public CheckedMessage check(MessageElement message) {
        List<Deviation> deviations = new ArrayList<>();
        Map<MessageElement, TypeModel> types = new IdentityHashMap<>();
        for (MessageElement part : EnvelopeParts.of(message, vocabulary)) {
            if (isForeignBlock(part)) {
                continue;
            }
            List<WirePart> call = wire.wrapped(part.name());
            TypeReference alone = wire.alone(part.name());
            CheckedMessage checked = call != null
                    ? checker.check(part, vocabulary.types(call))
                    : alone != null ? checker.check(part, vocabulary.type(alone)) : checker.check(part);
            deviations.addAll(checked.deviations());
            types.putAll(checked.types());
        }
        return new CheckedMessage(deviations, types);
    }
}
