package org.protypos.diagnostic;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Collects findings, so that none stops the work and all are told together. The same finding counts once. */
public final class Findings {
    private final Set<Finding> all = new LinkedHashSet<>();

    /** Adds an error. */
    public void error(String code, Place place, String message, String cure) {
        all.add(new Finding(code, Severity.ERROR, place, message, cure));
    }

    /** Adds a warning. */
    public void warning(String code, Place place, String message, String cure) {
        all.add(new Finding(code, Severity.WARNING, place, message, cure));
    }

    /** Adds a note. */
    public void note(String code, Place place, String message, String cure) {
        all.add(new Finding(code, Severity.NOTE, place, message, cure));
    }

    /** Adds all of another collection. */
    public void addAll(List<Finding> findings) {
        all.addAll(findings);
    }

    /** Whether there is any error. */
    public boolean hasErrors() {
        return all.stream().anyMatch(Finding::isError);
    }

    /** All findings by document and place. */
    public List<Finding> sorted() {
        List<Finding> sorted = new ArrayList<>(all);
        sorted.sort(Findings::compare);
        return List.copyOf(sorted);
    }

    /** Those without a place come first. */
    private static int compare(Finding one, Finding other) {
        int order = one.place() == null || other.place() == null
                ? Boolean.compare(one.place() != null, other.place() != null)
                : one.place().compareTo(other.place());
        order = order != 0 ? order : one.severity().compareTo(other.severity());
        order = order != 0 ? order : one.code().compareTo(other.code());
        return order != 0 ? order : one.message().compareTo(other.message());
    }
}
