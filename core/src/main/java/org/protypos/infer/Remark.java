package org.protypos.infer;

/**
 * Something that was decided, and on what evidence.
 *
 * @param kind what sort of decision it is
 * @param at what it is about, as {@code berth/number}
 * @param decided what was decided, in a few words
 * @param evidence what it was decided on
 * @param isThin whether that is little
 */
public record Remark(Kind kind, String at, String decided, String evidence, boolean isThin) {
    /** The sorts of decisions. */
    public enum Kind {
        /** The type of values. */
        VALUE,
        /** That there are only some values. */
        VALUES,
        /** That several have one type. */
        SHARED,
        /** That one type extends another. */
        EXTENSION,
        /** How elements stand. */
        ORDER,
        /** That what was always there is required. */
        REQUIRED,
        /** That anything may come. */
        OPEN
    }
}
