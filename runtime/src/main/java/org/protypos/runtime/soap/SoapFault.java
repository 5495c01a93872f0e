package org.protypos.runtime.soap;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javax.xml.namespace.QName;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlObject;
import org.protypos.runtime.xml.XmlOutput;

/**
 * A fault as it stands in a message (SOAP 1.1, section 4.4; SOAP 1.2 Part 1, section 5.4).
 *
 * @param code the code, with the subcodes of SOAP 1.2 behind it
 * @param reason what went wrong, for a person
 * @param actor who found it, or null when the message does not say
 * @param detail the elements of the detail
 */
public record SoapFault(List<QName> code, String reason, String actor, List<XmlElement<?>> detail) {
    public SoapFault {
        code = List.copyOf(code);
        detail = List.copyOf(detail);
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

    static SoapFault read(XmlInput in, SoapVersion version) {
        in.enter();
        SoapFault fault = version == SoapVersion.SOAP_1_1 ? read11(in) : read12(in, version.namespace());
        in.leave();
        return fault;
    }

    private static SoapFault read11(XmlInput in) {
        List<QName> code = new ArrayList<>();
        String reason = "";
        String actor = null;
        List<XmlElement<?>> detail = new ArrayList<>();
        while (in.atElement()) {
            switch (in.localName()) {
                case "faultcode" -> in.add(code, in.toQName(in.text()));
                case "faultstring" -> reason = textOf(in);
                case "faultactor" -> actor = in.text();
                case "detail" -> readDetail(in, detail);
                default -> in.skip();
            }
        }
        return new SoapFault(code, reason, actor, detail);
    }

    private static SoapFault read12(XmlInput in, String namespace) {
        List<QName> code = new ArrayList<>();
        String reason = "";
        String actor = null;
        List<XmlElement<?>> detail = new ArrayList<>();
        while (in.atElement()) {
            switch (in.localName()) {
                case "Code" -> readCode(in, namespace, code);
                case "Reason" -> reason = readReason(in);
                case "Node" -> actor = in.text();
                case "Detail" -> readDetail(in, detail);
                default -> in.skip();
            }
        }
        return new SoapFault(code, reason, actor, detail);
    }

    private static void readCode(XmlInput in, String namespace, List<QName> code) {
        in.enter();
        while (in.atElement()) {
            if (in.at(namespace, "Value")) {
                in.add(code, in.toQName(in.text()));
            } else {
                readCode(in, namespace, code);
            }
        }
        in.leave();
    }

    /** Several texts may say the same in several languages: the first is taken. */
    private static String readReason(XmlInput in) {
        String reason = null;
        in.enter();
        while (in.atElement()) {
            String text = textOf(in);
            reason = reason == null ? text : reason;
        }
        in.leave();
        return reason == null ? "" : reason;
    }

    private static String textOf(XmlInput in) {
        in.asideAttribute("lang");
        return in.body();
    }

    private static void readDetail(XmlInput in, List<XmlElement<?>> detail) {
        in.enter();
        while (in.atElement()) {
            in.add(detail, in.element());
        }
        in.leave();
    }

    /** Writes the fault; {@code content} writes the detail and may be null. */
    static void write(XmlOutput out, SoapVersion version, String code, String reason, Consumer<XmlOutput> content) {
        String namespace = version.namespace();
        QName name = new QName(namespace, code);
        out.open(namespace, "Fault");
        if (version == SoapVersion.SOAP_1_1) {
            writeName(out, "", "faultcode", name);
            out.element("", "faultstring", reason);
            writeDetail(out, "", "detail", content);
        } else {
            out.open(namespace, "Code");
            writeName(out, namespace, "Value", name);
            out.close();
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
