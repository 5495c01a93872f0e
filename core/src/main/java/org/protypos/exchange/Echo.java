package org.protypos.exchange;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.protypos.message.check.ContractCheck;
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

    void into(MessageElement answer, ContractCheck check) {
        into(answer, answer, check);
    }

    private void into(MessageElement element, MessageElement root, ContractCheck check) {
        String value = values.get(element.name().getLocalPart());
        if (value != null && element.children().isEmpty() && !value.equals(element.text())) {
            String before = element.text();
            boolean valid = check.check(root).deviations().isEmpty();
            element.setText(value);
            if (valid && !check.check(root).deviations().isEmpty()) {
                element.setText(before);
            }
        }
        element.children().forEach(child -> into(child, root, check));
    }
}
