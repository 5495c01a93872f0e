package org.protypos.api;

import javax.xml.namespace.QName;

/**
 * Whom an anonymous type belongs to.
 *
 * @param host the type that it is defined in, or null when it is in a global component
 * @param name the name of the component that it belongs to
 */
record Scope(StructuredType host, QName name) {
    static Scope global(QName name) {
        return new Scope(null, name);
    }
}
