package org.protypos.runtime.xml;

import java.util.Objects;
import javax.xml.namespace.QName;

/**
 * An element with its name and its typed content, for places where the contract leaves the name open.
 *
 * @param name the element's expanded name
 * @param value the content
 * @param <T> the type of the content
 */
public record XmlElement<T extends XmlObject>(QName name, T value) {
    public XmlElement {
        Objects.requireNonNull(name, "name");
        Objects.requireNonNull(value, "value");
    }

    /**
     * Gives an element.
     *
     * @param namespace the namespace of its name, empty for none
     * @param name the local name
     * @param value the content
     */
    public static <T extends XmlObject> XmlElement<T> of(String namespace, String name, T value) {
        return new XmlElement<>(new QName(namespace, name), value);
    }

    /** Whether the element has this name. */
    public boolean isNamed(String namespace, String local) {
        return name.getLocalPart().equals(local) && name.getNamespaceURI().equals(namespace);
    }
}
