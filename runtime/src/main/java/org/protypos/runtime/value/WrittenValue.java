package org.protypos.runtime.value;

/**
 * A value that is kept as it is written, because no type of the platform holds all that XML Schema lets one write. Two
 * values are equal when they are of one type and written the same.
 */
public abstract sealed class WrittenValue permits XmlDate, XmlDateTime, XmlDuration, XmlPartialDate, XmlTime {
    private final String text;

    WrittenValue(String text) {
        this.text = text;
    }

    /** The value as it is written in XML. */
    public final String text() {
        return text;
    }

    /** Whether a time zone is given. */
    final boolean isZoned() {
        return CalendarText.zoneStart(text) < text.length();
    }

    /** What is written before the time zone. */
    final String local() {
        return text.substring(0, CalendarText.zoneStart(text));
    }

    @Override
    public final boolean equals(Object other) {
        return other != null && other.getClass() == getClass() && ((WrittenValue) other).text.equals(text);
    }

    @Override
    public final int hashCode() {
        return text.hashCode();
    }

    @Override
    public final String toString() {
        return text;
    }
}
