package org.protypos.wire;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import javax.xml.namespace.QName;

/**
 * How a server knows for which operation a SOAP request is: by what stands first in the body, by the action, by the parts, or by
 * several of these.
 *
 * @param beginnings what may stand first in the body; an empty name stands for nothing at all
 * @param actions the SOAP actions at all ports, and the one of addressing; empty ones are left out; where it is known by
 *     having none of theirs, those of the others
 * @param parts the names of the parts in the element that wraps them, where these tell overloads apart; otherwise empty
 * @param by what tells the operation from the others
 */
public record Recognition(List<QName> beginnings, List<String> actions, List<String> parts, By by) {
    /** What tells an operation. */
    public enum By {
        /** What stands first in the body. */
        ELEMENT,
        /** That and the action, for another operation begins alike. */
        BOTH,
        /** That and an action that is none of the others', for they have some and it need not have one. */
        OTHERWISE,
        /** That, and the action or the parts, for another operation of the name has other ones. */
        PARTS,
        /** The action, for what begins the body may be left out; that counts when no action came. */
        ACTION
    }

    /**
     * Whether a request is for the operation.
     *
     * @param first what stands first in its body, an empty name for nothing
     * @param action its action, empty when it has none
     * @param came gives the local names of the elements in what stands first
     */
    public boolean fits(QName first, String action, Supplier<List<String>> came) {
        boolean begins = beginnings.contains(first);
        return switch (by) {
            case ELEMENT -> begins;
            case BOTH -> begins && actions.contains(action);
            case OTHERWISE -> begins && !actions.contains(action);
            case PARTS -> begins && (actions.contains(action) || areSame(parts, came.get()));
            case ACTION -> actions.contains(action) || action.isEmpty() && begins;
        };
    }

    private static boolean areSame(List<String> some, List<String> others) {
        return new HashSet<>(some).equals(new HashSet<>(others));
    }

    /** Whether requests of another operation, which is asked after this one, may be taken for requests of this one. */
    public boolean hides(Recognition later) {
        if (Collections.disjoint(later.beginnings, beginnings)) {
            return false;
        }
        List<String> own = later.by == By.OTHERWISE ? List.of() : later.actions;
        boolean shared = !Collections.disjoint(own, actions);
        return switch (by) {
            case ELEMENT -> true;
            case BOTH -> shared;
            case OTHERWISE -> own.isEmpty() || !actions.containsAll(own);
            case PARTS -> later.by == By.PARTS ? areSame(parts, later.parts) : shared;
            case ACTION -> shared || own.isEmpty();
        };
    }

    /** How each operation of a binding is known, in their order. */
    static List<Recognition> of(WireBinding binding, Function<WireOperation, List<String>> soapActions) {
        Map<QName, List<WireOperation>> uses = new HashMap<>();
        for (WireOperation operation : binding.operations()) {
            operation.request().beginnings().forEach(first -> uses.computeIfAbsent(first, any -> new ArrayList<>())
                    .add(operation));
        }
        List<Recognition> known = new ArrayList<>();
        for (WireOperation operation : binding.operations()) {
            WireMessage request = operation.request();
            Set<String> actions = actions(operation, soapActions);
            List<WireOperation> alike = request.beginnings().stream()
                    .flatMap(first -> uses.get(first).stream())
                    .filter(other -> other != operation)
                    .toList();
            boolean overloaded = request.isWrapped()
                    && !alike.isEmpty()
                    && alike.stream()
                            .allMatch(other ->
                                    other.request().isWrapped() && !areSame(names(other.request()), names(request)));
            Set<String> others = new LinkedHashSet<>();
            alike.forEach(other -> others.addAll(actions(other, soapActions)));
            if (overloaded) {
                // An action that several have tells nothing.
                actions.removeAll(others);
            }
            others.removeAll(actions);
            boolean named = request.action() != null
                    || !actions.isEmpty() && !soapActions.apply(operation).contains("");
            By by;
            if (overloaded) {
                by = By.PARTS;
            } else if (request.isGroup() && !actions.isEmpty()) {
                by = By.ACTION;
            } else if (named && !alike.isEmpty()) {
                by = By.BOTH;
            } else {
                by = others.isEmpty() ? By.ELEMENT : By.OTHERWISE;
            }
            known.add(new Recognition(
                    List.copyOf(request.beginnings()),
                    List.copyOf(by == By.OTHERWISE ? others : actions),
                    overloaded ? names(request) : List.of(),
                    by));
        }
        return known;
    }

    private static List<String> names(WireMessage request) {
        return request.parts().stream().map(WirePart::name).toList();
    }

    private static Set<String> actions(WireOperation operation, Function<WireOperation, List<String>> soapActions) {
        Set<String> actions = new LinkedHashSet<>(soapActions.apply(operation));
        if (operation.request().action() != null) {
            actions.add(operation.request().action());
        }
        actions.remove("");
        return actions;
    }
}
