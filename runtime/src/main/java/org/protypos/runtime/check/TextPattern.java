package org.protypos.runtime.check;

import java.util.regex.Pattern;

/** A pattern that texts are held to: by the matcher of the platform as long as that is quick, by an automaton otherwise. */
final class TextPattern {
    private final String java;
    private volatile Pattern quick;
    private volatile PatternAutomaton steady;
    private volatile boolean tooLarge;

    TextPattern(String java) {
        this.java = java;
    }

    /** Whether the whole of a text matches. What cannot be told within reason is not held against the text. */
    boolean matches(String text) {
        if (steady == null) {
            Pattern pattern = quick == null ? Pattern.compile(java) : quick;
            quick = pattern;
            try {
                return pattern.matcher(new BoundedText(text)).matches();
            } catch (BoundedText.TooSlowException | StackOverflowError e) {
                if (tooLarge) {
                    return true;
                }
                // A pattern that was slow once is slow again.
                steady = PatternAutomaton.of(java);
                tooLarge = steady == null;
                if (tooLarge) {
                    return true;
                }
            }
        }
        Boolean matches = steady.matches(text);
        return matches == null || matches;
    }
}
