package org.protypos.api.type;

/**
 * What a restriction demands of a member that it inherits (XML Schema Part 1, section 3.4.6): less may be there than in its base.
 *
 * @param member the member, as the type has it that declares it
 * @param least how many there must be at least
 * @param most how many there may be; {@code Particle.UNBOUNDED} for no limit
 * @param facets what is demanded of each value, or null for nothing more than the base does
 */
public record Narrowing(Member member, int least, int most, ValueFacets facets) {
    /** Whether nothing of it may be there. */
    public boolean isAbsent() {
        return most == 0;
    }
}
