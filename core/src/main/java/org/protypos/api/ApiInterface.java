package org.protypos.api;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.naming.Subject;
import org.protypos.wire.WireInterface;

/**
 * A port type as bindings carry it that do so alike: one that is carried both by SOAP and by HTTP alone, or as documents and as
 * calls, is two, for its messages look different.
 *
 * @param subject how rules speak of the port type
 * @param name the port type
 * @param standing how it stands beside others for the port type
 * @param binding the first binding that carries it, or null when there is none
 * @param mentioned the operations of the port type, whatever becomes of them, with their names
 * @param operations the operations that the binding carries
 * @param verbs the HTTP methods of its bindings when they speak HTTP alone, empty when they speak SOAP
 */
public record ApiInterface(
        Subject subject,
        QName name,
        WireInterface.Standing standing,
        QName binding,
        List<Mention> mentioned,
        List<ApiOperation> operations,
        List<String> verbs,
        String documentation) {
    /** A component that a definition mentions, with its name. */
    public record Mention(Subject subject, String name) {}

    /** Whether some binding carries it, so that it can be called and served. */
    public boolean isBound() {
        return binding != null;
    }

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
