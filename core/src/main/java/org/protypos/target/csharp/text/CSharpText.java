package org.protypos.target.csharp.text;

import org.protypos.target.ContractText;

/** Puts text of a contract into C# source, where it must stay text: in literals and in comments. */
public final class CSharpText {
    private CSharpText() {}

    /** A string literal. */
    public static String literal(String text) {
        return ContractText.literal(text);
    }

    /** The name of a method of the runtime, which begins with a capital here. */
    public static String capital(String name) {
        return Character.toUpperCase(name.charAt(0)) + name.substring(1);
    }

    /** Text for a documentation comment, which is XML: nothing in it can end a line early or be a tag. */
    public static String comment(String text) {
        return ContractText.comment(text, (before, c) -> null);
    }
}
