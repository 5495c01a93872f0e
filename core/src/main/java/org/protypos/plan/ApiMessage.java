package org.protypos.plan;

import java.util.ArrayList;
import java.util.List;

/**
 * The input or output of an operation on the wire.
 *
 * @param name the name of the class that carries it
 * @param body what stands in the body, or null for nothing
 * @param wrapper the type of the body whose members are the parameters or results; null when the body itself is
 * @param anyWrapper whether the wrapper may come under any name: those of answers to remote procedure calls are custom only
 * @param encoded whether the body is in the SOAP encoding (SOAP 1.1, section 5)
 * @param headers what stands in the header
 */
public record ApiMessage(
        String name, Property body, ApiClass wrapper, boolean anyWrapper, boolean encoded, List<Property> headers) {
    /** What goes in or comes out one by one: members of the wrapper or the body, then the headers. */
    public List<Property> values() {
        List<Property> values = new ArrayList<>();
        if (wrapper != null) {
            values.addAll(wrapper.elements());
        } else if (body != null) {
            values.add(body);
        }
        values.addAll(headers);
        return values;
    }
}
