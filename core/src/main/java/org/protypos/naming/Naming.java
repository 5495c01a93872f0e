package org.protypos.naming;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Printable;

/** The naming of one contract: its scopes, what is to be renamed, and the clashes that came up. */
public final class Naming {
    /** So much of a name that is none is told. */
    private static final int SHOWN = 43;

    private final NameRules rules;
    private final Renaming renaming;
    private final List<Clash> clashes = new ArrayList<>();
    private final Map<Collection<String>, Set<String>> reservedKeys = new IdentityHashMap<>();
    private final Findings findings;
    private final GivenNames past;
    private final Map<String, Map<String, String>> given = new HashMap<>();

    /**
     * Begins.
     *
     * @param rules how the target spells names
     * @param renaming what is to be called otherwise
     * @param past the names that components have had; those of another language are not minded
     * @param findings where to tell of wishes that cannot be granted
     */
    public Naming(NameRules rules, Renaming renaming, GivenNames past, Findings findings) {
        this.past = past.in(rules.language());
        this.rules = rules;
        this.renaming = renaming;
        this.findings = findings;
    }

    /** How the target spells names. */
    public NameRules rules() {
        return rules;
    }

    /** The package for a namespace. */
    public String packageName(String namespace) {
        return renaming.packageOf(namespace, rules.packageName(namespace));
    }

    /** Whether a rule gives a namespace its package. */
    public boolean isRenamed(String namespace) {
        return renaming.packageOf(namespace, null) != null;
    }

    /**
     * A scope of its own.
     *
     * @param where what the scope is of: a package, or a class with its package
     * @param reserved names that are not to be had
     */
    public NameScope scope(String where, Collection<String> reserved) {
        Set<String> keys = reservedKeys.computeIfAbsent(
                reserved, names -> names.stream().map(NameScope::key).collect(Collectors.toSet()));
        return new NameScope(this, where, null, keys);
    }

    /** The names given so far, with those of components that are gone. */
    public GivenNames given() {
        return past.under(new GivenNames(rules.language(), given));
    }

    /** The name that a component has had, or null. */
    String past(String scope, String designator) {
        String name = past.isEmpty() ? null : past.of(scope, designator);
        if (name == null || rules.isName(name)) {
            return name;
        }
        findings.error(
                "kept-name",
                null,
                "the lock file keeps a name for " + designator + " that is none: \"" + Printable.of(name, SHOWN) + "\"",
                "take the lock file from version control again");
        return null;
    }

    /** The component that has had a name, or null. */
    String pastHolder(String scope, String name) {
        return past.isEmpty() ? null : past.holder(scope, name);
    }

    /** Remembers a name. */
    void give(String scope, String designator, String name) {
        given.computeIfAbsent(scope, any -> new HashMap<>()).put(designator, name);
    }

    /** The clashes so far, in the order in which they came up. */
    public List<Clash> clashes() {
        return List.copyOf(clashes);
    }

    /** Whether a component is to be left out. */
    public boolean isOmitted(Subject subject) {
        return renaming.isOmitted(subject);
    }

    /** How a component is called when one talks about it. */
    public String shown(Subject subject) {
        return renaming.shown(subject);
    }

    Renaming.Wish wish(Subject subject, String plain) {
        return renaming.nameOf(subject, plain);
    }

    /** Whether anything is renamed at all. */
    boolean renames() {
        return renaming != Renaming.NONE;
    }

    void settled(Clash clash) {
        clashes.add(clash);
    }

    void refused(Renaming.Wish wish, Subject subject, String where, String given) {
        String message = "the name " + wish.name() + " for " + shown(subject) + " is already taken in " + where;
        if (wish.firm()) {
            findings.error("rule-clash", wish.place(), message, "choose another name, such as " + given);
        } else {
            findings.warning("rule-clash", wish.place(), message, "it is called " + given);
        }
    }
}
