package org.protypos.runtime.xml;

import java.util.Collection;
import java.util.List;
import java.util.Locale;

/** Collects the members of a value for its {@code toString()}: names and values, absent ones left out. */
public final class Description {
    private static final int SHOWN_BYTES = 8;

    private final StringBuilder text = new StringBuilder();
    private boolean first = true;
    private int members;

    /** Begins with the name of the type. */
    public Description(String typeName) {
        text.append(typeName).append('{');
    }

    /**
     * Adds a member unless it is absent.
     *
     * @param name the member's name
     * @param value its value; null and empty collections are left out
     */
    public void member(String name, Object value) {
        members++;
        if (value == null || value instanceof Collection<?> many && many.isEmpty()) {
            return;
        }
        text.append(first ? "" : ", ").append(name).append('=');
        first = false;
        append(value);
    }

    private void append(Object value) {
        if (value instanceof byte[] bytes) {
            appendBytes(bytes);
        } else if (value instanceof List<?> list) {
            text.append('[');
            for (int i = 0; i < list.size(); i++) {
                text.append(i == 0 ? "" : ", ");
                append(list.get(i));
            }
            text.append(']');
        } else {
            text.append(value);
        }
    }

    private void appendBytes(byte[] bytes) {
        text.append(bytes.length).append(" bytes");
        for (int i = 0; i < Math.min(SHOWN_BYTES, bytes.length); i++) {
            text.append(i == 0 ? " " : "").append(String.format(Locale.ROOT, "%02x", bytes[i]));
        }
    }

    /** How many members there are, absent ones among them. */
    int members() {
        return members;
    }

    /** All of it. */
    public String text() {
        return text + "}";
    }
}
