package org.protypos.change;

import org.protypos.diagnostic.Place;

/**
 * Why a difference breaks something for somebody on the wire: a message that one side may send and the other refuses, or the reason why
 * none is shown.
 *
 * @param reader for whom it breaks
 * @param sent whether the message comes from who is of the old contract, rather than to them
 * @param message the message, or null
 * @param of what kind of message it is: an operation and which way it goes, or an element
 * @param refused what is refused, in words; null when it is no one thing in a message
 * @param at where in the message it is refused, or null
 * @param why what the side that refuses it says, or why there is no message
 * @param contract where that side's contract says so, or null
 */
public record Evidence(
        Reader reader, boolean sent, String message, String of, String refused, String at, String why, Place contract) {
    /** Whether there is a message. */
    public boolean isShown() {
        return message != null;
    }
}
