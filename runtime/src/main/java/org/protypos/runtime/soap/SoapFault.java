package org.protypos.runtime.soap;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlFormatException;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlObject;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;

/**
 * A fault as it stands in a message (SOAP 1.1, section 4.4; SOAP 1.2 Part 1, section 5.4).
 *
 * @param code the code, with the subcodes of SOAP 1.2 behind it
 * @param reason what went wrong, for a person
 * @param actor who found it, or null when the message does not say
 * @param detail the elements of the detail; those that the contract does not know, or that are not what it says, as trees
 * @param detailText text that stands in the detail beside elements, which neither version provides for; empty for none
 */
public record SoapFault(List<QName> code, String reason, String actor, List<XmlElement<?>> detail, String detailText) {
    private static final Set<String> GENERAL = Set.of(
            "Client", "Server", "Sender", "Receiver", "MustUnderstand", "VersionMismatch", "DataEncodingUnknown");

    public SoapFault {
        code = List.copyOf(code);
        detail = List.copyOf(detail);
    }

    /** Whether it is the request that is at fault. SOAP 1.1, section 4.4.1 puts more precise codes behind a point. */
    public boolean isSenders() {
        return !code.isEmpty()
                && isSoap(code.get(0))
                && code.get(0).getLocalPart().matches("(Client|Sender)(\\..*)?");
    }

    /** The codes that say more than those that a version of SOAP has for everything. */
    public List<QName> ownCodes() {
        return code.stream()
                .filter(one -> !isSoap(one) || !GENERAL.contains(one.getLocalPart()))
                .toList();
    }

    /** Whether a code is of a version of SOAP itself, as far as one can tell of codes without a namespace. */
    private static boolean isSoap(QName code) {
        return code.getNamespaceURI().isEmpty() || SoapVersion.ofNamespace(code.getNamespaceURI()) != null;
    }

    /** The detail element of a name, or null when there is none. */
    public XmlObject detail(String namespace, String name) {
        for (XmlElement<?> element : detail) {
            if (element.name().getLocalPart().equals(name)
                    && element.name().getNamespaceURI().equals(namespace)) {
                return element.value();
            }
        }
        return null;
    }

    /**
     * Reads a fault, whatever is wrong with it: who sends one seldom tests it, and what it says is wanted all the more. A detail
     * that is not what the contract says of its element stays a tree.
     */
    static SoapFault read(XmlInput in, SoapVersion version, XmlTypes types) {
        XmlTree fault = (XmlTree) in.wholeTree().value();
        List<QName> code = new ArrayList<>();
        String reason = null;
        String actor = null;
        XmlTree detail = new XmlTree();
        for (XmlElement<?> part : elements(fault)) {
            XmlTree content = (XmlTree) part.value();
            switch (part.name().getLocalPart()) {
                case "faultcode" -> code.add(name(content));
                case "Code" -> addCode(content, code);
                case "faultstring" -> reason = content.text();
                // Several texts may say the same in several languages: the first is taken.
                case "Reason" ->
                    reason = elements(content).stream()
                            .map(text -> ((XmlTree) text.value()).text())
                            .findFirst()
                            .orElseGet(content::text);
                case "faultactor", "Node" -> actor = content.text().strip();
                case "detail", "Detail" -> detail = content;
                default -> {
                    // Neither version has more in it; what came all the same says nothing to us.
                }
            }
        }
        StringBuilder beside = new StringBuilder();
        detail.content().stream().filter(String.class::isInstance).forEach(text -> beside.append((String) text));
        return new SoapFault(
                code,
                reason == null ? "" : reason,
                actor,
                elements(detail).stream()
                        .<XmlElement<?>>map(element -> typed(element, types))
                        .toList(),
                beside.toString().strip());
    }

    private static List<XmlElement<?>> elements(XmlTree tree) {
        List<XmlElement<?>> elements = new ArrayList<>();
        for (Object item : tree.content()) {
            if (item instanceof XmlElement<?> element) {
                elements.add(element);
            }
        }
        return elements;
    }

    /** A code with its subcodes behind it (SOAP 1.2 Part 1, section 5.4.1). */
    private static void addCode(XmlTree tree, List<QName> code) {
        for (XmlElement<?> part : elements(tree)) {
            if (part.name().getLocalPart().equals("Value")) {
                code.add(name((XmlTree) part.value()));
            } else {
                addCode((XmlTree) part.value(), code);
            }
        }
    }

    /** A qualified name; one whose prefix nobody has declared is all we know of it. */
    private static QName name(XmlTree tree) {
        String text = tree.text().strip();
        int colon = text.indexOf(':');
        String namespace = tree.prefixes().get(colon < 0 ? "" : text.substring(0, colon));
        return namespace == null ? new QName(text) : new QName(namespace, text.substring(colon + 1));
    }

    private static XmlElement<?> typed(XmlElement<?> raw, XmlTypes types) {
        try {
            return types.read(new ByteArrayInputStream(XmlTypes.NONE.write(raw)));
        } catch (XmlFormatException e) {
            return raw;
        }
    }

    /** Writes a fault; {@code content} writes the detail and may be null. SOAP 1.1 has room for one code: the first below the general one. */
    static void write(
            XmlOutput out, SoapVersion version, List<QName> code, String reason, Consumer<XmlOutput> content) {
        String namespace = version.namespace();
        out.open(namespace, "Fault");
        if (version == SoapVersion.SOAP_1_1) {
            writeName(out, "", "faultcode", code.get(Math.min(1, code.size() - 1)));
            out.element("", "faultstring", reason);
            writeDetail(out, "", "detail", content);
        } else {
            for (int i = 0; i < code.size(); i++) {
                out.open(namespace, i == 0 ? "Code" : "Subcode");
                writeName(out, namespace, "Value", code.get(i));
            }
            code.forEach(any -> out.close());
            out.open(namespace, "Reason");
            out.open(namespace, "Text");
            out.attribute("http://www.w3.org/XML/1998/namespace", "lang", "en");
            out.text(reason);
            out.close();
            out.close();
            writeDetail(out, namespace, "Detail", content);
        }
        out.close();
    }

    private static void writeName(XmlOutput out, String namespace, String element, QName value) {
        out.open(namespace, element);
        out.text(out.name(value));
        out.close();
    }

    private static void writeDetail(XmlOutput out, String namespace, String element, Consumer<XmlOutput> content) {
        if (content != null) {
            out.open(namespace, element);
            content.accept(out);
            out.close();
        }
    }
}
