package org.protypos.source;

import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.runtime.check.ValueRule;

/** The names that components of contracts have: without a colon (Namespaces in XML, section 3). */
public final class Names {
    private static final ValueRule NAME = ValueRule.of("NCName");

    private Names() {}

    /** Whether a text is such a name. */
    public static boolean isName(String text) {
        return NAME.complaint(text, null) == null;
    }

    /**
     * Tells of a name that is none.
     *
     * @param written whether messages carry the name, so that none could be written
     */
    public static void check(Element element, boolean written, Findings findings) {
        String name = element.attribute("name");
        if (name != null && !isName(name)) {
            tell(name, element.place("name"), written, findings);
        }
    }

    /**
     * Tells of a name that is none.
     *
     * @param written whether messages carry the name, so that none could be written
     */
    public static void check(String name, Place place, boolean written, Findings findings) {
        if (!isName(name)) {
            tell(name, place, written, findings);
        }
    }

    private static void tell(String name, Place place, boolean written, Findings findings) {
        String message = "\"" + Printable.of(name) + "\" is no name in XML";
        String cure = "begin it with a letter or _ and go on with letters, digits, hyphens, dots and _";
        if (written) {
            findings.error("bad-name", place, message, cure);
        } else {
            findings.warning("bad-name", place, message, cure);
        }
    }
}
