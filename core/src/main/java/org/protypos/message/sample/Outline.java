package org.protypos.message.sample;

import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;

/**
 * What an element of a sample is to be, as far as that is decided beforehand; the rest is made up.
 *
 * @param type the type that it names by {@code xsi:type}, or null
 * @param isNil whether it says that it is nil
 * @param attributes what it has beside the attributes that it must have
 * @param text the text in it, or null
 * @param children the names of the elements in it, or null when that is left open
 * @param followed which of these has an outline of its own, from 0; -1 for none
 * @param inside that outline, or null
 */
public record Outline(
        QName type,
        boolean isNil,
        Map<QName, String> attributes,
        String text,
        List<QName> children,
        int followed,
        Outline inside) {
    /** Nothing is decided. */
    public static final Outline FREE = new Outline(null, false, Map.of(), null, null, -1, null);

    /** It is nil. */
    public static Outline nil() {
        return new Outline(null, true, Map.of(), null, null, -1, null);
    }

    /** It holds a text. */
    public static Outline text(String text) {
        return new Outline(null, false, Map.of(), text, null, -1, null);
    }

    /** It has an attribute. */
    public static Outline attribute(QName name, String value) {
        return new Outline(null, false, Map.of(name, value), null, null, -1, null);
    }

    /** It holds elements, one of them as outlined. */
    public static Outline children(List<QName> names, int followed, Outline inside) {
        return new Outline(null, false, Map.of(), null, List.copyOf(names), followed, inside);
    }

    /** The same, with a type that it names; null for none. */
    public Outline of(QName named) {
        return new Outline(named, isNil, attributes, text, children, followed, inside);
    }

    /** The same, with a text before what it holds. */
    public Outline with(String before) {
        return new Outline(type, isNil, attributes, before, children, followed, inside);
    }
}
