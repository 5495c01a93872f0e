package org.protypos.target.classes;

import java.util.ArrayList;
import java.util.List;
import org.protypos.api.ApiMessage;
import org.protypos.wire.WireMessage;

/**
 * The input or output of an operation.
 *
 * @param name the name of the class that carries it
 * @param body what stands in the body, or null for nothing
 * @param wrapper the type of the body whose members are the parameters or results; null when the body itself is
 * @param headers what stands in the header
 * @param attachments the parts that travel beside the envelope, or are the whole content of an HTTP message
 * @param outsideNames what headers and then attachments are called in the class, in the spelling of members
 * @param api what it is in the API
 */
public record PlannedMessage(
        String name,
        Property body,
        PlannedClass wrapper,
        List<Property> headers,
        List<Property> attachments,
        List<String> outsideNames,
        ApiMessage api) {
    /** What it is put into. */
    public WireMessage.Form form() {
        return api.form();
    }

    /** Whether the wrapper may come under any name: those of answers to remote procedure calls are custom only. */
    public boolean anyWrapper() {
        return api.anyWrapper();
    }

    /** Whether the body is in the SOAP encoding (SOAP 1.1, section 5). */
    public boolean encoded() {
        return api.encoded();
    }

    /** The media types of the attachments, empty for any. */
    public List<String> mediaTypes() {
        return api.mediaTypes();
    }

    /** The action that addresses it, or null when the contract asks for no addressing. */
    public String action() {
        return api.action();
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
