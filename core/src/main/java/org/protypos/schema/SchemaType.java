package org.protypos.schema;

import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A type definition (XML Schema Part 1, section 2.2.1). */
public sealed interface SchemaType permits ComplexType, SimpleType {
    /** The name, or null for an anonymous type. */
    QName name();

    /** The type that it comes from; null for none. */
    TypeReference base();

    /** What becomes of it in the case that it is. */
    <R> R map(Function<ComplexType, R> complex, Function<SimpleType, R> simple);

    /** What the contract says about it, empty for nothing. */
    String documentation();

    /** Where it is defined, or null for a built-in type. */
    Place place();
}
