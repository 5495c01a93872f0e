package org.protypos.diagnostic;

import java.util.Locale;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A choice that is made by whoever starts a run. How it is made is not known here, be it an option of a command or an
 * element of a build file: texts hold its mark, and who shows them puts that in its place.
 */
public enum Setting {
    /** A catalog that maps addresses to documents. */
    CATALOG,
    /** The folder that is written into. */
    INTO,
    /** Whether what is there is replaced. */
    OVERWRITE,
    /** The package of the code. */
    PACKAGE,
    /** What is compiled with the code. */
    WITH,
    /** The folder of files that records name. */
    BYTE_FILES,
    /** How the text of records is written. */
    CODE_PAGE,
    /** The name of a port. */
    PORT,
    /** The style of a binding. */
    STYLE,
    /** The port type that is meant. */
    ON;

    private static final Pattern MARK = Pattern.compile("\u2039([a-z-]+)\u203a");

    /** Its word, with hyphens. */
    private String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** The mark that stands for it in texts. */
    @Override
    public String toString() {
        return "\u2039" + word() + "\u203a";
    }

    /**
     * A text as it is shown.
     *
     * @param shown gives what stands for a setting's word, in small letters and hyphens
     */
    public static String in(String text, UnaryOperator<String> shown) {
        return MARK.matcher(text).replaceAll(match -> Matcher.quoteReplacement(shown.apply(match.group(1))));
    }
}
