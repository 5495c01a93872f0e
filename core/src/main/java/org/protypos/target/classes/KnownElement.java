package org.protypos.target.classes;

/**
 * An element that is known by its name.
 *
 * @param value what it holds
 * @param defaultValue the value that it stands for when it is empty, or null
 */
public record KnownElement(ValueType value, String defaultValue) {
    /** The text that it stands for when it is empty; null when there is none, or when it does not hold text alone. */
    public String standing() {
        boolean text = value instanceof ValueType.Structured structured
                ? structured.type().simpleText() != null
                : !(value instanceof ValueType.Anything);
        return text ? defaultValue : null;
    }
}
