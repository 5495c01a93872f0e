package org.protypos.authoring;

import javax.xml.namespace.QName;

/**
 * An attribute that is to be written.
 *
 * @param name its name; one of another namespace is a reference
 * @param documentation what is said of it, or null
 * @param otherwise its default, or null
 */
public record DraftAttribute(QName name, DraftValue value, boolean isRequired, String documentation, String otherwise) {
    /** An attribute without a default. */
    public DraftAttribute(QName name, DraftValue value, boolean isRequired, String documentation) {
        this(name, value, isRequired, documentation, null);
    }
}
