package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;

/**
 * Checks the messages of one operation. Most bodies can be told by their elements alone; those of a type (WSDL 1.1,
 * section 3.5) and those without an envelope only by the operation that they are of, and those in the SOAP encoding not
 * by a schema at all.
 */
public final class OperationCheck {
    private final WireOperation called;
    private final ContractCheck check;

    /** Prepares for an operation. */
    public OperationCheck(WireOperation called, ContractCheck check) {
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
    CheckedMessage check(MessageElement message, WireMessage carried) {
        List<MessageElement> body = EnvelopeParts.body(message, carried);
        boolean fault = !body.isEmpty() && isFault(body.get(0));
        boolean strange = carried.isSoap() && !message.name().getLocalPart().equals("Envelope");
        if (fault || strange) {
            return check.check(message);
        }
        List<CheckedMessage> parts = new ArrayList<>();
        EnvelopeParts.header(message, carried).stream()
                .filter(block -> !check.isForeignBlock(block))
                .forEach(block -> parts.add(check.check(block)));
        parts.add(body(body, carried));
        return joined(parts);
    }

    private CheckedMessage body(List<MessageElement> body, WireMessage carried) {
        if (carried.isEncoded() || body.isEmpty() && !carried.isSoap()) {
            return new CheckedMessage(List.of(), Map.of());
        }
        if (carried.isWrapped() && !carried.isSoap()) {
            return check.check(body.get(0), check.vocabulary().types(carried.parts()));
        }
        List<WirePart> parts = carried.parts();
        if (carried.isOfType()) {
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
            for (WirePart part : parts) {
                // A document without an envelope may have any name; in one it is called like its part.
                boolean meant = !carried.isWrapped()
                        && !part.isGlobal()
                        && (!carried.isSoap() || element.name().equals(part.element()));
                type = meant ? check.vocabulary().type(part.type()) : type;
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
