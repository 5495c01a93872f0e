package org.protypos.target.content;

/** Where statements are written, in a language that has lines and blocks. */
public interface CodeLines {
    /** Writes a line, given in parts between which it may be broken. */
    CodeLines line(String... parts);

    /** Opens a block behind a head such as {@code if (…)}, without what marks the block. */
    CodeLines block(String... head);

    /** Closes a block and opens the one that goes on from it, such as {@code else}. */
    CodeLines orElse(String head);

    /** Closes a block. */
    CodeLines close();
}
