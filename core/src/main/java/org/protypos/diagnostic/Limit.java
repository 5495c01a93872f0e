package org.protypos.diagnostic;

/**
 * A bound on what a contract may hold, so that none takes memory or time without an end. Whoever has a contract that needs more
 * sets it by a property of the platform.
 *
 * @param property the name of the property
 * @param most the bound in force
 */
public record Limit(String property, int most) {
    /**
     * A bound that holds unless the property says another.
     *
     * @param standard the bound when the property is not set, or is no positive number
     */
    public static Limit of(String property, int standard) {
        int set = Integer.getInteger(property, standard);
        return new Limit(property, set > 0 ? set : standard);
    }

    /** How to allow more, to be put behind another cure. */
    public String cure() {
        return ", or allow more with PROTYPOS_JAVA_FLAGS=-D" + property + "=NUMBER";
    }
}
