package org.protypos.proof;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.protypos.contract.Contract;
import org.protypos.message.check.CallWrappers;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.MessageChecker;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;

/** Checks whole messages against a contract, with or without an envelope. */
final class ContractCheck {
    private final Vocabulary vocabulary;
    private final MessageChecker checker;
    private final CallWrappers calls;

    ContractCheck(Contract contract) {
        this.vocabulary = new Vocabulary(contract.schema());
        this.checker = new MessageChecker(vocabulary);
        this.calls = new CallWrappers(contract.wsdl(), vocabulary);
    }

    Vocabulary vocabulary() {
        return vocabulary;
    }

    CheckedMessage check(MessageElement message) {
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
