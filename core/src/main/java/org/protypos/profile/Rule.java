package org.protypos.profile;

import java.util.Locale;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;

/** A requirement of a profile, by its number; the wording of each is ours. */
interface Rule {
    /** Its number, such as {@code R2303}. */
    String name();

    /** Whether what breaks it does not conform; otherwise it is only better kept. */
    boolean isMust();

    /** What is wrong where it is broken. */
    String wrong();

    /** How to mend that. */
    String cure();

    /**
     * Tells that it is broken: an error for what must be kept, a warning for what should be.
     *
     * @param more what is there, or null
     */
    default void tell(Findings findings, Place place, String more) {
        String code = "profile-" + name().toLowerCase(Locale.ROOT);
        String message = name() + ": " + wrong() + (more == null ? "" : ": " + more);
        if (isMust()) {
            findings.error(code, place, message, cure());
        } else {
            findings.warning(code, place, message, cure());
        }
    }
}
