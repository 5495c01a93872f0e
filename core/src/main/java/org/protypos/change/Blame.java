package org.protypos.change;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Finds among the differences the one that is the reason for something. */
final class Blame {
    private final Map<String, List<Told>> told = new HashMap<>();
    private final List<Told> all = new ArrayList<>();

    /**
     * Where the reason may be.
     *
     * @param designator a component, as the old contract calls it
     * @param facts what is probably said otherwise of it, the likeliest first
     */
    record Suspect(String designator, List<String> facts) {}

    Told add(Told difference) {
        told.computeIfAbsent(difference.designator(), any -> new ArrayList<>()).add(difference);
        all.add(difference);
        return difference;
    }

    List<Told> all() {
        return all;
    }

    /** The first of the differences that suspects lead to, or null. */
    Told find(Collection<Suspect> suspects) {
        for (Suspect suspect : suspects) {
            List<Told> differences = told.getOrDefault(suspect.designator(), List.of());
            for (String fact : suspect.facts()) {
                for (Told difference : differences) {
                    if (difference.fact().equals(fact)) {
                        return difference;
                    }
                }
            }
            for (Told difference : differences) {
                if (!difference.isProse()) {
                    return difference;
                }
            }
        }
        return null;
    }

    /** The first of the differences inside of a component that one of the suspects is, or null. */
    Told inside(Collection<Suspect> suspects) {
        for (Suspect suspect : suspects) {
            for (Told difference : all) {
                if (difference.designator().startsWith(suspect.designator() + "/") && !difference.isProse()) {
                    return difference;
                }
            }
        }
        return null;
    }
}
