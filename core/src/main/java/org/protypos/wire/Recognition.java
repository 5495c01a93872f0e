package org.protypos.wire;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import javax.xml.namespace.QName;

/**
 * How a server knows for which operation a SOAP request is: by what stands first in the body, by the action, or by both.
 *
 * @param beginnings what may stand first in the body; an empty name stands for nothing at all
 * @param actions the SOAP actions at all ports, and the one of addressing; empty ones are left out
 * @param by what tells the operation from the others
 */
public record Recognition(List<QName> beginnings, List<String> actions, By by) {
    /** What tells an operation. */
    public enum By {
        /** What stands first in the body. */
        ELEMENT,
        /** That and the action, for another operation begins alike. */
        BOTH,
        /** The action, for what begins the body may be left out; that counts when no action came. */
        ACTION
    }

    /**
     * Whether a request is for the operation.
     *
     * @param first what stands first in its body, an empty name for nothing
     * @param action its action, empty when it has none
     */
    public boolean fits(QName first, String action) {
        boolean begins = beginnings.contains(first);
        return switch (by) {
            case ELEMENT -> begins;
            case BOTH -> begins && actions.contains(action);
            case ACTION -> actions.contains(action) || action.isEmpty() && begins;
        };
    }

    /** Whether requests of another operation, which is asked after this one, may be taken for requests of this one. */
    public boolean hides(Recognition later) {
        boolean begins = later.beginnings.stream().anyMatch(beginnings::contains);
        boolean actsAlike = later.actions.isEmpty() || later.actions.stream().anyMatch(actions::contains);
        return begins && (by == By.ELEMENT || actsAlike && !actions.isEmpty());
    }

    /** How each operation of a binding is known, in their order. */
    static List<Recognition> of(WireBinding binding, Function<WireOperation, List<String>> soapActions) {
        Map<QName, Integer> uses = new HashMap<>();
        for (WireOperation operation : binding.operations()) {
            operation.request().beginnings().forEach(first -> uses.merge(first, 1, Integer::sum));
        }
        List<Recognition> known = new ArrayList<>();
        for (WireOperation operation : binding.operations()) {
            WireMessage request = operation.request();
            Set<String> actions = new LinkedHashSet<>(soapActions.apply(operation));
            if (request.action() != null) {
                actions.add(request.action());
            }
            actions.remove("");
            boolean alike = request.beginnings().stream().anyMatch(first -> uses.get(first) > 1);
            By by = actions.isEmpty() ? By.ELEMENT : request.isGroup() ? By.ACTION : alike ? By.BOTH : By.ELEMENT;
            known.add(new Recognition(List.copyOf(request.beginnings()), List.copyOf(actions), by));
        }
        return known;
    }
}
