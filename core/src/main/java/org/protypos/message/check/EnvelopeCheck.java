package org.protypos.message.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.value.Lexical;

/**
 * Checks the frame of a message: what of it is SOAP's and no contract's (SOAP 1.1, section 4; SOAP 1.2 Part 1, section 5). Header blocks
 * without a namespace are left in peace: contracts have such blocks, for parts of a type.
 */
final class EnvelopeCheck {
    private static final ValueRule QUALIFIED = ValueRule.of("QName");
    private static final Set<String> PARTS = Set.of("faultcode", "faultstring", "faultactor", "detail");
    private static final List<String> CODES =
            List.of("VersionMismatch", "MustUnderstand", "DataEncodingUnknown", "Sender", "Receiver");

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
                child.children().stream()
                        .filter(part -> part.name().equals(new QName(namespace, "Fault")))
                        .forEach(this::fault);
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

    private void fault(MessageElement fault) {
        noText(fault);
        if (namespace.equals(EnvelopeParts.SOAP_1_1)) {
            simpleFault(fault);
        } else {
            faultOfCodes(fault);
        }
    }

    /** SOAP 1.1, section 4.4: each part once, in whatever order, and elements of other namespaces beside them. */
    private void simpleFault(MessageElement fault) {
        Map<String, MessageElement> parts = new HashMap<>();
        for (MessageElement part : fault.children()) {
            String other = part.name().getNamespaceURI();
            String local = part.name().getLocalPart();
            boolean isPart = other.isEmpty() && PARTS.contains(local);
            if (isPart ? parts.putIfAbsent(local, part) != null : other.isEmpty() || other.equals(namespace)) {
                unexpected(
                        part, isPart ? "each part of a fault once" : "the parts of a fault, which are in no namespace");
            }
        }
        for (String name : List.of("faultcode", "faultstring")) {
            if (!parts.containsKey(name)) {
                missing(fault, name);
            } else if (!parts.get(name).children().isEmpty()) {
                unexpected(parts.get(name).children().get(0), "text alone");
            }
        }
        if (parts.containsKey("faultcode")) {
            qualified(parts.get("faultcode"));
        }
        if (parts.containsKey("detail")) {
            noText(parts.get("detail"));
        }
    }

    /** SOAP 1.2 Part 1, section 5.4: the parts in their order, and nothing else. */
    private void faultOfCodes(MessageElement fault) {
        List<MessageElement> parts = inOrder(fault, List.of("Code", "Reason"), List.of("Node", "Role", "Detail"));
        for (MessageElement part : parts) {
            switch (part.name().getLocalPart()) {
                case "Code" -> code(part, true);
                case "Reason" -> reason(part);
                case "Detail" -> noText(part);
                default -> {
                    if (!part.children().isEmpty()) {
                        unexpected(part.children().get(0), "a URI");
                    }
                }
            }
        }
    }

    private void code(MessageElement code, boolean first) {
        for (MessageElement part : inOrder(code, List.of("Value"), List.of("Subcode"))) {
            if (part.name().getLocalPart().equals("Subcode")) {
                code(part, false);
                continue;
            }
            QName value = qualified(part);
            if (first
                    && value != null
                    && !(value.getNamespaceURI().equals(namespace) && CODES.contains(value.getLocalPart()))) {
                report(
                        "value",
                        part,
                        "\"" + MessageCheck.cut(part.text()) + "\" is no code of SOAP 1.2",
                        String.join(", ", CODES));
            }
        }
    }

    private void reason(MessageElement reason) {
        noText(reason);
        if (reason.children().isEmpty()) {
            missing(reason, "Text");
        }
        for (MessageElement text : reason.children()) {
            if (!text.name().equals(new QName(namespace, "Text"))) {
                unexpected(text, "<Text> of SOAP");
            } else if (text.attribute(XMLConstants.XML_NS_URI, "lang") == null) {
                report("missing-attribute", text, "<Text> does not say its language", "xml:lang");
            }
        }
    }

    /** The parts of an element that are what they are to be; the others are told. */
    private List<MessageElement> inOrder(MessageElement around, List<String> needed, List<String> optional) {
        noText(around);
        List<String> order = new ArrayList<>(needed);
        order.addAll(optional);
        List<MessageElement> parts = new ArrayList<>();
        int from = 0;
        for (MessageElement part : around.children()) {
            int place = part.name().getNamespaceURI().equals(namespace)
                    ? order.indexOf(part.name().getLocalPart())
                    : -1;
            if (place < from) {
                unexpected(part, "the parts of SOAP 1.2, in this order: " + String.join(", ", order));
            } else {
                parts.add(part);
                from = place + 1;
            }
        }
        for (String name : needed) {
            if (around.children().stream().noneMatch(part -> part.name().equals(new QName(namespace, name)))) {
                missing(around, name);
            }
        }
        return parts;
    }

    /** The name that an element holds, or null for none, which is told. */
    private QName qualified(MessageElement element) {
        String text = Lexical.collapse(element.text());
        QName name = QUALIFIED.complaint(text, null) == null ? element.resolve(text) : null;
        if (name == null) {
            report(
                    "value",
                    element,
                    "\"" + MessageCheck.cut(text) + "\" is no qualified name",
                    "a name with a prefix that is declared");
        }
        return name;
    }

    private void missing(MessageElement in, String name) {
        report(
                "missing-element",
                in,
                "<" + name + "> is missing in <" + in.name().getLocalPart() + ">",
                "<" + name + "> of SOAP");
    }

    private void unexpected(MessageElement element, String expected) {
        report(
                "unexpected-element",
                element,
                "<" + element.name().getLocalPart() + "> stands in <"
                        + element.parent().name().getLocalPart() + ">",
                expected);
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
