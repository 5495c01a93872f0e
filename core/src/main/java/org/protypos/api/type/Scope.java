package org.protypos.api.type;

import javax.xml.namespace.QName;

/**
 * Whom an anonymous type belongs to.
 *
 * @param host the type that it is defined in, or null when it is in a global component
 * @param name the name of the component that it belongs to
 */
public record Scope(StructuredType host, QName name) {
    /** Where a global component is the host: what is in it belongs to nobody else. */
    public static Scope global(QName name) {
        return new Scope(null, name);
    }
}
