package org.protypos.exchange;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import org.protypos.binding.Suggestions;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonValue;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.source.Xml;
import org.protypos.wsdl.BoundOperation;
import org.protypos.wsdl.Message;
import org.protypos.wsdl.Protocol;

/** Puts a request into its envelope: from JSON, or from the elements that stand in the body. */
public final class RequestBuilder {
    /** The member under which the header blocks of a request stand. */
    public static final String HEADER = "#header";

    private final CalledOperation called;
    private final Vocabulary vocabulary;
    private final JsonMessageReader reader;
    private final Findings findings;

    /**
     * Makes a builder.
     *
     * @param findings is told what has no place in the request
     */
    public RequestBuilder(CalledOperation called, Vocabulary vocabulary, Findings findings) {
        this.called = called;
        this.vocabulary = vocabulary;
        this.reader = new JsonMessageReader(vocabulary, findings);
        this.findings = findings;
    }

    /** A request of JSON: an object with the members of the body's element or with the parts of the call. */
    public MessageElement request(JsonValue value) {
        return message(
                value,
                called.operation().input().message(),
                called.bound().input(),
                called.operation().name());
    }

    /** An answer of JSON, likewise. */
    public MessageElement answer(JsonValue value) {
        return message(
                value,
                called.operation().output().message(),
                called.bound().output(),
                called.operation().name() + "Response");
    }

    private MessageElement message(JsonValue value, QName name, BoundOperation.Carrier carrier, String wrapper) {
        Message message = called.contract().wsdl().messages().get(name);
        List<Message.Part> parts = BoundOperation.bodyParts(message, carrier);
        JsonValue body = withoutHeader(value);
        List<MessageElement> elements = new ArrayList<>();
        if (called.bound().rpc()) {
            Map<String, TypeModel> types = new LinkedHashMap<>();
            parts.forEach(part -> types.put(part.name(), type(part)));
            String namespace = carrier == null ? "" : carrier.namespace();
            elements.add(reader.wrapper(body, new QName(namespace, wrapper), types));
        } else if (parts.size() == 1 && parts.get(0).element() != null) {
            elements.add(reader.element(body, parts.get(0).element(), type(parts.get(0)), ""));
        } else if (parts.size() == 1) {
            elements.addAll(reader.element(body, new QName("body"), type(parts.get(0)), "")
                    .children());
        } else if (body instanceof JsonValue.Members members) {
            for (Message.Part part : parts) {
                JsonValue given = members.members().get(part.name());
                if (given != null) {
                    QName element = part.element() != null ? part.element() : new QName(part.name());
                    elements.add(reader.element(given, element, type(part), part.name()));
                }
            }
        }
        return envelope(elements, headers(value, carrier));
    }

    private TypeModel type(Message.Part part) {
        return part.element() != null
                ? vocabulary.typeOf(vocabulary.element(part.element()))
                : vocabulary.type(part.type());
    }

    private static JsonValue withoutHeader(JsonValue value) {
        if (!(value instanceof JsonValue.Members members)) {
            return value;
        }
        Map<String, JsonValue> rest = new LinkedHashMap<>(members.members());
        rest.remove(HEADER);
        return new JsonValue.Members(rest, members.place());
    }

    private List<MessageElement> headers(JsonValue value, BoundOperation.Carrier carrier) {
        List<MessageElement> blocks = new ArrayList<>();
        JsonValue header =
                value instanceof JsonValue.Members members ? members.members().get(HEADER) : null;
        if (!(header instanceof JsonValue.Members given)) {
            return blocks;
        }
        Map<String, JsonValue> left = new LinkedHashMap<>(given.members());
        for (BoundOperation.Header block : carrier == null ? List.<BoundOperation.Header>of() : carrier.headers()) {
            Message.Part part =
                    called.contract().wsdl().messages().get(block.message()).part(block.part());
            QName name = part.element() != null ? part.element() : new QName(block.namespace(), part.name());
            JsonValue one = left.remove(name.getLocalPart());
            if (one != null) {
                blocks.add(reader.element(one, name, type(part), HEADER + "." + name.getLocalPart()));
            }
        }
        left.forEach((name, one) ->
                findings.error("json-value", one.place(), "the request has no header block " + name, "leave it out"));
        return blocks;
    }

    /** Puts elements into an envelope of the version that the port speaks. */
    public MessageElement envelope(List<MessageElement> body, List<MessageElement> headers) {
        String soap =
                called.binding().protocol() == Protocol.SOAP_1_2 ? EnvelopeParts.SOAP_1_2 : EnvelopeParts.SOAP_1_1;
        MessageElement envelope = new MessageElement(new QName(soap, "Envelope"), null);
        envelope.prefixes().put("soap", soap);
        if (!headers.isEmpty()) {
            MessageElement header = new MessageElement(new QName(soap, "Header"), null);
            headers.forEach(header::add);
            envelope.add(header);
        }
        MessageElement content = new MessageElement(new QName(soap, "Body"), null);
        body.forEach(content::add);
        envelope.add(content);
        List<String> names = new ArrayList<>();
        gather(envelope, names);
        Suggestions.prefixesFor(names).forEach((prefix, namespace) -> {
            // The prefix xml stands without a declaration (Namespaces in XML, section 3).
            if (!namespace.equals(soap) && !namespace.equals(XMLConstants.XML_NS_URI)) {
                envelope.prefixes().putIfAbsent(namespace.equals(Xml.XSI) ? "xsi" : prefix, namespace);
            }
        });
        return envelope;
    }

    /** All names in a message, so that their namespaces get prefixes. */
    private static void gather(MessageElement element, List<String> names) {
        names.add(element.name().toString());
        element.attributes().keySet().forEach(name -> names.add(name.toString()));
        element.children().forEach(child -> gather(child, names));
    }
}
