package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * The type of something: named, or defined on the spot.
 *
 * @param name the name, or null when the type is anonymous
 * @param anonymous the type defined on the spot, or null when it is named
 * @param place where the reference stands
 */
public record TypeReference(QName name, SchemaType anonymous, Place place) {
    /** A type by name. */
    public static TypeReference to(QName name, Place place) {
        return new TypeReference(name, null, place);
    }

    /** A type defined on the spot. */
    public static TypeReference to(SchemaType anonymous) {
        return new TypeReference(null, anonymous, anonymous.place());
    }
}
