package org.protypos.message.inclusion;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javax.xml.namespace.QName;
import org.protypos.message.sample.Outline;

/** What was found in two types, or two element declarations, by themselves, wherever they are used. */
final class Local {
    private final List<Finding> findings = new ArrayList<>();
    private final List<Inner> inner = new ArrayList<>();

    /** A gap, with what makes the outline of the element in which it is; null when there is none. */
    record Finding(Gap.Kind kind, String words, List<Clue> clues, Supplier<Outline> outline) {}

    /**
     * An element inside of both.
     *
     * @param name its name in the one contract
     * @param word gives the names of elements that may stand there, itself among them
     */
    record Inner(QName name, Supplier<Word> word, Elements elements) {}

    /**
     * Names of elements that may stand in an element.
     *
     * @param at which of them is meant
     */
    record Word(List<QName> names, int at) {}

    void add(Gap.Kind kind, String words, Supplier<Outline> outline, Clue... clues) {
        findings.add(new Finding(kind, words, List.of(clues), outline));
    }

    void refused(String words, Outline outline, Clue... clues) {
        refused(words, outline == null ? null : () -> outline, clues);
    }

    void refused(String words, Supplier<Outline> outline, Clue... clues) {
        add(Gap.Kind.REFUSED, words, outline, clues);
    }

    void add(QName name, Supplier<Word> word, Elements elements) {
        inner.add(new Inner(name, word, elements));
    }

    List<Finding> findings() {
        return findings;
    }

    List<Inner> inner() {
        return inner;
    }
}
