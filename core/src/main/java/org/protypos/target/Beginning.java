package org.protypos.target;

import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A beginning of an implementation.
 *
 * @param file the file
 * @param methods the methods in it as text, by name
 * @param declared what a declaration looks like: a regular expression with %s for the name
 */
public record Beginning(SourceFile file, Map<String, String> methods, String declared) {
    /** How a method looks in languages that put parameters in parentheses behind its name. */
    public static final String METHOD = "\\b%s\\s*\\(";

    /** Whether text has a method of a name. */
    public boolean isDeclared(String name, String text) {
        return Pattern.compile(String.format(Locale.ROOT, declared, Pattern.quote(name)))
                .matcher(text)
                .find();
    }
}
