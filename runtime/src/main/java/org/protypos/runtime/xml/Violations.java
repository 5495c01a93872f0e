package org.protypos.runtime.xml;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.Function;
import org.protypos.runtime.check.ValueRule;
import org.protypos.runtime.check.Violation;

/** Collects where a value and all in it are not what the contract says. */
public final class Violations {
    private static final int MOST_DEPTH = 400;

    /** A restriction looks again at what its base has looked at: what both find is told once. */
    private final Set<Violation> found = new LinkedHashSet<>();

    private final Deque<int[]> choices = new ArrayDeque<>();
    private String path = "";
    private int depth;

    Violations() {}

    List<Violation> of(XmlObject value) {
        inside(value);
        return List.copyOf(found);
    }

    private void add(String member, String message) {
        found.add(new Violation(path + member, message));
    }

    private void inside(XmlObject value) {
        if (value.nil()) {
            return;
        }
        if (depth > MOST_DEPTH) {
            add("", "values are nested deeper than " + MOST_DEPTH + " levels");
            return;
        }
        depth++;
        value.check(this);
        depth--;
    }

    /** Checks a member that must be there. */
    public void required(String member, Object value) {
        if (value == null) {
            add(member, "is missing");
        } else {
            member(member, value);
        }
    }

    /** Checks that a member is not there. */
    public void absent(String member, Object value) {
        if (value != null) {
            add(member, "may not be there");
        }
    }

    /** Checks what is in a member, if it is there. */
    public void member(String member, Object value) {
        if (value instanceof List<?> list) {
            for (int i = 0; i < list.size(); i++) {
                member(member + "[" + i + "]", list.get(i));
            }
        } else if (value instanceof XmlElement<?> element) {
            member(member, element.value());
        } else if (value instanceof XmlObject object) {
            String around = path;
            path = path + member + ".";
            inside(object);
            path = around;
        }
    }

    /** Checks how many values a member has. */
    public void count(String member, List<?> values, int least, int most) {
        int size = values == null ? 0 : values.size();
        if (size < least) {
            add(member, size == 0 ? "is missing" : "is there " + size + " times, not at least " + least);
        } else if (size > most) {
            add(member, "is there " + size + " times, not at most " + most);
        }
    }

    /** Checks a value of a simple type, given as it is written; null for none. */
    public void value(String member, String text, ValueRule rule) {
        ValueRule.Complaint complaint = text == null ? null : rule.complaint(text, null);
        if (complaint != null) {
            add(member, complaint.message());
        }
    }

    /** Checks each value of a member. */
    public <T> void values(String member, List<T> values, Function<T, String> printer, ValueRule rule) {
        values(member, values, (value, place) -> printer.apply(value), rule);
    }

    /**
     * Checks each value of a list of which the place says how it is written.
     *
     * @param printer makes text of a value and its place, from 0
     */
    public <T> void values(String member, List<T> values, BiFunction<T, Integer, String> printer, ValueRule rule) {
        for (int i = 0; values != null && i < values.size(); i++) {
            if (values.get(i) != null) {
                value(member + "[" + i + "]", printer.apply(values.get(i), i), rule);
            }
        }
    }

    /** Begins a choice. */
    public void choose() {
        choices.push(new int[1]);
    }

    /** Notes whether a branch of the choice begun last is taken, and gives that back. */
    public boolean branch(boolean taken) {
        choices.peek()[0] += taken ? 1 : 0;
        return taken;
    }

    /**
     * Ends the choice begun last.
     *
     * @param names the branches, for the message
     * @param required whether one of them must be taken
     */
    public void chosen(String names, boolean required) {
        int taken = choices.pop()[0];
        if (taken > 1) {
            add("", "only one of " + names + " may be there, not " + taken);
        } else if (taken == 0 && required) {
            add("", "one of " + names + " is missing");
        }
    }
}
