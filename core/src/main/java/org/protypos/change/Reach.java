package org.protypos.change;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.protypos.source.Xml;

/** Which types and elements can stand in requests, and which in answers. */
final class Reach {
    private final Map<String, Set<String>> edges = new HashMap<>();
    private final Set<String> inRequests;
    private final Set<String> inAnswers;
    private final boolean everywhere;

    Reach(Inventory inventory) {
        Set<String> requests = new HashSet<>();
        Set<String> answers = new HashSet<>();
        for (Item item : inventory.items().values()) {
            String root = root(item.designator());
            switch (item.kind()) {
                case MESSAGE, HEADER ->
                    (item.designator().contains(" input") ? requests : answers).addAll(item.references());
                case FAULT -> answers.addAll(item.references());
                default -> edges.computeIfAbsent(root, any -> new HashSet<>()).addAll(item.references());
            }
            // What is derived from a type, or stands for an element, may come in its place.
            String base = item.facts().containsKey("stands for")
                    ? item.facts().get("stands for")
                    : item.kind() == Item.Kind.TYPE && item.facts().containsKey("base")
                            ? "~" + item.facts().get("base").replaceFirst(" restricted$", "")
                            : null;
            if (base != null && !base.startsWith("~{" + Xml.XSD + "}")) {
                edges.computeIfAbsent(base, any -> new HashSet<>()).add(root);
            }
        }
        everywhere = requests.isEmpty() && answers.isEmpty();
        inRequests = closure(requests);
        inAnswers = closure(answers);
    }

    /** The global component that a designator begins with. */
    static String root(String designator) {
        int from = designator.indexOf('}') + 1;
        int slash = designator.indexOf('/', from);
        int value = designator.indexOf("='", from);
        int end = slash < 0 ? value : value < 0 ? slash : Math.min(slash, value);
        return end < 0 ? designator : designator.substring(0, end);
    }

    private Set<String> closure(Set<String> roots) {
        Set<String> seen = new HashSet<>(roots);
        Deque<String> pending = new ArrayDeque<>(roots);
        while (!pending.isEmpty()) {
            for (String next : edges.getOrDefault(pending.pop(), Set.of())) {
                if (seen.add(next)) {
                    pending.push(next);
                }
            }
        }
        return seen;
    }

    /** Whether a component can stand in a request; of schemas alone nobody knows, and everything can. */
    boolean isInRequests(String designator) {
        return everywhere || inRequests.contains(root(designator));
    }

    /** Whether a component can stand in an answer; likewise. */
    boolean isInAnswers(String designator) {
        return everywhere || inAnswers.contains(root(designator));
    }
}
