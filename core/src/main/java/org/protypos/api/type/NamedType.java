package org.protypos.api.type;

import javax.xml.namespace.QName;
import org.protypos.naming.Subject;

/** A type with something in it that languages have names for: a structured type, or a set of named values. */
public sealed interface NamedType permits StructuredType, EnumeratedType {
    /** Where it is defined. */
    Origin origin();

    /** How rules speak of it. */
    Subject subject();

    /** The type whose member or group it is; null when it is none of those. */
    StructuredType host();

    /** The name of the component that it belongs to: the type itself, the element or attribute around, the message. */
    QName name();

    /** What is said about it. */
    String documentation();
}
