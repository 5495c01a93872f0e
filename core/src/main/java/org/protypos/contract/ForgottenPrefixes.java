package org.protypos.contract;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.schema.SchemaComponents;
import org.protypos.source.Xml;
import org.protypos.wsdl.Definitions;
import org.protypos.wsdl.Message;

/**
 * Mends parts whose type or element lacks its prefix and so falls into the namespace of WSDL itself, where nothing is
 * declared: if just one component could be meant, it is.
 */
final class ForgottenPrefixes {
    private final SchemaComponents schema;
    private final Findings findings;

    private ForgottenPrefixes(SchemaComponents schema, Findings findings) {
        this.schema = schema;
        this.findings = findings;
    }

    static Definitions mend(Definitions wsdl, SchemaComponents schema, Findings findings) {
        ForgottenPrefixes prefixes = new ForgottenPrefixes(schema, findings);
        Map<QName, Message> messages = new LinkedHashMap<>(wsdl.messages());
        messages.replaceAll((name, message) -> prefixes.mend(message));
        return new Definitions(messages, wsdl.portTypes(), wsdl.bindings(), wsdl.services(), wsdl.findings());
    }

    private Message mend(Message message) {
        List<Message.Part> parts =
                message.parts().stream().map(part -> mend(message.name(), part)).toList();
        return new Message(message.name(), parts, message.documentation(), message.place());
    }

    private Message.Part mend(QName message, Message.Part part) {
        QName type = meant(message, part, part.type(), "type", schema.types().keySet());
        QName element = meant(
                message, part, part.element(), "element", schema.elements().keySet());
        return new Message.Part(part.name(), element, type, part.place());
    }

    private QName meant(QName message, Message.Part part, QName name, String kind, Collection<QName> known) {
        if (name == null || !name.getNamespaceURI().equals(Xml.WSDL)) {
            return name;
        }
        QName beside = new QName(message.getNamespaceURI(), name.getLocalPart());
        List<QName> candidates = known.contains(beside)
                ? List.of(beside)
                : known.stream()
                        .filter(other -> other.getLocalPart().equals(name.getLocalPart()))
                        .toList();
        if (candidates.size() != 1) {
            return name;
        }
        findings.warning(
                "prefix-forgotten",
                part.place(),
                "the " + kind + " " + name.getLocalPart() + " has no prefix; that of namespace "
                        + candidates.get(0).getNamespaceURI() + " is taken, the only one of this name",
                "write it with a prefix of that namespace");
        return candidates.get(0);
    }
}
