package org.protypos.message.check;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;
import org.protypos.message.tree.MessageElement;
import org.protypos.runtime.value.Lexical;

/**
 * Where a message is not what the contract says.
 *
 * @param code a short stable name for the kind of deviation
 * @param place where in the message
 * @param path the elements from the root to the place
 * @param came what is wrong with what came, as one sentence without a full stop
 * @param expected what the contract expects there, or an empty text
 * @param contract where the contract says so, or null
 * @param cause what the contract would have to say otherwise for the message to be right, or null when no one thing would do
 */
public record Deviation(
        String code, Place place, String path, String came, String expected, Place contract, Cause cause) {
    private static final int MOST = 1_000;

    /** Names of a message may be as long as a message is; nobody wants to read such a one. */
    public Deviation {
        path = Lexical.shortened(path, MOST);
        came = Lexical.shortened(came, MOST);
    }

    /** A deviation of which nothing more is known. */
    public Deviation(String code, Place place, String path, String came, String expected, Place contract) {
        this(code, place, path, came, expected, contract, null);
    }

    /** What a contract would have to say otherwise. */
    public enum Lack {
        /** That an element may be absent. */
        MISSING,
        /** That an element may come more often. */
        REPEATED,
        /** That there is an element. */
        UNKNOWN,
        /** That an element is in another namespace. */
        NAMESPACE,
        /** That an element may be nil. */
        NIL,
        /** That an element may have a value. */
        VALUE,
        /** That an attribute may be absent. */
        MISSING_ATTRIBUTE,
        /** That there is an attribute. */
        UNKNOWN_ATTRIBUTE,
        /** That an attribute may have a value. */
        ATTRIBUTE_VALUE
    }

    /**
     * The component that a contract would have to describe otherwise.
     *
     * @param around the element of the message whose type has the component; null when it is a global element
     * @param name the name that the contract has for the element or attribute, or that the message has when that is unknown
     * @param came the element that came, or null when none did
     * @param text the value that came, or null
     */
    public record Cause(Lack lack, MessageElement around, QName name, MessageElement came, String text) {}
}
