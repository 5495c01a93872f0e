package org.protypos.message.inclusion;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;

/**
 * A component that may be what makes the difference.
 *
 * @param one the type or the element declaration of the one contract, or null
 * @param other that of the other, or null
 * @param member the element or attribute in it that is meant, in the words of the one contract; null for itself
 * @param isAttribute whether the member is an attribute
 * @param facts what is probably said otherwise of it, the likeliest first
 * @param value the listed value that is meant, or null
 */
public record Clue(Object one, Object other, QName member, boolean isAttribute, List<String> facts, String value) {
    static Clue of(Object one, Object other, String... facts) {
        return new Clue(one, other, null, false, List.of(facts), null);
    }

    static Clue member(TypeModel one, TypeModel other, QName member, boolean isAttribute, String... facts) {
        return new Clue(one.definition(), other.definition(), member, isAttribute, List.of(facts), null);
    }
}
