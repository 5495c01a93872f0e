package org.protypos.exchange.standin;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.protypos.diagnostic.Place;
import org.protypos.message.json.JsonValue;

/**
 * What a stand-in is to answer.
 *
 * @param when the values that a request must have, by their paths
 * @param secret the paths at which a request must have values, whatever they are: what was recorded there looked secret
 * @param answer the values of the answer, over those of a sample; null for the sample as it is
 * @param fault the fault to answer with, by the name of its element, empty for one without a detail; null for an answer
 * @param reason what the fault says
 * @param blame whom the fault blames
 * @param delay how long the answer takes
 * @param broken how the answer is to be broken, or null
 * @param each the answers to give in turn, the last one from then on; empty when there is only this one
 * @param whole whether the values are all of the answer, and stand for themselves
 * @param place where the file says so
 */
record PlannedAnswer(
        Map<String, String> when,
        List<String> secret,
        JsonValue answer,
        String fault,
        String reason,
        Blame blame,
        Duration delay,
        Breakage broken,
        List<PlannedAnswer> each,
        boolean whole,
        Place place) {}
