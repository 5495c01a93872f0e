package org.protypos.infer;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What the values of an attribute, or the texts of an element, have been: in as much memory however many there are. */
final class ObservedValue {
    /** With more values than that nobody speaks of an enumeration. */
    private static final int MOST_VALUES = 20;

    private static final int LONGEST_NAME = 32;

    /** Fewer values than that say little. */
    private static final int FEW = 5;

    private static final int MANY = 12;
    private static final int REPEATED = 4;
    private static final int OFTEN = 10;

    private final Set<ValueKind> kinds = EnumSet.allOf(ValueKind.class);
    private Map<String, Integer> values = new LinkedHashMap<>();
    private long count;
    private long filled;
    private long written;

    void add(String text) {
        count++;
        if (!text.isEmpty()) {
            filled++;
        }
        if (!text.isBlank()) {
            written++;
        }
        if (values != null && values.containsKey(text)) {
            values.merge(text, 1, Integer::sum);
            return;
        }
        judge(text);
        if (values != null) {
            if (values.size() == MOST_VALUES || text.length() > LONGEST_NAME) {
                values = null;
            } else {
                values.put(text, 1);
            }
        }
    }

    /** A number is one of all wider kinds too, so that only the narrowest has to be looked at. */
    private void judge(String text) {
        boolean number = false;
        for (Iterator<ValueKind> all = kinds.iterator(); all.hasNext(); ) {
            ValueKind kind = all.next();
            if (number && kind.isNumber()) {
                continue;
            }
            if (!kind.takes(text)) {
                all.remove();
            } else {
                number |= kind.isNumber();
            }
        }
    }

    void addAll(ObservedValue other) {
        count += other.count;
        filled += other.filled;
        written += other.written;
        kinds.retainAll(other.kinds);
        if (values != null && other.values != null) {
            other.values.forEach((value, times) -> values.merge(value, times, Integer::sum));
        }
        if (other.values == null || values != null && values.size() > MOST_VALUES) {
            values = null;
        }
    }

    /** Whether what is made of these values takes all of others, too. */
    boolean covers(ObservedValue other) {
        return other.kinds.containsAll(kinds)
                && (values == null || other.values != null && values.keySet().containsAll(other.values.keySet()));
    }

    long count() {
        return count;
    }

    /** Whether there has been any text at all. */
    boolean isFilled() {
        return filled > 0;
    }

    /** Whether there has been nothing but white space. */
    boolean isBlank() {
        return written == 0;
    }

    /** The narrowest kind that all values are of. */
    ValueKind kind() {
        return count == 0 ? ValueKind.STRING : kinds.iterator().next();
    }

    /** Whether the kind was decided on few values. */
    boolean isThin() {
        return count < FEW && kind().isNarrow();
    }

    /** The values, when they are few, are names, and come again often enough; otherwise none. */
    List<String> enumeration() {
        if (values == null || kind() != ValueKind.TOKEN || values.size() < 2 || count < MANY) {
            return List.of();
        }
        boolean named = values.entrySet().stream()
                .allMatch(one -> one.getValue() > 1
                        && !one.getKey().isEmpty()
                        && Character.isLetter(one.getKey().codePointAt(0)));
        return named && count >= (long) REPEATED * values.size() ? new ArrayList<>(values.keySet()) : List.of();
    }

    /** Whether an enumeration was decided on not very many values. */
    boolean isThinEnumeration() {
        return count < (long) OFTEN * values.size();
    }
}
