package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.check.CarriedMessage;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.wsdl.Message;

/**
 * Checks the messages of one operation. Most bodies can be told by their elements alone; those of a type (WSDL 1.1,
 * section 3.5) and those without an envelope only by the operation that they are of, and those in the SOAP encoding not
 * by a schema at all.
 */
public final class OperationCheck {
    private final CalledOperation called;
    private final ContractCheck check;

    /** Prepares for an operation. */
    public OperationCheck(CalledOperation called, ContractCheck check) {
        this.called = called;
        this.check = check;
    }

    /** Checks a whole request. */
    public CheckedMessage request(MessageElement message) {
        return check(message, called.request());
    }

    /** Checks a whole answer. */
    public CheckedMessage answer(MessageElement message) {
        return called.answer() == null ? check.check(message) : check(message, called.answer());
    }

    /** Checks what stands in the body of a request. */
    public CheckedMessage request(List<MessageElement> body) {
        return body(body, called.request());
    }

    private static boolean isFault(MessageElement element) {
        return element.name().getLocalPart().equals("Fault");
    }

    /** Checks a whole message of the operation. */
    CheckedMessage check(MessageElement message, CarriedMessage carried) {
        List<MessageElement> body = carried.body(message);
        boolean fault = !body.isEmpty() && isFault(body.get(0));
        boolean strange = carried.isSoap() && !message.name().getLocalPart().equals("Envelope");
        if (fault || strange) {
            return check.check(message);
        }
        List<CheckedMessage> parts = new ArrayList<>();
        carried.header(message).stream()
                .filter(block -> !check.isForeignBlock(block))
                .forEach(block -> parts.add(check.check(block)));
        parts.add(body(body, carried));
        return joined(parts);
    }

    private CheckedMessage body(List<MessageElement> body, CarriedMessage carried) {
        if (carried.isEncoded() || body.isEmpty() && !carried.isSoap()) {
            return new CheckedMessage(List.of(), Map.of());
        }
        if (carried.isWrapped() && !carried.isSoap()) {
            return check.check(body.get(0), carried.types(check.vocabulary()));
        }
        List<Message.Part> parts = carried.parts();
        if (carried.isOfElements(check.vocabulary())) {
            MessageElement around = new MessageElement(
                    new QName("Body"), body.isEmpty() ? null : body.get(0).place());
            // They move into it, and need what was declared around them.
            for (MessageElement outer = body.isEmpty() ? null : body.get(0).parent();
                    outer != null;
                    outer = outer.parent()) {
                outer.prefixes().forEach(around.prefixes()::putIfAbsent);
            }
            body.forEach(around::add);
            return check.check(around, carried.type(parts.get(0), check.vocabulary()));
        }
        List<CheckedMessage> checked = new ArrayList<>();
        for (MessageElement element : body) {
            TypeModel type = null;
            for (Message.Part part : parts) {
                // A document without an envelope may have any name; in one it is called like its part.
                boolean meant = !carried.isWrapped()
                        && part.type() != null
                        && (!carried.isSoap() || element.name().equals(new QName(part.name())));
                type = meant ? carried.type(part, check.vocabulary()) : type;
            }
            checked.add(type == null ? check.check(element) : check.check(element, type));
        }
        return joined(checked);
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
