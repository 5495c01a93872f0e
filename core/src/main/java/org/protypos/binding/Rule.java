package org.protypos.binding;

import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Place;

/** One rule: which components it is about, what becomes of them, and which it has met. */
public final class Rule {
    private final Selector selector;
    private final Place place;
    private final Effect effect;
    private final Set<String> matched = new TreeSet<>();

    /**
     * What a rule does; each part may be null.
     *
     * @param name the name that a component gets
     * @param prefix what its name gets in front
     * @param suffix what its name gets behind
     * @param packageName the package that a namespace gets
     * @param omitted whether the component is left out
     */
    record Effect(String name, String prefix, String suffix, String packageName, boolean omitted) {
        boolean isNothing() {
            return !isOfNames() && packageName == null && !omitted;
        }

        boolean isOfNames() {
            return name != null || prefix != null || suffix != null;
        }
    }

    /**
     * Which components a rule is about.
     *
     * @param written as the file has it
     * @param expanded with namespaces in braces instead of prefixes
     * @param pattern what designators must match, or null when there is no wildcard in it
     */
    record Selector(String written, String expanded, Pattern pattern) {
        boolean isOfNamespace() {
            return expanded.startsWith(NAMESPACE);
        }

        /** Whether it is about operations or ports. */
        boolean isOfOperationOrPort() {
            return written.matches("(portType|service) [^/]+/[^/]+");
        }

        /** The namespace that it is about. */
        String namespace() {
            return expanded.substring(NAMESPACE.length());
        }

        boolean fits(String designator) {
            return pattern == null
                    ? expanded.equals(designator)
                    : pattern.matcher(designator).matches();
        }

        /** How much it says: everything when there is no wildcard in it, else as many characters as it names. */
        int weight() {
            return pattern == null
                    ? Integer.MAX_VALUE
                    : expanded.replace("*", "").length();
        }
    }

    static final String NAMESPACE = "namespace ";

    Rule(Selector selector, Effect effect, Place place) {
        this.selector = selector;
        this.effect = effect;
        this.place = place;
    }

    /** The components it is about, as the file has it. */
    public String on() {
        return selector.written();
    }

    /** Where it stands. */
    public Place place() {
        return place;
    }

    /** The components that it has met. */
    public Set<String> matched() {
        return matched;
    }

    Selector selector() {
        return selector;
    }

    Effect effect() {
        return effect;
    }
}
