package org.protypos.target.code;

/** How a file writes what code only refers to. */
public interface Spelling {
    /** What a type is called. */
    String name(TypeName type);

    /** A text as a literal. */
    String literal(String text);
}
