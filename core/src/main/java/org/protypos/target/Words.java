package org.protypos.target;

/** Finds names in source text. */
public final class Words {
    private Words() {}

    /** Whether a name stands somewhere in a text, and is not just a piece of another. */
    public static boolean contains(StringBuilder text, String name) {
        for (int at = text.indexOf(name); at >= 0; at = text.indexOf(name, at + 1)) {
            int end = at + name.length();
            boolean begins = at == 0 || !Character.isJavaIdentifierPart(text.charAt(at - 1));
            if (begins && (end == text.length() || !Character.isJavaIdentifierPart(text.charAt(end)))) {
                return true;
            }
        }
        return false;
    }
}
