package org.protypos.message.check;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;

/** Checks whole messages against a contract, with or without an envelope. */
public final class ContractCheck {
    private final Vocabulary vocabulary;
    private final MessageChecker checker;
    private final CallWrappers calls;

    /** Takes a sound contract. */
    public ContractCheck(Contract contract) {
        this.vocabulary = new Vocabulary(contract.schema());
        this.checker = new MessageChecker(vocabulary);
        this.calls = new CallWrappers(contract.wsdl(), vocabulary);
    }

    /** Knows the wrappers of calls, which no schema declares. */
    public CallWrappers calls() {
        return calls;
    }

    /** The schema as messages see it. */
    public Vocabulary vocabulary() {
        return vocabulary;
    }

    /** Checks an element against a type, whatever its name. */
    public CheckedMessage check(MessageElement element, TypeModel type) {
        return checker.check(element, type);
    }

    /** Checks a message. */
    public CheckedMessage check(MessageElement message) {
        List<Deviation> deviations = new ArrayList<>();
        Map<MessageElement, TypeModel> types = new IdentityHashMap<>();
        for (MessageElement part : EnvelopeParts.of(message, vocabulary)) {
            Map<String, TypeModel> call = calls.parts(part.name());
            TypeModel alone = calls.alone(part.name());
            CheckedMessage checked = call != null
                    ? checker.check(part, call)
                    : alone != null ? checker.check(part, alone) : checker.check(part);
            deviations.addAll(checked.deviations());
            types.putAll(checked.types());
        }
        return new CheckedMessage(deviations, types);
    }
}
