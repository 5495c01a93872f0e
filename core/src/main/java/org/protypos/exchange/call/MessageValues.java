package org.protypos.exchange.call;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.message.check.CheckedMessage;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.json.JsonMessageWriter;
import org.protypos.message.json.JsonValue;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.attach.Attachment;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WireOperation;
import org.protypos.wire.WirePart;

/** Tells as JSON what a message of an operation carries, so that {@link RequestBuilder} makes the same message of it. */
public final class MessageValues {
    private final WireOperation called;
    private final ContractCheck check;

    /** Prepares for an operation. */
    public MessageValues(WireOperation called, ContractCheck check) {
        this.called = called;
        this.check = check;
    }

    /**
     * The values of a request.
     *
     * @param attached the parts that travel beside the envelope, by name
     */
    public JsonValue request(MessageElement given, Map<String, Attachment> attached) {
        MessageElement message = EncodedForm.literal(given, called.request(), check.vocabulary());
        return values(message, new OperationCheck(called, check).request(message), called.request(), attached);
    }

    /** The values of an answer that is no fault, likewise. */
    public JsonValue answer(MessageElement given, Map<String, Attachment> attached) {
        MessageElement message = EncodedForm.literal(given, called.answer(), check.vocabulary());
        return values(message, new OperationCheck(called, check).answer(message), called.answer(), attached);
    }

    private JsonValue values(
            MessageElement message, CheckedMessage checked, WireMessage carried, Map<String, Attachment> attached) {
        JsonValue body = body(EnvelopeParts.body(message, carried), checked, carried);
        List<MessageElement> blocks = EnvelopeParts.header(message, carried).stream()
                .filter(block -> !check.isForeignBlock(block))
                .toList();
        if (blocks.isEmpty() && attached.isEmpty()) {
            return body;
        }
        Map<String, JsonValue> all = new LinkedHashMap<>();
        if (body instanceof JsonValue.Members members) {
            all.putAll(members.members());
        } else {
            all.put("#text", body);
        }
        if (!blocks.isEmpty()) {
            all.put(RequestBuilder.HEADER, members(blocks, checked));
        }
        if (!attached.isEmpty()) {
            Map<String, JsonValue> beside = new LinkedHashMap<>();
            attached.forEach((part, content) -> beside.put(part, value(content)));
            all.put(RequestBuilder.ATTACHED, new JsonValue.Members(beside, null));
        }
        return new JsonValue.Members(all, null);
    }

    /** An attachment as JSON: its media type and its bytes. */
    public static JsonValue value(Attachment content) {
        Map<String, JsonValue> members = new LinkedHashMap<>();
        members.put("type", new JsonValue.Text(content.contentType(), null));
        members.put("base64", new JsonValue.Text(content.toBase64(), null));
        return new JsonValue.Members(members, null);
    }

    private JsonValue body(List<MessageElement> body, CheckedMessage checked, WireMessage carried) {
        List<WirePart> parts = carried.parts();
        if (carried.isWrapped()) {
            return members(body.isEmpty() ? List.of() : body.get(0).children(), checked);
        }
        if (parts.size() != 1) {
            return members(body, checked);
        }
        if (carried.isOfType()) {
            MessageElement around = new MessageElement(new QName("body"), null);
            body.forEach(around::add);
            return value(
                    around,
                    check.check(around, check.vocabulary().type(parts.get(0).type())));
        }
        return body.isEmpty() ? new JsonValue.Members(Map.of(), null) : value(body.get(0), checked);
    }

    private JsonValue members(List<MessageElement> elements, CheckedMessage checked) {
        Map<String, JsonValue> members = new LinkedHashMap<>();
        elements.forEach(element -> members.putIfAbsent(element.name().getLocalPart(), value(element, checked)));
        return new JsonValue.Members(members, null);
    }

    private JsonValue value(MessageElement element, CheckedMessage checked) {
        return JsonMessageWriter.value(check.vocabulary(), checked.types(), element);
    }
}
