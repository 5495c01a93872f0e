package org.protypos.cli.syntax;

/** Something that takes part of a command line: a command, or arguments that several commands have in common. */
@FunctionalInterface
public interface Described {
    /** Says which options and parameters there are, and where their values go. */
    void describe(CommandSyntax syntax);
}
