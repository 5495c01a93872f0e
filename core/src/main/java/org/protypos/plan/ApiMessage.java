package org.protypos.plan;

import java.util.ArrayList;
import java.util.List;
import org.protypos.wire.WireMessage;

/**
 * The input or output of an operation on the wire.
 *
 * @param name the name of the class that carries it
 * @param form what it is put into
 * @param body what stands in the body, or null for nothing
 * @param wrapper the type of the body whose members are the parameters or results; null when the body itself is
 * @param anyWrapper whether the wrapper may come under any name: those of answers to remote procedure calls are custom only
 * @param encoded whether the body is in the SOAP encoding (SOAP 1.1, section 5)
 * @param headers what stands in the header
 * @param attachments the parts that travel beside the envelope, or are the whole content of an HTTP message
 * @param mediaTypes the media types of the attachments, empty for any
 * @param action the action that addresses it, or null when the contract asks for no addressing
 */
public record ApiMessage(
        String name,
        WireMessage.Form form,
        Property body,
        ApiClass wrapper,
        boolean anyWrapper,
        boolean encoded,
        List<Property> headers,
        List<Property> attachments,
        List<String> mediaTypes,
        String action) {
    /** The message with its body as one value. */
    ApiMessage whole() {
        return new ApiMessage(name, form, body, null, anyWrapper, encoded, headers, attachments, mediaTypes, action);
    }

    /** What stands neither in the body nor in a wrapper: the headers, then the attachments. */
    public List<Property> outside() {
        List<Property> outside = new ArrayList<>(headers);
        outside.addAll(attachments);
        return outside;
    }

    /** What goes in or comes out one by one: members of the wrapper or the body, then headers and attachments. */
    public List<Property> values() {
        List<Property> values = new ArrayList<>();
        if (wrapper != null) {
            values.addAll(wrapper.elements());
        } else if (body != null) {
            values.add(body);
        }
        values.addAll(outside());
        return values;
    }
}
