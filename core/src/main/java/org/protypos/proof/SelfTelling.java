package org.protypos.proof;

import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.check.Deviation;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.InfosetComparison;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Xml;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WirePart;

/**
 * A message that does not tell what it is, in a form in which it does, so that types can read it that know nothing of operations:
 * what is of a type says so ({@code xsi:type}), an answer is called as in the contract, and what is encoded stands where it is
 * referred to.
 */
final class SelfTelling {
    private static final QName TYPE = new QName(Xml.XSI, "type");

    private final WireMessage carried;
    private final Vocabulary vocabulary;
    private final MessageElement message;
    private final WirePart whole;

    /** What says its type here and did not before, or null. */
    private MessageElement typed;

    /**
     * Brings a message into such a form.
     *
     * @param message the message, which may be changed
     * @param carried what it is
     */
    SelfTelling(MessageElement message, WireMessage carried, Vocabulary vocabulary) {
        this.carried = carried;
        this.vocabulary = vocabulary;
        this.message = EncodedForm.literal(message, carried, vocabulary);
        this.whole = whole(carried);
        if (whole != null) {
            (carried.isSoap() ? EnvelopeParts.sections(this.message, "Body") : List.of(this.message))
                    .forEach(this::tell);
        } else if (carried.isSoap() && carried.isWrapped()) {
            EnvelopeParts.body(this.message, carried).stream().limit(1).forEach(this::call);
        }
    }

    /** Whether a message of the contract can be other than its elements tell. */
    static boolean isNeeded(WireMessage carried) {
        return carried.isEncoded() || whole(carried) != null || carried.isSoap() && carried.isWrapped();
    }

    /** The part of whose type the whole body or document is, or null. */
    private static WirePart whole(WireMessage carried) {
        boolean may = carried.isOfType() || carried.form() == WireMessage.Form.DOCUMENT;
        WirePart first =
                !may || carried.parts().isEmpty() ? null : carried.parts().get(0);
        return first == null || first.isGlobal() ? null : first;
    }

    /** The message as it tells what it is. */
    MessageElement message() {
        return message;
    }

    /**
     * Compares the message with what came out of it.
     *
     * @param written the message as it was written again, which may be changed
     * @param check checks messages of its operation
     */
    List<Deviation> compared(MessageElement written, OperationCheck check) {
        MessageElement after = EncodedForm.literal(written, carried, vocabulary);
        Map<MessageElement, TypeModel> types =
                new IdentityHashMap<>(check.check(message, carried).types());
        if (carried.isEncoded()) {
            types.putAll(EncodedForm.types(message, carried, vocabulary));
            EnvelopeParts.body(message, carried).forEach(SelfTelling::withoutBlanks);
            EnvelopeParts.body(after, carried).forEach(SelfTelling::withoutBlanks);
            nameMembers(message, after, types);
        }
        if (typed != null) {
            types.put(typed, vocabulary.type(whole.type()));
            typed.attributes().remove(TYPE);
            (typed == message ? List.of(after) : EnvelopeParts.sections(after, "Body"))
                    .forEach(body -> body.attributes().remove(TYPE));
        }
        return InfosetComparison.compare(message, after, vocabulary, types);
    }

    /** Between elements of the encoding white space means nothing, whatever their types. */
    private static void withoutBlanks(MessageElement element) {
        List<MessageElement> children = element.children();
        if (!children.isEmpty()) {
            element.content().removeIf(item -> item instanceof String text && text.isBlank());
        }
        children.forEach(SelfTelling::withoutBlanks);
    }

    /** What the members of an array are called means nothing: those that came out are called as those that went in. */
    private static void nameMembers(MessageElement before, MessageElement after, Map<MessageElement, TypeModel> types) {
        List<MessageElement> went = before.children();
        List<MessageElement> came = after.children();
        boolean members = EncodedForm.isArray(types.get(before));
        for (int i = 0; i < Math.min(went.size(), came.size()); i++) {
            MessageElement one = came.get(i);
            if (members && !one.name().equals(went.get(i).name())) {
                one = renamed(one, went.get(i).name());
                after.replace(came.get(i), one);
            }
            nameMembers(went.get(i), one, types);
        }
    }

    /** What an answer is called is custom only (WS-I Basic Profile 1.1, section 4.7.12). */
    private void call(MessageElement element) {
        if (element.name().equals(carried.wrapper())) {
            return;
        }
        element.parent().replace(element, renamed(element, carried.wrapper()));
    }

    private static MessageElement renamed(MessageElement element, QName name) {
        MessageElement called = new MessageElement(name, element.place());
        called.prefixes().putAll(element.prefixes());
        called.attributes().putAll(element.attributes());
        for (Object item : List.copyOf(element.content())) {
            if (item instanceof MessageElement child) {
                called.add(child);
            } else {
                called.add((String) item);
            }
        }
        return called;
    }

    private void tell(MessageElement element) {
        if (element.attributes().containsKey(TYPE)) {
            return;
        }
        QName type = whole.type().name();
        String prefix = "type";
        while (element.namespaceOf(prefix) != null) {
            prefix += "1";
        }
        element.prefixes().put(prefix, type.getNamespaceURI());
        element.attributes().put(TYPE, prefix + ":" + type.getLocalPart());
        typed = element;
    }
}
