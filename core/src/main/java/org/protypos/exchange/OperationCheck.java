package org.protypos.exchange;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;

/**
 * Checks the messages of one operation. Most bodies can be told by their elements alone; those of a type (WSDL 1.1,
 * section 3.5) only by the operation that they are of, and those in the SOAP encoding not by a schema at all.
 */
public final class OperationCheck {
    private final CalledOperation called;
    private final ContractCheck check;

    /** Prepares for an operation. */
    public OperationCheck(CalledOperation called, ContractCheck check) {
        this.called = called;
        this.check = check;
    }

    /** Checks an envelope with a request. */
    public CheckedMessage request(MessageElement envelope) {
        return check(
                envelope, called.operation().input().message(), called.bound().input());
    }

    /** Checks an envelope with an answer. */
    public CheckedMessage answer(MessageElement envelope) {
        return called.operation().output() == null
                ? check.check(envelope)
                : check(
                        envelope,
                        called.operation().output().message(),
                        called.bound().output());
    }

    /** Checks what stands in the body of a request. */
    CheckedMessage request(List<MessageElement> body) {
        return body(body, called.operation().input().message(), called.bound().input());
    }

    private static boolean isFault(MessageElement element) {
        return element.name().getLocalPart().equals("Fault");
    }

    private CheckedMessage check(MessageElement envelope, QName message, BoundOperation.Carrier carrier) {
        List<MessageElement> body = new ArrayList<>();
        List<CheckedMessage> parts = new ArrayList<>();
        for (MessageElement section : envelope.children()) {
            for (MessageElement part : section.children()) {
                if (section.name().getLocalPart().equals("Body")) {
                    body.add(part);
                } else {
                    parts.add(check.check(part));
                }
            }
        }
        boolean fault = !body.isEmpty() && isFault(body.get(0));
        if (fault || !envelope.name().getLocalPart().equals("Envelope")) {
            return check.check(envelope);
        }
        parts.add(body(body, message, carrier));
        return joined(parts);
    }

    private CheckedMessage body(List<MessageElement> body, QName name, BoundOperation.Carrier carrier) {
        if (carrier != null && carrier.encoded()) {
            return new CheckedMessage(List.of(), Map.of());
        }
        List<Message.Part> parts =
                BoundOperation.bodyParts(called.contract().wsdl().messages().get(name), carrier);
        boolean ofType =
                !called.bound().rpc() && parts.size() == 1 && parts.get(0).type() != null;
        if (ofType && isOfElements(parts.get(0))) {
            MessageElement around = new MessageElement(
                    new QName("Body"), body.isEmpty() ? null : body.get(0).place());
            // They move into it, and need what was declared around them.
            for (MessageElement outer = body.isEmpty() ? null : body.get(0).parent();
                    outer != null;
                    outer = outer.parent()) {
                outer.prefixes().forEach(around.prefixes()::putIfAbsent);
            }
            body.forEach(around::add);
            return check.check(around, check.vocabulary().type(parts.get(0).type()));
        }
        List<CheckedMessage> checked = new ArrayList<>();
        for (MessageElement element : body) {
            TypeModel type = null;
            for (Message.Part part : parts) {
                boolean named = !called.bound().rpc()
                        && part.type() != null
                        && element.name().equals(new QName(part.name()));
                type = named ? check.vocabulary().type(part.type()) : type;
            }
            checked.add(type == null ? check.check(element) : check.check(element, type));
        }
        return joined(checked);
    }

    private boolean isOfElements(Message.Part part) {
        TypeModel type = check.vocabulary().type(part.type());
        return !type.isAnything() && type.text() == null && !type.mixed() && !type.isAbstract();
    }

    private static CheckedMessage joined(List<CheckedMessage> parts) {
        List<Deviation> deviations = new ArrayList<>();
        Map<MessageElement, TypeModel> types = new IdentityHashMap<>();
        for (CheckedMessage part : parts) {
            deviations.addAll(part.deviations());
            types.putAll(part.types());
        }
        return new CheckedMessage(deviations, types);
    }
}
