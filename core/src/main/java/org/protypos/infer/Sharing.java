package org.protypos.infer;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;

/**
 * Finds structures that are one type: of elements of one name where they are the same or one contains the other, and of
 * elements of different names where that is no accident.
 */
final class Sharing {
    private static final int FEWEST_SAME = 2;
    private static final int FEWEST_CONTAINED = 3;

    /** Comparing each with each takes too long above that. */
    private static final int MOST_COMPARED = 1_500;

    private final Observations seen;
    private final Decisions decisions;
    private final Set<Remark> remarks;

    Sharing(Observations seen, Decisions decisions, Set<Remark> remarks) {
        this.seen = seen;
        this.decisions = decisions;
        this.remarks = remarks;
    }

    void share() {
        ofOneName();
        ofOneStructure();
    }

    private List<Structure> candidates() {
        List<Structure> found = new ArrayList<>();
        for (Structure structure : Reachable.of(seen).structures()) {
            Decision decision = decisions.of(structure.at);
            if (!structure.isType
                    && structure.count > 0
                    && !structure.members().isEmpty()
                    && (decision == null || !decision.isApart())) {
                found.add(structure);
            }
        }
        return found;
    }

    private record Name(String home, QName name) {}

    private void ofOneName() {
        Map<Name, List<Structure>> byName = new LinkedHashMap<>();
        candidates().forEach(structure -> byName.computeIfAbsent(
                        new Name(structure.home, structure.name), none -> new ArrayList<>())
                .add(structure));
        byName.values().forEach(all -> {
            for (int i = 0; i < all.size(); i++) {
                for (int j = i + 1; j < all.size(); j++) {
                    Structure one = all.get(i).merged();
                    Structure other = all.get(j).merged();
                    if (one != other && isSameOrInside(one, other)) {
                        merge(one, other);
                    }
                }
            }
        });
    }

    private static boolean isSameOrInside(Structure one, Structure other) {
        Set<QName> ours = one.members();
        Set<QName> theirs = other.members();
        return one.hasElements() == other.hasElements()
                && one.text.isFilled() == other.text.isFilled()
                && (ours.containsAll(theirs) || theirs.containsAll(ours));
    }

    private void ofOneStructure() {
        List<Structure> all = new ArrayList<>();
        candidates().stream().filter(one -> !one.isGlobal && one.hasElements()).forEach(all::add);
        Map<Set<QName>, List<Structure>> byMembers = new LinkedHashMap<>();
        for (Structure structure : all) {
            if (structure.members().size() >= FEWEST_SAME) {
                byMembers
                        .computeIfAbsent(structure.members(), none -> new ArrayList<>())
                        .add(structure);
            }
        }
        byMembers.values().forEach(this::mergeAlike);
        if (all.size() <= MOST_COMPARED) {
            List<Structure> big = all.stream()
                    .map(Structure::merged)
                    .distinct()
                    .filter(one -> one.members().size() >= FEWEST_CONTAINED)
                    .toList();
            mergeAlike(big);
        }
    }

    private void mergeAlike(List<Structure> all) {
        for (int i = 0; i < all.size(); i++) {
            for (int j = i + 1; j < all.size(); j++) {
                Structure one = all.get(i).merged();
                Structure other = all.get(j).merged();
                if (one != other && areAlike(one, other)) {
                    merge(one, other);
                }
            }
        }
    }

    private boolean areAlike(Structure one, Structure other) {
        int fewer = Math.min(one.members().size(), other.members().size());
        int more = Math.max(one.members().size(), other.members().size());
        return one.home.equals(other.home)
                && isSameOrInside(one, other)
                && fewer * 2 >= more
                && haveLikeValues(one, other);
    }

    /** Whether what has the same name inside is of the same kind. */
    private static boolean haveLikeValues(Structure one, Structure other) {
        for (Declaration ours : one.children.values()) {
            Declaration theirs = other.children.get(ours.name);
            if (theirs == null) {
                continue;
            }
            Structure left = ours.plain();
            Structure right = theirs.plain();
            if (left.isValue() != right.isValue()
                    || left.isValue() && !areLike(left.text, right.text)
                    || left.hasElements() != right.hasElements()
                    || !ours.types.equals(theirs.types)) {
                return false;
            }
        }
        return one.attributes.entrySet().stream()
                .allMatch(attribute -> !other.attributes.containsKey(attribute.getKey())
                        || areLike(attribute.getValue().values, other.attributes.get(attribute.getKey()).values));
    }

    private static boolean areLike(ObservedValue one, ObservedValue other) {
        return !one.isFilled()
                || !other.isFilled()
                || one.kind() == other.kind()
                || !one.kind().isNarrow() && !other.kind().isNarrow()
                || one.kind().isNumber() && other.kind().isNumber();
    }

    private void merge(Structure one, Structure other) {
        boolean same = one.members().equals(other.members());
        boolean contains = one.members().size() >= other.members().size();
        Set<String> places = new LinkedHashSet<>();
        places.add(one.at.iterator().next());
        String at = other.at.iterator().next();
        places.add(at);
        remarks.add(new Remark(
                Remark.Kind.SHARED,
                String.join(", ", places),
                "one type",
                same
                        ? "the structure is the same"
                        : (contains ? one : other).at.iterator().next() + " contains the other",
                !one.names.containsAll(other.names)));
        one.merge(other);
    }
}
