package org.protypos.exchange.standin;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.protypos.message.tree.MessageElement;

/** Puts values of a request into an answer: where an element of the same name holds text, and the answer stays valid. */
final class Echo {
    private final Map<String, String> values = new HashMap<>();

    Echo(List<MessageElement> request) {
        request.forEach(this::gather);
    }

    private void gather(MessageElement element) {
        if (element.children().isEmpty() && !element.text().isBlank()) {
            values.putIfAbsent(element.name().getLocalPart(), element.text());
        }
        element.children().forEach(this::gather);
    }

    /** The local names of the elements in an answer that hold no others. */
    static Set<String> names(MessageElement answer) {
        Set<String> names = new HashSet<>();
        gather(answer, names);
        return names;
    }

    private static void gather(MessageElement element, Set<String> names) {
        if (element.children().isEmpty()) {
            names.add(element.name().getLocalPart());
        }
        element.children().forEach(child -> gather(child, names));
    }

    /** Whether there is a value for an element of one of these names. */
    boolean fits(Set<String> names) {
        return values.keySet().stream().anyMatch(names::contains);
    }

    /**
     * Puts the values into elements.
     *
     * @param valid says whether the answer that they stand in is valid
     */
    void into(List<MessageElement> answer, BooleanSupplier valid) {
        if (!values.isEmpty() && valid.getAsBoolean()) {
            answer.forEach(element -> into(element, valid));
        }
    }

    private void into(MessageElement element, BooleanSupplier valid) {
        String value = values.get(element.name().getLocalPart());
        if (value != null && element.children().isEmpty() && !value.equals(element.text())) {
            String before = element.text();
            element.setText(value);
            if (!valid.getAsBoolean()) {
                element.setText(before);
            }
        }
        element.children().forEach(child -> into(child, valid));
    }
}
