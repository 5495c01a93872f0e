package org.protypos.change;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.protypos.diagnostic.NearestName;
import org.protypos.naming.Designator;

/**
 * Finds components that probably are old ones under new names: by where they stand, what is said of them and what they hold, and by their
 * names.
 */
final class Renames {
    private static final double ALIKE = 0.6;
    private static final Pattern MESSAGE = Pattern.compile("(?<=[^}]) (input|output|fault)( .*)?$");

    private final Side before;
    private final Side after;

    /** The components of one contract, by what they are inside of. */
    private static final class Side {
        private final Map<String, Item> items;
        private final Map<String, List<Item>> inside = new LinkedHashMap<>();
        private final Map<String, Set<String>> held = new HashMap<>();
        private final Map<Item, Set<String>> neighbours = new IdentityHashMap<>();

        Side(Map<String, Item> items, Map<String, Item> others) {
            this.items = items;
            for (Item item : items.values()) {
                inside.computeIfAbsent(parent(item), any -> new ArrayList<>()).add(item);
                if (others.containsKey(item.designator())) {
                    continue;
                }
                // What only one of the two has may be an old one, or in one: what they hold tells.
                for (String around = parent(item); !around.isEmpty(); around = parentOf(around)) {
                    held.computeIfAbsent(around, any -> new HashSet<>())
                            .add(item.designator().substring(around.length()) + said(item));
                }
            }
        }

        /** What stands before and behind a component, of those that another contract has too. */
        Set<String> neighbours(Item item, Side other) {
            return neighbours.computeIfAbsent(item, any -> found(item, other));
        }

        private Set<String> found(Item item, Side other) {
            List<Item> all = inside.get(parent(item));
            int at = all.indexOf(item);
            Set<String> found = new HashSet<>();
            for (int step : new int[] {-1, 1}) {
                int next = at + step;
                while (next >= 0
                        && next < all.size()
                        && (all.get(next).kind() != item.kind()
                                || !other.items.containsKey(all.get(next).designator()))) {
                    next += step;
                }
                found.add(step
                        + (next < 0 || next >= all.size() ? "" : all.get(next).designator()));
            }
            return found;
        }
    }

    private record Pair(Item was, Item is, double alike) {}

    private Renames(Map<String, Item> before, Map<String, Item> after) {
        this.before = new Side(before, after);
        this.after = new Side(after, before);
    }

    /**
     * Looks among components that only one of two contracts has, inside of what both have.
     *
     * @return for the designators of new components those of the old ones that they probably are
     */
    static Map<String, String> find(Map<String, Item> before, Map<String, Item> after) {
        return new Renames(before, after).found();
    }

    private Map<String, String> found() {
        List<Pair> pairs = new ArrayList<>();
        after.inside.forEach((parent, items) -> {
            boolean known = parent.isEmpty() || before.items.containsKey(parent) && after.items.containsKey(parent);
            List<Item> gone = before.inside.getOrDefault(parent, List.of()).stream()
                    .filter(item -> !after.items.containsKey(item.designator()))
                    .toList();
            for (Item item : items) {
                if (known && hasName(item) && !before.items.containsKey(item.designator())) {
                    gone.stream()
                            .filter(candidate -> candidate.kind() == item.kind() && isOfOneNamespace(candidate, item))
                            .map(candidate -> new Pair(candidate, item, alike(candidate, item)))
                            .filter(pair -> pair.alike() > ALIKE)
                            .forEach(pairs::add);
                }
            }
        });
        pairs.sort(Comparator.comparingDouble(Pair::alike).reversed());
        Map<String, String> renames = new LinkedHashMap<>();
        for (Pair pair : pairs) {
            if (!renames.containsKey(pair.is().designator())
                    && !renames.containsValue(pair.was().designator())) {
                renames.put(pair.is().designator(), pair.was().designator());
            }
        }
        return renames;
    }

    private static boolean hasName(Item item) {
        return switch (item.kind()) {
            case MESSAGE, HEADER, FAULT -> false;
            default -> true;
        };
    }

    /** What stands in a type under the same name is the same in another namespace too: its form has changed. */
    private static boolean isOfOneNamespace(Item a, Item b) {
        boolean local = a.kind() == Item.Kind.MEMBER || a.kind() == Item.Kind.ATTRIBUTE;
        return Designator.of(a.designator())
                        .namespace()
                        .equals(Designator.of(b.designator()).namespace())
                || local && local(a.designator()).equals(local(b.designator()));
    }

    static String parent(Item item) {
        return parentOf(item.designator());
    }

    /** The operation of which a designator is a message, a header block or a fault; any other as it is. */
    static String operation(String designator) {
        return designator.startsWith("portType ") ? MESSAGE.matcher(designator).replaceFirst("") : designator;
    }

    private static String parentOf(String designator) {
        String operation = operation(designator);
        if (!operation.equals(designator)) {
            return operation;
        }
        return Designator.of(designator).around();
    }

    /** The name in a designator. */
    static String local(String designator) {
        return Designator.of(designator).local();
    }

    /** The name in a designator, with its namespace where another has the same without. */
    static String called(String designator, String other) {
        String local = local(designator);
        return !local.equals(local(other))
                ? local
                : (Designator.of(designator).namespace() + local).replaceFirst("^(?![{])", "{}");
    }

    private static String said(Item item) {
        StringBuilder text = new StringBuilder();
        item.facts().forEach((fact, value) -> {
            if (!fact.equals("documentation") && !fact.equals("order") && !WsdlInventory.isOfOneProtocol(item, fact)) {
                text.append(' ').append(fact).append(' ').append(value);
            }
        });
        return text.toString();
    }

    /** How alike two components are, from 0 to 1. */
    private double alike(Item was, Item is) {
        int length = Math.max(
                1,
                Math.max(
                        local(was.designator()).length(), local(is.designator()).length()));
        double name = 1.0 - (double) NearestName.distance(local(was.designator()), local(is.designator())) / length;
        Set<String> around = new HashSet<>(before.neighbours(was, after));
        around.retainAll(after.neighbours(is, before));
        double place = around.size() / 2.0;
        double said = said(was).equals(said(is)) ? 1 : 0;
        if (was.kind() == Item.Kind.VALUE) {
            return 0.65 * name + 0.35 * place;
        }
        Set<String> mine = before.held.getOrDefault(was.designator(), Set.of());
        Set<String> theirs = after.held.getOrDefault(is.designator(), Set.of());
        if (mine.isEmpty() && theirs.isEmpty()) {
            return 0.35 * name + 0.35 * said + 0.3 * place;
        }
        Set<String> both = new HashSet<>(mine);
        both.retainAll(theirs);
        double held = (double) both.size() / Math.max(1, mine.size() + theirs.size() - both.size());
        return 0.25 * name + 0.15 * said + 0.45 * held + 0.15 * place;
    }
}
