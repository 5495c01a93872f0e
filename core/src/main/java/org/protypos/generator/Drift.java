package org.protypos.generator;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/**
 * Something that is not as it would be generated.
 *
 * @param path the file, or what else it is
 */
public record Drift(Kind kind, String path) implements Comparable<Drift> {
    /** How it is otherwise. */
    public enum Kind {
        CHANGED,
        EDITED,
        MISSING,
        STALE;

        /** The word for it. */
        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    static Drift changed(String path) {
        return new Drift(Kind.CHANGED, path);
    }

    /** What has drifted in the folder of code that was compared with what is there. */
    public static List<Drift> of(GeneratedCode code) {
        String folder = code.order().into() + "/";
        List<Drift> drift = new ArrayList<>();
        code.report().added().forEach(path -> drift.add(new Drift(Kind.MISSING, folder + path)));
        code.report().changed().forEach(path -> drift.add(new Drift(Kind.CHANGED, folder + path)));
        code.report().removed().forEach(path -> drift.add(new Drift(Kind.STALE, folder + path)));
        code.report().edits().keySet().forEach(path -> drift.add(new Drift(Kind.EDITED, folder + path)));
        return drift.stream().sorted().toList();
    }

    @Override
    public int compareTo(Drift other) {
        return Comparator.comparing(Drift::kind).thenComparing(Drift::path).compare(this, other);
    }
}
