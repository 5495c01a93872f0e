package org.protypos.infer;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.Set;
import javax.xml.namespace.QName;

/** Which of the children of a structure has come before which; only neighbours are remembered, the rest follows. */
final class Precedence {
    private final Map<QName, Set<QName>> next = new LinkedHashMap<>();

    void add(QName name) {
        next.computeIfAbsent(name, none -> new LinkedHashSet<>());
    }

    void add(QName before, QName after) {
        next.get(before).add(after);
    }

    void addAll(Precedence other, Set<QName> names) {
        names.stream().filter(other.next::containsKey).forEach(this::add);
        other.next.forEach((before, afters) -> {
            if (names.contains(before)) {
                afters.stream().filter(names::contains).forEach(after -> add(before, after));
            }
        });
    }

    void removeAll(Set<QName> names) {
        next.keySet().removeAll(names);
        next.values().forEach(afters -> afters.removeAll(names));
    }

    /** Whether any name that is not among some has come right before one of them. */
    boolean leadsInto(Set<QName> names) {
        return next.entrySet().stream()
                .anyMatch(one ->
                        !names.contains(one.getKey()) && one.getValue().stream().anyMatch(names::contains));
    }

    /** Those of some names that no other name has come right before. */
    Set<QName> first(Set<QName> names) {
        Set<QName> first = new LinkedHashSet<>(names);
        next.forEach((before, afters) -> {
            if (!names.contains(before)) {
                first.removeAll(afters);
            }
        });
        return first;
    }

    /**
     * The names in an order that no document contradicts; names whose order differs stand together.
     */
    List<List<QName>> ordered() {
        Map<QName, Integer> together = new Circles().found();
        Map<Integer, List<QName>> groups = new LinkedHashMap<>();
        next.keySet().forEach(name -> groups.computeIfAbsent(together.get(name), none -> new ArrayList<>())
                .add(name));
        Map<Integer, Integer> rank = new HashMap<>();
        groups.keySet().forEach(group -> rank.put(group, rank.size()));
        Map<Integer, Set<Integer>> after = new HashMap<>();
        Map<Integer, Integer> waiting = new HashMap<>();
        next.forEach((name, followers) -> followers.forEach(follower -> {
            int from = together.get(name);
            int to = together.get(follower);
            if (from != to
                    && after.computeIfAbsent(from, none -> new LinkedHashSet<>())
                            .add(to)) {
                waiting.merge(to, 1, Integer::sum);
            }
        }));
        // Of those that may come next the one that was met first.
        PriorityQueue<Integer> ready = new PriorityQueue<>(Comparator.comparing(rank::get));
        groups.keySet().stream().filter(group -> !waiting.containsKey(group)).forEach(ready::add);
        List<List<QName>> ordered = new ArrayList<>();
        while (!ready.isEmpty()) {
            int group = ready.poll();
            ordered.add(groups.get(group));
            for (int follower : after.getOrDefault(group, Set.of())) {
                if (waiting.merge(follower, -1, Integer::sum) == 0) {
                    ready.add(follower);
                }
            }
        }
        return ordered;
    }

    /** Finds the names that come both before and after each other (Tarjan's strongly connected components). */
    private final class Circles {
        private final Map<QName, Integer> index = new HashMap<>();
        private final Map<QName, Integer> low = new HashMap<>();
        private final Map<QName, Integer> circle = new HashMap<>();
        private final Deque<QName> open = new ArrayDeque<>();
        private int circles;

        Map<QName, Integer> found() {
            next.keySet().forEach(name -> {
                if (!index.containsKey(name)) {
                    visit(name);
                }
            });
            return circle;
        }

        private void visit(QName name) {
            index.put(name, index.size());
            low.put(name, index.get(name));
            open.push(name);
            for (QName follower : next.get(name)) {
                if (!index.containsKey(follower)) {
                    visit(follower);
                    low.merge(name, low.get(follower), Math::min);
                } else if (!circle.containsKey(follower)) {
                    low.merge(name, index.get(follower), Math::min);
                }
            }
            if (low.get(name).equals(index.get(name))) {
                QName member;
                do {
                    member = open.pop();
                    circle.put(member, circles);
                } while (!member.equals(name));
                circles++;
            }
        }
    }
}
