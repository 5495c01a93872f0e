package org.protypos.reference;

import java.util.List;
import org.protypos.diagnostic.Place;

/**
 * A part of the structure of a component.
 *
 * @param kind what it is
 * @param label what it is called in messages: a name, or a word for what has none
 * @param type its type in a few words, empty for none
 * @param occurs how often it comes, such as {@code 0..1}; empty where that makes no sense
 * @param demands what its values have to be beyond their type, each in a few words
 * @param documentation what the contract says about it
 * @param inCode its name in code, empty when it has none
 * @param designator how rules speak of it, empty when they do not
 * @param refers how rules speak of the component whose content it has; empty when it has its own or none
 * @param place where it stands, or null
 * @param children what is in it
 * @param isCut whether there is more in it, which is not told
 */
public record Node(
        Kind kind,
        String label,
        String type,
        String occurs,
        List<String> demands,
        String documentation,
        String inCode,
        String designator,
        String refers,
        Place place,
        List<Node> children,
        boolean isCut) {
    /** The same with the content of a component. */
    Node referring(String component) {
        return new Node(
                kind,
                label,
                type,
                occurs,
                demands,
                documentation,
                inCode,
                designator,
                component,
                place,
                List.of(),
                isCut);
    }

    /** The same as another kind of node. */
    Node as(Kind other, String comes) {
        return new Node(
                other, label, type, comes, demands, documentation, inCode, designator, refers, place, children, isCut);
    }

    /** What a node can be. */
    public enum Kind {
        /** A request, a response or a fault. */
        MESSAGE,
        /** A header block. */
        HEADER,
        /** A part of a message that is no element. */
        PART,
        ELEMENT,
        ATTRIBUTE,
        /** The text of an element that has attributes too. */
        TEXT,
        /** Elements one after the other, which come several times together. */
        SEQUENCE,
        /** One of several. */
        CHOICE,
        /** Elements in any order. */
        ALL,
        /** Any element. */
        ANY,
        /** Any attribute. */
        ANY_ATTRIBUTE
    }
}
