package org.protypos.authoring;

import javax.xml.namespace.QName;

/**
 * An attribute that is to be written.
 *
 * @param name its name; one of another namespace is a reference
 * @param documentation what is said of it, or null
 * @param preset what it is where nothing is written, or null
 */
public record DraftAttribute(QName name, DraftValue value, boolean isRequired, String documentation, Preset preset) {
    /** An attribute without a default. */
    public DraftAttribute(QName name, DraftValue value, boolean isRequired, String documentation) {
        this(name, value, isRequired, documentation, null);
    }
}
