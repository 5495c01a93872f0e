package org.protypos.target.code;

/** Where statements are written, in a language that has lines and blocks. Each is a template, as {@link Code} has them. */
public interface CodeLines {
    /** Writes a line. */
    CodeLines line(String template, Object... arguments);

    /** Opens a block behind a head such as {@code if (…)}, without what marks the block. */
    CodeLines block(String template, Object... arguments);

    /** Closes a block and opens the one that goes on from it, such as {@code else}. */
    CodeLines orElse(String template, Object... arguments);

    /** Closes a block. */
    CodeLines close();
}
