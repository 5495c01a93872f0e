package org.protypos.binding;

import java.util.Map;
import java.util.stream.Collectors;
import org.protypos.diagnostic.Place;

/**
 * A rule as a file has it: its keys with their values, and where everything stands.
 *
 * @param inContract whether the contract itself says it
 */
record WrittenRule(Map<String, String> values, Map<String, Place> places, Place place, boolean inContract) {
    /** What nothing at all is read as: only a default can be it. */
    static final String NOTHING = "\u0000";

    /** Stands between the items of a list. */
    static final String BETWEEN = "\u001f";

    /** What it says, without what it is about and why. */
    String said() {
        return values.entrySet().stream()
                .filter(one -> !one.getKey().equals("on") && !one.getKey().equals("because"))
                .map(one -> one.getKey() + ": "
                        + one.getValue().replace(NOTHING, "nothing").replace(BETWEEN, ", "))
                .collect(Collectors.joining(", "));
    }

    boolean has(String key) {
        return values.containsKey(key);
    }

    String text(String key) {
        return values.get(key);
    }

    /** Whether a key says yes; null when it is not there. */
    Boolean flag(String key) {
        return has(key) ? Boolean.valueOf(values.get(key)) : null;
    }

    Place at(String key) {
        return places.get(key);
    }
}
