package org.protypos.infer;

import java.util.List;
import org.protypos.diagnostic.Place;
import org.protypos.schema.BuiltIn;

/**
 * What somebody has decided about a place in the documents.
 *
 * @param at the place: {@code berth} for a root element or a type, {@code berth/number} for an element inside, with an @ for
 *     an attribute
 * @param type the type of its values, or null
 * @param values the values that there are; empty when any are; null when nothing is said
 * @param name how its type is called, or null
 * @param isApart whether it has a type of its own, whatever others are alike
 * @param isOptional whether it may be missing, or null when nothing is said
 * @param isRepeated whether it may come several times, or null when nothing is said
 * @param isInAnyOrder whether the elements in it come in any order, whatever order they had
 * @param place where that is said
 */
public record Decision(
        String at,
        BuiltIn type,
        List<String> values,
        String name,
        boolean isApart,
        Boolean isOptional,
        Boolean isRepeated,
        boolean isInAnyOrder,
        Place place) {}
