package org.protypos.message.json;

import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Place;

/** A value of JSON (RFC 8259) that knows where it stands; numbers keep their text, so that no digit is lost. */
public sealed interface JsonValue {
    /** Where it stands, or null when it was made up. */
    Place place();

    /** What a string, a number or a boolean is written as; null for anything else. */
    default String scalar() {
        return this instanceof Text text ? text.text() : this instanceof Literal literal ? literal.text() : null;
    }

    /** An object, its members in their order. */
    record Members(Map<String, JsonValue> members, Place place) implements JsonValue {}

    /** An array. */
    record Items(List<JsonValue> items, Place place) implements JsonValue {}

    /** A string. */
    record Text(String text, Place place) implements JsonValue {}

    /** A number or a boolean, as it is written. */
    record Literal(String text, Place place) implements JsonValue {}

    /** {@code null}. */
    record Nothing(Place place) implements JsonValue {}
}
