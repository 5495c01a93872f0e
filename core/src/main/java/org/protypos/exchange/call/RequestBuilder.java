package org.protypos.exchange.call;

import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.XMLConstants;
import javax.xml.namespace.QName;
import org.protypos.binding.Suggestions;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.json.JsonMessageReader;
import org.protypos.message.json.JsonValue;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.attach.Attachment;
import org.protypos.source.Xml;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;

/** Puts a request into its envelope: from JSON, or from the elements that stand in the body. */
public final class RequestBuilder {
    /** The member under which the header blocks of a request stand. */
    public static final String HEADER = "#header";

    /** The member under which the parts stand that travel beside the envelope. */
    public static final String ATTACHED = "#attached";

    private final WireOperation called;
    private final Vocabulary vocabulary;
    private final JsonMessageReader reader;
    private final Findings findings;

    /**
     * Makes a builder.
     *
     * @param findings is told what has no place in the request
     */
    public RequestBuilder(WireOperation called, Vocabulary vocabulary, Findings findings) {
        this.called = called;
        this.vocabulary = vocabulary;
        this.reader = new JsonMessageReader(vocabulary, findings);
        this.findings = findings;
    }

    /** A request of JSON: an object with the members of the body's element or with the parts of the call. */
    public MessageElement request(JsonValue value) {
        return message(value, called.request());
    }

    /** An answer of JSON, likewise. */
    public MessageElement answer(JsonValue value) {
        return message(value, called.answer());
    }

    private MessageElement message(JsonValue value, WireMessage carried) {
        List<WirePart> parts = carried.parts();
        JsonValue body = bodyOf(value);
        List<MessageElement> elements = new ArrayList<>();
        if (carried.isWrapped()) {
            elements.add(reader.wrapper(body, carried.wrapper(), vocabulary.types(carried.parts())));
        } else if (carried.isOfType()) {
            elements.addAll(reader.element(
                            body,
                            new QName("body"),
                            vocabulary.type(parts.get(0).type()),
                            "")
                    .children());
        } else if (parts.size() == 1) {
            elements.add(reader.element(
                    body, parts.get(0).element(), vocabulary.type(parts.get(0).type()), ""));
        } else if (body instanceof JsonValue.Members members) {
            for (WirePart part : parts) {
                JsonValue given = members.members().get(part.name());
                given = given == null ? members.members().get(part.element().getLocalPart()) : given;
                if (given != null) {
                    elements.add(reader.element(given, part.element(), vocabulary.type(part.type()), part.name()));
                }
            }
        }
        MessageElement envelope = envelope(elements, headers(value, carried));
        EncodedForm.mark(envelope, carried, vocabulary);
        return envelope;
    }

    /** What is in the body: all but the header blocks and the attachments. */
    private static JsonValue bodyOf(JsonValue value) {
        if (!(value instanceof JsonValue.Members members)) {
            return value;
        }
        Map<String, JsonValue> rest = new LinkedHashMap<>(members.members());
        rest.remove(HEADER);
        rest.remove(ATTACHED);
        return new JsonValue.Members(rest, members.place());
    }

    private static Map<String, JsonValue> section(JsonValue value, String name) {
        return value instanceof JsonValue.Members members
                        && members.members().get(name) instanceof JsonValue.Members section
                ? section.members()
                : Map.of();
    }

    private List<MessageElement> headers(JsonValue value, WireMessage carried) {
        List<MessageElement> blocks = new ArrayList<>();
        Map<String, JsonValue> left = new LinkedHashMap<>(section(value, HEADER));
        for (WirePart block : carried.blocks()) {
            String name = block.element().getLocalPart();
            JsonValue one = left.remove(name);
            if (one != null) {
                blocks.add(reader.element(one, block.element(), vocabulary.type(block.type()), HEADER + "." + name));
            }
        }
        left.forEach((name, one) ->
                findings.error("json-value", one.place(), "the message has no header block " + name, "leave it out"));
        return blocks;
    }

    /** The attachments of JSON, by their parts: each its bytes in base64, or an object with {@code type} and {@code base64}. */
    public Map<String, Attachment> attached(JsonValue value, WireMessage carried) {
        Map<String, Attachment> attached = new LinkedHashMap<>();
        section(value, ATTACHED).forEach((part, given) -> {
            Attachment content = attachment(given);
            if (carried.attachments().stream().noneMatch(one -> one.name().equals(part))) {
                findings.error("json-value", given.place(), "nothing called " + part + " is attached", "leave it out");
            } else if (content == null) {
                findings.error(
                        "json-value",
                        given.place(),
                        "the attachment " + part + " is not base64",
                        "give its bytes in base64, or type and base64 in an object");
            } else {
                attached.put(part, content);
            }
        });
        return attached;
    }

    private static Attachment attachment(JsonValue value) {
        Map<String, JsonValue> members =
                value instanceof JsonValue.Members some ? some.members() : Map.of("base64", value);
        if (!(members.get("base64") instanceof JsonValue.Text text)) {
            return null;
        }
        try {
            byte[] bytes = Base64.getMimeDecoder().decode(text.text());
            return members.get("type") instanceof JsonValue.Text type
                    ? Attachment.of(bytes, type.text())
                    : Attachment.of(bytes);
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    /** Puts elements into an envelope of the version that the port speaks; one that speaks none takes the first alone. */
    public MessageElement envelope(List<MessageElement> body, List<MessageElement> headers) {
        if (!called.request().isSoap()) {
            MessageElement alone = body.isEmpty() ? new MessageElement(new QName(called.name()), null) : body.get(0);
            declare(alone, "");
            return alone;
        }
        String soap = EnvelopeParts.namespace(called.request().protocol());
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
        declare(envelope, soap);
        return envelope;
    }

    /** Declares prefixes for all namespaces in a message, but that of the envelope, which has one. */
    private static void declare(MessageElement message, String soap) {
        Set<String> namespaces = new LinkedHashSet<>();
        gather(message, namespaces);
        Suggestions.prefixesOf(namespaces).forEach((prefix, namespace) -> {
            // The prefix xml stands without a declaration (Namespaces in XML, section 3).
            if (!namespace.equals(soap) && !namespace.equals(XMLConstants.XML_NS_URI)) {
                message.prefixes().putIfAbsent(namespace.equals(Xml.XSI) ? "xsi" : prefix, namespace);
            }
        });
    }

    /** The namespaces of all names in a message. */
    private static void gather(MessageElement element, Set<String> namespaces) {
        namespaces.add(element.name().getNamespaceURI());
        element.attributes().keySet().forEach(name -> namespaces.add(name.getNamespaceURI()));
        element.children().forEach(child -> gather(child, namespaces));
    }
}
