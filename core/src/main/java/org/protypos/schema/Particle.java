package org.protypos.schema;

/**
 * A term with how often it may occur (XML Schema Part 1, section 3.9).
 *
 * @param least how often it must occur
 * @param most how often it may occur, {@link #UNBOUNDED} for any number
 */
public record Particle(Term term, int least, int most) {
    /** No upper bound. */
    public static final int UNBOUNDED = Integer.MAX_VALUE;

    /** Whether it may occur more than once. */
    public boolean repeats() {
        return most > 1;
    }
}
