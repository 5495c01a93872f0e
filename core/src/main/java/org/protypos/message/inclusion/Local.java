package org.protypos.message.inclusion;

import java.util.ArrayList;
import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.message.sample.Outline;

/** What was found in two types, or two element declarations, by themselves, wherever they are used. */
final class Local {
    private final List<Finding> findings = new ArrayList<>();
    private final List<Inner> inner = new ArrayList<>();

    /** A gap, with the outline of the element in which it is; null when there is none. */
    record Finding(Gap.Kind kind, String words, List<Clue> clues, Outline outline) {}

    /**
     * An element inside of both.
     *
     * @param word the names of all elements that then stand there
     * @param at which of them it is
     */
    record Inner(List<QName> word, int at, Elements elements) {}

    void add(Gap.Kind kind, String words, Outline outline, Clue... clues) {
        findings.add(new Finding(kind, words, List.of(clues), outline));
    }

    void refused(String words, Outline outline, Clue... clues) {
        add(Gap.Kind.REFUSED, words, outline, clues);
    }

    void add(List<QName> word, int at, Elements elements) {
        inner.add(new Inner(word, at, elements));
    }

    List<Finding> findings() {
        return findings;
    }

    List<Inner> inner() {
        return inner;
    }
}
