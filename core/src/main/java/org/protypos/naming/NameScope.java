package org.protypos.naming;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Owns the names of one scope: a package, a class, a parameter list. Two names that differ only in case count as one,
 * for some file systems think so, and so do some readers.
 *
 * <p>Whoever is alone in wanting a name gets it, whatever others clash: what is made up to settle a clash is never a name
 * that somebody else {@linkplain #expect is expected} to want.
 */
public final class NameScope {
    private static final Set<String> NOBODY = Set.of();

    private final Naming naming;
    private final String where;
    private final NameScope inherited;
    private final Set<String> reserved;
    private final Set<String> excluded = new HashSet<>();
    private Set<String> excludedElsewhere = Set.of();
    private final Map<String, Subject> taken = new HashMap<>();
    /** Begins the designators of what no component of a contract is called by. */
    private static final String MADE = "+";

    private final Map<String, Integer> alike = new HashMap<>();
    private final Map<String, Integer> numbers = new HashMap<>();
    private Consumer<Expected> expecting;
    private Set<String> expected = NOBODY;
    private Set<String> pinned = NOBODY;

    NameScope(Naming naming, String where, NameScope inherited, Set<String> reserved) {
        this.naming = naming;
        this.where = where;
        this.inherited = inherited;
        this.reserved = reserved;
    }

    /** Is told who will want which name. */
    @FunctionalInterface
    public interface Expected {
        /** Somebody will want a name. */
        void wants(Subject subject, String name);
    }

    /**
     * A scope in which the names of this one are taken as well.
     *
     * @param inside what the scope is of
     */
    public NameScope within(String inside) {
        return new NameScope(naming, inside, this, NOBODY);
    }

    /** Says that nothing here may have a name, in just this spelling. */
    public void exclude(String name) {
        excluded.add(name);
    }

    /** Says that nothing here may have any of some names; they are not copied, for many scopes may be told of the same. */
    public void excludeAll(Set<String> names) {
        excludedElsewhere = names;
    }

    /** Says who will want names here. Asked only when that matters. */
    public void expect(Consumer<Expected> who) {
        expecting = expecting == null ? who : expecting.andThen(who);
    }

    /** What names are compared by. */
    static String key(String name) {
        return CaseFolding.of(name);
    }

    private void ask() {
        if (expecting != null) {
            Consumer<Expected> who = expecting;
            expecting = null;
            expected = new HashSet<>(expected);
            pinned = new HashSet<>(pinned);
            who.accept((subject, name) -> {
                Renaming.Wish wish = naming.wish(subject, name);
                expected.add(key(wish == null ? name : wish.name()));
                if (wish != null) {
                    pinned.add(key(wish.name()));
                }
            });
        }
    }

    /** Whether a name is taken here or in a scope around. */
    public boolean has(String name) {
        return has(name, key(name));
    }

    private boolean has(String name, String key) {
        return reserved.contains(key)
                || excluded.contains(name)
                || excludedElsewhere.contains(name)
                || taken.containsKey(key)
                || inherited != null && inherited.has(name, key);
    }

    private Subject holder(String name) {
        Subject own = taken.get(key(name));
        return own != null || inherited == null ? own : inherited.holder(name);
    }

    /**
     * Takes a name for a component; of several with one designator the second and those after it are numbered.
     *
     * @param wanted the name that the component would have
     * @param suffix what tells this one from its namesakes, to be tried next; may be empty
     * @return the name that a rule gives it; or else the name wanted, or that with the suffix, or with a number behind it
     */
    public String claim(Subject component, String wanted, String suffix) {
        int number = alike.merge(component.designator(), 1, Integer::sum);
        Subject subject = number == 1 ? component : component.numbered(number);
        String name = choose(subject, wanted, suffix);
        naming.give(where, subject.designator(), name);
        return name;
    }

    private String choose(Subject subject, String wanted, String suffix) {
        Renaming.Wish wish = naming.wish(subject, wanted);
        if (wish != null) {
            if (has(wish.name())) {
                String given = other(wish.name(), "", subject.designator(), subject);
                naming.refused(wish, subject, where, given);
                return given;
            }
            taken.put(key(wish.name()), subject);
            return wish.name();
        }
        String key = key(wanted);
        String past = naming.past(where, subject.designator());
        if (past != null && isOpen(past, key(past))) {
            if (!key(past).equals(key)) {
                naming.settled(new Clash(where, wanted, holder(wanted), subject, past));
            }
            return take(past, subject);
        }
        if (isOpen(wanted, key) && !isKept(wanted, subject.designator())) {
            taken.put(key, subject);
            return wanted;
        }
        Subject holder = holder(wanted);
        String given = other(wanted, suffix, subject.designator(), subject);
        naming.settled(new Clash(where, wanted, holder, subject, given));
        return given;
    }

    /** Whether nobody has a name, and no rule gives it to somebody. */
    private boolean isOpen(String name, String key) {
        if (naming.renames()) {
            ask();
        }
        return !has(name, key) && !pinned.contains(key);
    }

    /**
     * Takes a name for something that no component of the contract is called by; of several that want one name each keeps its own.
     *
     * @return the name wanted, or that with the suffix, or with a number behind it
     */
    public String make(String wanted, String suffix) {
        ask();
        int number = alike.merge(MADE + wanted, 1, Integer::sum);
        String made = MADE + wanted + (number == 1 ? "" : "[" + number + "]");
        String past = naming.past(where, made);
        // Earlier ledgers know the last of several alone: nobody is known to have had the name that the first one has.
        boolean isLast = number == 1
                && past != null
                && naming.pastHolder(where, wanted) == null
                && naming.past(where, made + "[2]") == null
                && isFree(wanted, made);
        return made(made, isLast ? null : past, wanted, suffix, null);
    }

    /**
     * Takes a name for a component that has none in the contract: a group, room for any element, text. It gives way to those that have one,
     * and keeps what it was given; of several with one designator the second and those after it are numbered.
     *
     * @param wanted the name that is made up for it
     */
    public String make(Subject component, String wanted) {
        ask();
        int number = alike.merge(component.designator(), 1, Integer::sum);
        Subject subject = number == 1 ? component : component.numbered(number);
        String designator = subject.designator();
        if (naming.wish(subject, wanted) != null) {
            String name = choose(subject, wanted, "");
            naming.give(where, designator, name);
            return name;
        }
        return made(designator, naming.past(where, designator), wanted, "", subject);
    }

    /** The name of yesterday if there is one and it can be had, otherwise the one wanted or one like it. */
    private String made(String designator, String past, String wanted, String suffix, Subject subject) {
        String name;
        if (past != null && isOpen(past, key(past))) {
            name = take(past, subject);
        } else {
            name = isFree(wanted, designator) ? take(wanted, subject) : other(wanted, suffix, designator, subject);
        }
        naming.give(where, designator, name);
        return name;
    }

    /**
     * Whether a name has been another component's: it stays that one's while it is there, and goes to no other by accident
     * when it is gone. One of the same name in the contract is taken for the same thing in another place.
     */
    private boolean isKept(String name, String designator) {
        String holder = naming.pastHolder(where, name);
        return holder != null
                && !holder.equals(designator)
                && !isMade(holder, designator)
                && !Designator.of(holder)
                        .local()
                        .equals(Designator.of(designator).local());
    }

    /** Whether it stands for a thing that no component is called by: there may be one in each scope. */
    static boolean isMade(String designator) {
        return designator.startsWith(MADE);
    }

    /** Whether both stand for things that no component is called by and that wanted one name. */
    private static boolean isMade(String one, String other) {
        return isMade(one) && one.replaceFirst("\\[\\d+]$", "").equals(other.replaceFirst("\\[\\d+]$", ""));
    }

    private String other(String wanted, String suffix, String designator, Subject subject) {
        ask();
        String base = wanted + suffix;
        if (!suffix.isEmpty() && isFree(base, designator)) {
            return take(base, subject);
        }
        // No name becomes free again: the search goes on where the last one for these letters has ended.
        for (int number = numbers.getOrDefault(key(base), 2); ; number++) {
            if (isFree(base + number, designator)) {
                numbers.put(key(base), number + 1);
                return take(base + number, subject);
            }
        }
    }

    private boolean isFree(String name, String designator) {
        String key = key(name);
        return !has(name, key) && !expected.contains(key) && !isKept(name, designator);
    }

    private String take(String name, Subject subject) {
        taken.put(key(name), subject);
        return name;
    }
}
