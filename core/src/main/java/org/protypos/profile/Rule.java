package org.protypos.profile;

import java.util.Locale;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;

/** A requirement of a profile, by its number; the wording of each is ours. */
interface Rule {
    /** Its number, such as {@code R2303}. */
    String name();

    /** What is said where it is broken. */
    Wording wording();

    /**
     * What is said of a requirement.
     *
     * @param isMust whether what breaks it does not conform; otherwise it is only better kept
     * @param wrong what is wrong where it is broken
     * @param cure how to mend that
     */
    record Wording(boolean isMust, String wrong, String cure) {}

    /**
     * Tells that it is broken: an error for what must be kept, a warning for what should be.
     *
     * @param more what is there, or null
     */
    default void tell(Findings findings, Place place, String more) {
        String code = "profile-" + name().toLowerCase(Locale.ROOT);
        String message = name() + ": " + wording().wrong() + (more == null ? "" : ": " + more);
        if (wording().isMust()) {
            findings.error(code, place, message, wording().cure());
        } else {
            findings.warning(code, place, message, wording().cure());
        }
    }
}
