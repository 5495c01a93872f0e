package org.protypos.message.check;

import org.protypos.diagnostic.Place;

/**
 * Where a message is not what the contract says.
 *
 * @param code a short stable name for the kind of deviation
 * @param place where in the message
 * @param path the elements from the root to the place
 * @param came what is wrong with what came, as one sentence without a full stop
 * @param expected what the contract expects there, or an empty text
 * @param contract where the contract says so, or null
 */
public record Deviation(String code, Place place, String path, String came, String expected, Place contract) {}
