package org.protypos.infer;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;

/** The rounds in which the children of a structure come: where a name comes back, a new one begins. */
final class Rounds {
    /** Where rounds differ more, no order would help anybody. */
    private static final int MOST = 64;

    /** The rounds that there were, each name once, and how many were like that; null when they are too many. */
    private Map<List<QName>, Long> rounds = new LinkedHashMap<>();

    /** The names that came several times in a row. */
    private final Set<QName> several = new HashSet<>();

    /**
     * Names that come in one order, over and over.
     *
     * @param order the names in that order
     * @param always those that were in each round
     * @param several those that may come several times in a round
     * @param count how many rounds there were
     */
    record Round(List<QName> order, Set<QName> always, Set<QName> several, long count) {}

    void add(Collection<QName> round) {
        add(List.copyOf(round), 1);
    }

    void addSeveral(QName name) {
        several.add(name);
    }

    private void add(List<QName> round, long times) {
        if (rounds != null && !round.isEmpty()) {
            rounds.merge(round, times, Long::sum);
            if (rounds.size() > MOST) {
                rounds = null;
            }
        }
    }

    void addAll(Rounds other, Set<QName> names) {
        other.several.stream().filter(names::contains).forEach(several::add);
        if (other.rounds == null) {
            rounds = null;
        } else {
            other.rounds.forEach((round, times) -> add(among(round, names), times));
        }
    }

    void removeAll(Set<QName> names) {
        several.removeAll(names);
        if (rounds != null) {
            Map<List<QName>, Long> before = rounds;
            rounds = new LinkedHashMap<>();
            before.forEach((round, times) ->
                    add(round.stream().filter(name -> !names.contains(name)).toList(), times));
        }
    }

    private static List<QName> among(List<QName> round, Collection<QName> names) {
        return round.stream().filter(names::contains).toList();
    }

    /**
     * The order that some names keep in all rounds. There is none where rounds contradict each other, nor where it would be a
     * guess: of which of two comes first there is no example, and not even two of the names are in each round.
     */
    Round of(Collection<QName> names) {
        if (rounds == null) {
            return null;
        }
        Precedence order = new Precedence();
        Map<QName, Set<QName>> together = new HashMap<>();
        Set<QName> always = new LinkedHashSet<>(names);
        long count = 0;
        for (Map.Entry<List<QName>, Long> one : rounds.entrySet()) {
            List<QName> round = among(one.getKey(), names);
            if (round.isEmpty()) {
                continue;
            }
            count += one.getValue();
            always.retainAll(round);
            for (int i = 0; i < round.size(); i++) {
                order.add(round.get(i));
                together.computeIfAbsent(round.get(i), none -> new HashSet<>()).addAll(round);
                if (i > 0) {
                    order.add(round.get(i - 1), round.get(i));
                }
            }
        }
        boolean shown = together.values().stream().allMatch(with -> with.size() == names.size());
        List<List<QName>> ordered = order.ordered();
        if (ordered.size() != names.size() || always.size() < 2 && !shown) {
            return null;
        }
        List<QName> inOrder = new ArrayList<>();
        ordered.forEach(inOrder::addAll);
        return new Round(inOrder, always, Set.copyOf(several), count);
    }
}
