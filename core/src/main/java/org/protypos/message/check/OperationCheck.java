package org.protypos.message.check;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.message.tree.MessageElement;
import org.protypos.schema.ElementDeclaration;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;

/**
 * Checks the messages of one operation. Most bodies can be told by their elements alone; those of a type (WSDL 1.1,
 * section 3.5) and those without an envelope only by the operation that they are of, and those in the SOAP encoding not
 * by a schema at all.
 */
public final class OperationCheck {
    private static final CheckedMessage NOTHING_WRONG = new CheckedMessage(List.of(), Map.of());

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

    private static boolean isFault(MessageElement element) {
        return element.name().getLocalPart().equals("Fault");
    }

    /**
     * Checks a whole message of the operation.
     *
     * @param carried which of its messages
     */
    public CheckedMessage check(MessageElement message, WireMessage carried) {
        List<MessageElement> body = EnvelopeParts.body(message, carried);
        boolean fault = !body.isEmpty() && isFault(body.get(0));
        boolean strange = carried.isSoap() && !message.name().getLocalPart().equals("Envelope");
        if (fault || strange) {
            return check.check(message);
        }
        List<CheckedMessage> parts = new ArrayList<>();
        if (carried.isSoap()) {
            parts.add(new CheckedMessage(EnvelopeCheck.of(message), Map.of()));
        }
        EnvelopeParts.header(message, carried).stream()
                .filter(block -> !check.isForeignBlock(block))
                .forEach(block -> parts.add(check.block(block)));
        parts.add(body(body, carried));
        return joined(parts);
    }

    private CheckedMessage body(List<MessageElement> body, WireMessage carried) {
        if (!carried.isSoap()) {
            return plain(body, carried);
        }
        if (carried.isOfType()) {
            return ofType(body, carried.parts().get(0));
        }
        if (carried.isWrapped()) {
            return wrapped(body, carried);
        }
        List<CheckedMessage> checked = new ArrayList<>();
        List<WirePart> parts = carried.parts();
        for (int i = 0; i < parts.size(); i++) {
            WirePart part = parts.get(i);
            MessageElement element = i < body.size() ? body.get(i) : null;
            if (element == null || !mayBe(element.name(), part)) {
                checked.add(deviating(
                        element,
                        body,
                        element == null ? "the body ends" : inWords(element.name()) + " stands in the body",
                        inWords(part.element())));
            } else if (!carried.isEncoded()) {
                checked.add(
                        part.isGlobal()
                                ? check.check(element)
                                : check.check(element, check.vocabulary().type(part.type())));
            }
        }
        if (!carried.isEncoded()) {
            rest(body, parts.size(), checked);
        }
        return joined(checked);
    }

    /** Whether an element may be that part: it is called so, or is of the substitution group of the one that is. */
    private boolean mayBe(QName name, WirePart part) {
        ElementDeclaration declared = part.isGlobal() ? check.vocabulary().element(part.element()) : null;
        return name.equals(part.element())
                || declared != null && check.vocabulary().substitutes(declared).contains(name);
    }

    private static String inWords(QName name) {
        String namespace = name.getNamespaceURI();
        return "<" + name.getLocalPart() + "> of " + (namespace.isEmpty() ? "no namespace" : "namespace " + namespace);
    }

    /** One element holds all parts. What it is called in an answer is custom only (WS-I Basic Profile 1.1, section 4.7.12). */
    private CheckedMessage wrapped(List<MessageElement> body, WireMessage carried) {
        QName wrapper = carried.wrapper();
        if (body.isEmpty()) {
            return deviating(null, body, "the body is empty", inWords(wrapper));
        }
        MessageElement first = body.get(0);
        if (carried.isEncoded()) {
            // No schema says what the encoding lets an element be; what is known of types is.
            CheckedMessage known = check.check(first, check.vocabulary().types(carried.parts()));
            return new CheckedMessage(List.of(), known.types());
        }
        if (!carried.isAnswer() && !first.name().equals(wrapper)) {
            return deviating(first, body, inWords(first.name()) + " stands in the body", inWords(wrapper));
        }
        List<CheckedMessage> checked = new ArrayList<>();
        checked.add(check.check(first, check.vocabulary().types(carried.parts())));
        rest(body, 1, checked);
        return joined(checked);
    }

    private static void rest(List<MessageElement> body, int from, List<CheckedMessage> checked) {
        for (MessageElement more : body.subList(Math.min(from, body.size()), body.size())) {
            checked.add(deviating(
                    more,
                    body,
                    "<" + more.name().getLocalPart() + "> stands in the body after all that the message has",
                    from == 0 ? "an empty body" : "the end of the body"));
        }
    }

    private static CheckedMessage deviating(
            MessageElement at, List<MessageElement> body, String came, String expected) {
        MessageElement place = at != null || body.isEmpty() ? at : body.get(body.size() - 1);
        Deviation deviation = new Deviation(
                "unexpected-body",
                place == null ? null : place.place(),
                at == null ? "/Envelope/Body" : at.path(),
                came,
                expected,
                null);
        return new CheckedMessage(List.of(deviation), Map.of());
    }

    private CheckedMessage ofType(List<MessageElement> body, WirePart part) {
        MessageElement around = new MessageElement(
                new QName("Body"), body.isEmpty() ? null : body.get(0).place());
        // They stay where they are, and so keep their paths and what is declared around them.
        around.content().addAll(body);
        return check.check(around, check.vocabulary().type(part.type()));
    }

    /** What comes without an envelope: a document may have any name, and nothing at all may be meant. */
    private CheckedMessage plain(List<MessageElement> body, WireMessage carried) {
        if (body.isEmpty()) {
            return NOTHING_WRONG;
        }
        MessageElement root = body.get(0);
        if (carried.isWrapped()) {
            return check.check(root, check.vocabulary().types(carried.parts()));
        }
        WirePart part = carried.parts().get(0);
        return part.isGlobal()
                ? check.check(root)
                : check.check(root, check.vocabulary().type(part.type()));
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
