package org.protypos.plan;

import javax.xml.namespace.QName;

/**
 * Whom an anonymous type belongs to: that decides where it is put and how it is called.
 *
 * @param host the class to nest it in, or null when it belongs to a global component
 * @param name the name of the component it belongs to
 */
record Owner(ApiClass host, QName name) {
    static Owner global(QName name) {
        return new Owner(null, name);
    }
}
