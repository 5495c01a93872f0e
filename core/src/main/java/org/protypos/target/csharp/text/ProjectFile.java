package org.protypos.target.csharp.text;

/** What the project files of MSBuild have in common. */
public final class ProjectFile {
    private static final String SPECIAL = "%*?@$();'\"&<>";

    private ProjectFile() {}

    /** A path as the value of an attribute: MSBuild knows some characters as its own, and XML some. */
    public static String escaped(String path) {
        StringBuilder text = new StringBuilder();
        for (char c : path.toCharArray()) {
            if (SPECIAL.indexOf(c) >= 0) {
                text.append('%').append(Integer.toHexString(c));
            } else {
                text.append(c);
            }
        }
        return text.toString();
    }
}
