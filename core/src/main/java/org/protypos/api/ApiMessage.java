package org.protypos.api;

import java.util.ArrayList;
import java.util.List;
import org.protypos.api.type.Member;
import org.protypos.api.type.StructuredType;
import org.protypos.wire.WireMessage;

/**
 * The input or output of an operation.
 *
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
        WireMessage.Form form,
        Member body,
        StructuredType wrapper,
        boolean anyWrapper,
        boolean encoded,
        List<Member> headers,
        List<Member> attachments,
        List<String> mediaTypes,
        String action) {
    /** The message with its body as one value. */
    public ApiMessage whole() {
        return new ApiMessage(form, body, null, anyWrapper, encoded, headers, attachments, mediaTypes, action);
    }

    /** What goes in or comes out one by one: members of the wrapper or the body, then headers and attachments. */
    public List<Member> values() {
        List<Member> values = new ArrayList<>();
        if (wrapper != null) {
            values.addAll(wrapper.elements());
        } else if (body != null) {
            values.add(body);
        }
        values.addAll(headers);
        values.addAll(attachments);
        return values;
    }
}
