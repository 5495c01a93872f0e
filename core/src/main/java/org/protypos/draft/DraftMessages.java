package org.protypos.draft;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;
import org.protypos.draft.WsdlParts.DraftMessage;
import org.protypos.draft.WsdlParts.Part;

/** The messages of a contract that is drafted: those that are the same are one, as those of faults and headers often are. */
final class DraftMessages {
    private final Map<String, DraftMessage> byName = new LinkedHashMap<>();

    /** A message of some parts, called so or, where another has that name, with a number behind it. */
    DraftMessage of(String name, List<Part> parts) {
        String free = name;
        for (int i = 2; byName.containsKey(free) && !byName.get(free).parts().equals(parts); i++) {
            free = name + i;
        }
        return byName.computeIfAbsent(free, any -> new DraftMessage(any, parts));
    }

    /** The message of an element in a header. */
    DraftMessage header(QName element) {
        return of(
                SketchReader.capital(element.getLocalPart()) + "Header",
                List.of(new Part(element.getLocalPart(), element, null)));
    }

    /** All of them, in the order in which they were asked for. */
    List<DraftMessage> all() {
        return List.copyOf(byName.values());
    }
}
