package org.protypos.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.protypos.diagnostic.NearestName;

/** Finds components that probably are old ones under new names: what is said of them is the same, or nearly. */
final class Renames {
    private static final double ALIKE = 0.6;

    private final Map<String, Item> before;
    private final Map<String, Item> after;
    private final Map<String, Set<String>> oldInside;
    private final Map<String, Set<String>> newInside;

    Renames(Map<String, Item> before, Map<String, Item> after) {
        this.before = before;
        this.after = after;
        this.oldInside = inside(before);
        this.newInside = inside(after);
    }

    /** For the designators of new components those of the old ones that they probably are. */
    Map<String, String> find() {
        Map<String, List<Item>> gone = byParent(before, after);
        Map<String, List<Item>> come = byParent(after, before);
        Map<String, String> renames = new LinkedHashMap<>();
        come.forEach((parent, items) -> {
            List<Item> candidates = new ArrayList<>(gone.getOrDefault(parent, List.of()));
            for (Item item : items) {
                Item best = null;
                double most = ALIKE;
                for (Item candidate : candidates) {
                    double alike = candidate.kind() == item.kind() ? alike(candidate, item) : 0;
                    if (alike > most) {
                        most = alike;
                        best = candidate;
                    }
                }
                if (best != null) {
                    candidates.remove(best);
                    renames.put(item.designator(), best.designator());
                }
            }
        });
        return renames;
    }

    private static Map<String, List<Item>> byParent(Map<String, Item> some, Map<String, Item> others) {
        Map<String, List<Item>> found = new HashMap<>();
        for (Item item : some.values()) {
            boolean named =
                    switch (item.kind()) {
                        case TYPE, ELEMENT, MEMBER, ATTRIBUTE, OPERATION -> true;
                        default -> false;
                    };
            String parent = parent(item.designator());
            boolean alone = others.containsKey(item.designator()) || !parent.isEmpty() && !others.containsKey(parent);
            if (named && !alone) {
                found.computeIfAbsent(parent, any -> new ArrayList<>()).add(item);
            }
        }
        return found;
    }

    private static String parent(String designator) {
        String root = Reach.root(designator);
        if (root.equals(designator)) {
            return "";
        }
        int at = designator.lastIndexOf("/{");
        int attribute = designator.lastIndexOf("/@");
        return designator.substring(0, Math.max(root.length(), Math.max(at, attribute)));
    }

    private static String local(String designator) {
        return designator.substring(designator.lastIndexOf('}') + 1).replaceFirst("^.*/", "");
    }

    /** How alike two components are: by name, by what is said of them, by their members. */
    private double alike(Item a, Item b) {
        int length =
                Math.max(local(a.designator()).length(), local(b.designator()).length());
        double name = 1.0 - (double) NearestName.distance(local(a.designator()), local(b.designator())) / length;
        Set<String> said = new HashSet<>(
                a.facts().entrySet().stream().map(Object::toString).toList());
        Set<String> both = new HashSet<>(said);
        Set<String> other = new HashSet<>(
                b.facts().entrySet().stream().map(Object::toString).toList());
        both.retainAll(other);
        said.addAll(other);
        Set<String> mine = members(oldInside, a.designator());
        Set<String> theirs = members(newInside, b.designator());
        Set<String> shared = new HashSet<>(mine);
        shared.retainAll(theirs);
        mine.addAll(theirs);
        double facts = said.isEmpty() ? 0.5 : (double) both.size() / said.size();
        if (mine.isEmpty()) {
            return 0.6 * name + 0.4 * facts;
        }
        double inside = (double) shared.size() / mine.size();
        return 0.4 * name + 0.2 * facts + 0.4 * inside;
    }

    private static Set<String> members(Map<String, Set<String>> all, String designator) {
        return new HashSet<>(all.getOrDefault(designator, Set.of()));
    }

    /** What stands inside each component, by its designator. */
    private static Map<String, Set<String>> inside(Map<String, Item> all) {
        Map<String, Set<String>> inside = new HashMap<>();
        for (String designator : all.keySet()) {
            for (String around = parent(designator); !around.isEmpty(); ) {
                inside.computeIfAbsent(around, any -> new HashSet<>()).add(designator.substring(around.length()));
                String next = parent(around);
                around = next.equals(around) ? "" : next;
            }
        }
        return inside;
    }
}
