package org.protypos.message.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.message.tree.MessageElement;
import org.protypos.wire.WireMessage;
import org.protypos.wsdl.Protocol;

/** Finds what a contract speaks of in a message: all of it, or what a SOAP envelope carries. */
public final class EnvelopeParts {
    /** SOAP 1.1, section 4. */
    public static final String SOAP_1_1 = "http://schemas.xmlsoap.org/soap/envelope/";

    /** SOAP 1.2 Part 1, section 5. */
    public static final String SOAP_1_2 = "http://www.w3.org/2003/05/soap-envelope";

    private static final Set<String> REASONS = Set.of("faultstring", "Reason");
    private static final Set<String> SOAP = Set.of(SOAP_1_1, SOAP_1_2);

    private EnvelopeParts() {}

    /** The namespace of the envelope that a protocol has; null for one that has none. */
    public static String namespace(Protocol protocol) {
        return switch (protocol) {
            case SOAP_1_1 -> SOAP_1_1;
            case SOAP_1_2 -> SOAP_1_2;
            case HTTP, OTHER -> null;
        };
    }

    /** Whether a namespace is that of the envelopes of a version of SOAP. */
    public static boolean isOfSoap(String namespace) {
        return SOAP.contains(namespace);
    }

    /** Whether an element is one of SOAP itself. */
    static boolean isOfSoap(MessageElement element) {
        return isOfSoap(element.name().getNamespaceURI());
    }

    /** Whether an element is an envelope. */
    static boolean isEnvelope(MessageElement element) {
        return is(element, "Envelope");
    }

    private static boolean is(MessageElement element, String name) {
        return isOfSoap(element) && element.name().getLocalPart().equals(name);
    }

    /**
     * What an envelope carries: its header blocks and what is in its body; of a fault what is in its detail (SOAP 1.1, section 4; SOAP
     * 1.2 Part 1, section 5).
     */
    static List<MessageElement> carried(MessageElement root) {
        List<MessageElement> parts = new ArrayList<>();
        for (MessageElement section : root.children()) {
            if (is(section, "Header") || is(section, "Body")) {
                for (MessageElement part : section.children()) {
                    if (is(part, "Fault")) {
                        addDetail(part, parts);
                    } else {
                        parts.add(part);
                    }
                }
            }
        }
        return parts;
    }

    /** What stands in the body of a message, or the message itself when it has no envelope. */
    public static List<MessageElement> body(MessageElement root, WireMessage carried) {
        return carried.isSoap() ? inside(root, "Body") : List.of(root);
    }

    /** The header blocks of a message. */
    public static List<MessageElement> header(MessageElement root, WireMessage carried) {
        return carried.isSoap() ? inside(root, "Header") : List.of();
    }

    /** The sections of an envelope with a local name, {@code Header} or {@code Body}: one, or none. */
    public static List<MessageElement> sections(MessageElement envelope, String section) {
        return envelope.children().stream()
                .filter(child -> child.name().getLocalPart().equals(section))
                .toList();
    }

    /** What stands in the section of an envelope with a local name, {@code Header} or {@code Body}. */
    public static List<MessageElement> inside(MessageElement envelope, String section) {
        return sections(envelope, section).stream()
                .flatMap(child -> child.children().stream())
                .toList();
    }

    /** What the fault that an envelope carries says, or null when it carries none. */
    public static String reason(MessageElement envelope) {
        return inside(envelope, "Body").stream()
                .filter(part -> is(part, "Fault"))
                .findFirst()
                .map(fault -> fault.children().stream()
                        .filter(part -> REASONS.contains(part.name().getLocalPart()))
                        .map(part -> part.children().isEmpty()
                                ? part.text()
                                : part.children().get(0).text())
                        .findFirst()
                        .orElse(""))
                .orElse(null);
    }

    /** The codes of the fault that an envelope carries, the widest first; one whose prefix nobody has declared is in no namespace. */
    public static List<QName> codes(MessageElement envelope) {
        List<QName> codes = new ArrayList<>();
        inside(envelope, "Body").stream()
                .filter(part -> is(part, "Fault"))
                .flatMap(fault -> fault.children().stream())
                .forEach(part -> addCodes(part, codes));
        return codes;
    }

    private static void addCodes(MessageElement part, List<QName> codes) {
        switch (part.name().getLocalPart()) {
            case "Code", "Subcode" -> part.children().forEach(child -> addCodes(child, codes));
            case "faultcode", "Value" -> {
                String text = part.text().strip();
                QName code = part.resolve(text);
                codes.add(code == null ? new QName(text.substring(text.indexOf(':') + 1)) : code);
            }
            default -> {
                // The other parts say nothing of who is to blame.
            }
        }
    }

    /** What stands in the detail of the fault that an envelope carries. */
    public static List<MessageElement> detail(MessageElement envelope) {
        List<MessageElement> parts = new ArrayList<>();
        inside(envelope, "Body").forEach(fault -> addDetail(fault, parts));
        return parts;
    }

    private static void addDetail(MessageElement fault, List<MessageElement> parts) {
        for (MessageElement part : fault.children()) {
            if (part.name().getLocalPart().equals("detail") || is(part, "Detail")) {
                parts.addAll(part.children());
            }
        }
    }
}
