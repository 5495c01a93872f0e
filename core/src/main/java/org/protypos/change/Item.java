package org.protypos.change;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.protypos.diagnostic.Place;

/** A component of a contract with all that is said of it, for comparison. */
final class Item {
    private final Kind kind;
    private final String designator;
    private final Place place;
    private final Map<String, String> facts = new LinkedHashMap<>();
    private final Set<String> references = new LinkedHashSet<>();

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
        this.kind = kind;
        this.designator = designator;
        this.place = place;
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

    /** The global types and elements that it refers to. */
    Set<String> references() {
        return references;
    }

    Item say(String fact, Object value) {
        if (value != null && !value.toString().isEmpty()) {
            String text = value.toString();
            facts.put(fact, fact.equals("documentation") ? text.strip().replaceAll("\\s+", " ") : text);
        }
        return this;
    }

    Item refer(String to) {
        references.add(to);
        return this;
    }
}
