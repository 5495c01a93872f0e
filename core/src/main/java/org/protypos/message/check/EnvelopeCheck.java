package org.protypos.message.check;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.value.Lexical;

/**
 * Checks the frame of a message: what of it is SOAP's and no contract's (SOAP 1.1, section 4; SOAP 1.2 Part 1, section 5). Header blocks
 * without a namespace are left in peace: contracts have such blocks, for parts of a type.
 */
final class EnvelopeCheck {
    private final MessageElement envelope;
    private final String namespace;
    private final List<Deviation> deviations = new ArrayList<>();

    private EnvelopeCheck(MessageElement envelope) {
        this.envelope = envelope;
        this.namespace = envelope.name().getNamespaceURI();
    }

    /** What is wrong with an envelope beside what it carries. */
    static List<Deviation> of(MessageElement envelope) {
        EnvelopeCheck check = new EnvelopeCheck(envelope);
        check.sections();
        return check.deviations;
    }

    private void sections() {
        noText(envelope);
        boolean header = false;
        boolean body = false;
        for (MessageElement child : envelope.children()) {
            if (!body && !header && child.name().equals(new QName(namespace, "Header"))) {
                header = true;
                noText(child);
            } else if (!body && child.name().equals(new QName(namespace, "Body"))) {
                body = true;
                noText(child);
            } else if (!body || !mayFollow(child)) {
                report(
                        "unexpected-element",
                        child,
                        "<" + child.name().getLocalPart() + "> stands in the envelope "
                                + (body ? "behind the body" : "before the body"),
                        body ? "the end of the envelope" : (header ? "" : "<Header> or ") + "<Body> of SOAP");
            }
        }
        if (!body) {
            report("missing-element", envelope, "the envelope has no body", "<Body> of SOAP");
        }
    }

    /** SOAP 1.1 lets elements of other namespaces follow the body, SOAP 1.2 nothing. */
    private boolean mayFollow(MessageElement element) {
        String other = element.name().getNamespaceURI();
        return namespace.equals(EnvelopeParts.SOAP_1_1) && !other.isEmpty() && !other.equals(namespace);
    }

    private void noText(MessageElement section) {
        String text = section.text();
        if (!Lexical.isBlank(text)) {
            report(
                    "unexpected-text",
                    section,
                    "\"" + MessageCheck.cut(Lexical.collapse(text)) + "\" stands in <"
                            + section.name().getLocalPart() + ">",
                    "elements alone");
        }
    }

    private void report(String code, MessageElement at, String came, String expected) {
        deviations.add(new Deviation(code, at.place(), at.path(), came, expected, null));
    }
}
