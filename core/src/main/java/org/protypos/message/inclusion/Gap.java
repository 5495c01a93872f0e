package org.protypos.message.inclusion;

import java.util.List;
import java.util.function.Supplier;
import org.protypos.message.sample.Outline;

/**
 * Something that messages of one contract may be and messages of the other may not.
 *
 * @param kind what it is
 * @param words what it is, for a person
 * @param clues the components that may be the reason, from the innermost to the outermost
 * @param root what the message begins with in which it was found
 * @param outline tells how such a message looks, or is null when none can be made
 */
public record Gap(Kind kind, String words, List<Clue> clues, Root root, Supplier<Outline> outline) {
    /** What a gap does. */
    public enum Kind {
        /** A message is refused. */
        REFUSED,
        /** No message is refused, but what is absent means something else. */
        MEANS_ELSE,
        /** Whether a message is refused cannot be decided. */
        UNDECIDED
    }
}
