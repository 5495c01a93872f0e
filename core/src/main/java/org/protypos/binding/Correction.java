package org.protypos.binding;

import javax.xml.namespace.QName;
import org.protypos.schema.Particle;

/**
 * What a contract says wrongly of an element or attribute, put right; each part may be null.
 *
 * @param least how often it must occur, together with {@code most}
 * @param most how often it may occur
 * @param nillable whether an element may be nil
 * @param type the type that it is of
 */
record Correction(Integer least, Integer most, Boolean nillable, QName type) {
    boolean isNothing() {
        return least == null && nillable == null && type == null;
    }

    /** An occurrence as rules write it. */
    static String occurs(int least, int most) {
        return most == Particle.UNBOUNDED ? least + "..*" : least == most ? String.valueOf(least) : least + ".." + most;
    }
}
