package org.protypos.binding;

import java.util.function.Function;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.naming.Subject;

/** What somebody wants of the API beyond names. */
public interface Shaping {
    /** Nobody wants anything. */
    Shaping NONE = new Shaping() {
        @Override
        public <T> Choice<T> choice(Subject subject, Function<Shape, T> aspect) {
            return null;
        }
    };

    /**
     * What is wanted of a component in one respect, or null when nobody wants anything.
     *
     * @param aspect the respect: a part of the shape
     */
    <T> Choice<T> choice(Subject subject, Function<Shape, T> aspect);

    /**
     * Something that is wanted.
     *
     * @param place where it is wanted
     * @param isWish whether nothing is wrong when it cannot be had: the contract itself wants it, or it is wanted of many at once
     */
    record Choice<T>(T value, Place place, boolean isWish) {
        /** Tells that it cannot be had. */
        public void useless(String message, Findings findings) {
            if (isWish) {
                findings.warning("rule-useless", place, message, "say it of what can have it alone");
            } else {
                findings.error("rule-useless", place, message, "take the rule out, or say it of another component");
            }
        }
    }
}
