package org.protypos.change;

import java.util.LinkedHashMap;
import java.util.Map;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Designator;

/** A component of a contract with all that is said of it, for comparison. */
final class Item {
    private final Kind kind;
    private final String designator;
    private final String origin;
    private final Place place;
    private final Map<String, String> facts = new LinkedHashMap<>();

    /** What kinds of components are compared. */
    enum Kind {
        SERVICE("service"),
        PORT("port"),
        PORT_TYPE("port type"),
        OPERATION("operation"),
        MESSAGE("message"),
        HEADER("header"),
        FAULT("fault"),
        TYPE("type"),
        ELEMENT("element"),
        MEMBER("element"),
        ATTRIBUTE("attribute"),
        VALUE("value");

        private final String text;

        Kind(String text) {
            this.text = text;
        }

        String text() {
            return text;
        }
    }

    Item(Kind kind, String designator, Place place) {
        this(kind, designator, designator, place);
    }

    private Item(Kind kind, String designator, String origin, Place place) {
        this.kind = kind;
        this.designator = designator;
        this.origin = origin;
        this.place = place;
    }

    /** The same component under another name; nothing is said of it yet. */
    Item called(String other) {
        return new Item(kind, other, origin, place);
    }

    /** The designator that it has in its own contract. */
    String origin() {
        return origin;
    }

    /** The global component that a designator begins with. */
    static String root(String designator) {
        return Designator.of(designator).root();
    }

    Kind kind() {
        return kind;
    }

    String designator() {
        return designator;
    }

    Place place() {
        return place;
    }

    /** What is said, by what it is said about; what is not said is missing. */
    Map<String, String> facts() {
        return facts;
    }

    Item say(String fact, Object value) {
        if (value != null && !value.toString().isEmpty()) {
            String text = value.toString();
            facts.put(fact, fact.equals("documentation") ? text.strip().replaceAll("\\s+", " ") : text);
        }
        return this;
    }
}
