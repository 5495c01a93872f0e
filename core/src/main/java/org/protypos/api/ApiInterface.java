package org.protypos.api;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;

/**
 * A port type as one kind of binding carries it: one that is carried both by SOAP and by HTTP alone is two, for its messages
 * look different.
 *
 * @param subject how rules speak of the port type
 * @param name the port type
 * @param isSecond whether it is the second of two for one port type
 * @param mentioned the operations of the port type, whatever becomes of them, with their names
 * @param operations the operations that the binding carries
 * @param isBound whether some binding carries it, so that it can be called and served
 * @param verbs the HTTP methods of its bindings when they speak HTTP alone, empty when they speak SOAP
 */
public record ApiInterface(
        Subject subject,
        QName name,
        boolean isSecond,
        List<Mention> mentioned,
        List<ApiOperation> operations,
        boolean isBound,
        List<String> verbs,
        String documentation) {
    /** A component that a definition mentions, with its name. */
    public record Mention(Subject subject, String name) {}

    /** Whether it is called by HTTP alone. */
    public boolean isHttp() {
        return !verbs.isEmpty();
    }

    @Override
    public boolean equals(Object other) {
        return this == other;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(this);
    }
}
