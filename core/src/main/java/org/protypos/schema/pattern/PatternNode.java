package org.protypos.schema.pattern;

import java.util.List;

/** What a pattern is made of (XML Schema Part 2, appendix F). */
sealed interface PatternNode {
    /** One of several. */
    record Branches(List<PatternNode> branches) implements PatternNode {}

    /** One after the other. */
    record Pieces(List<PatternNode> pieces) implements PatternNode {}

    /** So many times; {@code most} is {@link Integer#MAX_VALUE} for any number. */
    record Repeated(PatternNode piece, int least, int most) implements PatternNode {}

    /**
     * One character of a set.
     *
     * @param java the set as a regular expression of the platform
     */
    record Characters(String java) implements PatternNode {}
}
