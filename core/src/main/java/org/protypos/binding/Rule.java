package org.protypos.binding;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.protypos.diagnostic.Place;

/** One rule: which components it is about, what becomes of them, and which it has met. */
public final class Rule {
    private final Selector selector;
    private final Place place;
    private final Effect effect;
    private final String because;
    private final boolean inContract;
    private final String said;
    private final Set<String> matched = new TreeSet<>();
    private final List<Change> changes = new ArrayList<>();

    /**
     * What a rule does; each part may be null.
     *
     * @param name the name that a component gets
     * @param prefix what its name gets in front
     * @param suffix what its name gets behind
     * @param packageName the package that a namespace gets
     * @param omitted whether the component is left out
     * @param shape what is wanted of its API beyond its name, or null
     * @param correction what the contract should say of it, or null
     */
    record Effect(
            String name,
            String prefix,
            String suffix,
            String packageName,
            boolean omitted,
            Shape shape,
            Correction correction) {
        boolean isNothing() {
            return isOfPackageAlone() && packageName == null;
        }

        boolean isOfPackageAlone() {
            return !isOfNames() && !omitted && shape == null && correction == null;
        }

        /** What it says of names, or null. */
        List<String> naming() {
            return isOfNames() ? Arrays.asList(name, prefix, suffix) : null;
        }

        boolean isOfNames() {
            return name != null || prefix != null || suffix != null;
        }

        boolean isOfOperation() {
            return shape != null && shape.isOfOperation() || correction != null && correction.isOfOperation();
        }

        boolean isOfRecords() {
            return shape != null && shape.room() != null;
        }

        boolean isOfPort() {
            return correction != null && correction.address() != null;
        }

        boolean isOfSchema() {
            return shape != null && shape.isOfSchema()
                    || correction != null
                            && (correction.isOfMember() || correction.isOfValues() || correction.base() != null)
                            && !correction.isOfOperation();
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
            return local().matches("(portType|service) [^/]+/[^/]+");
        }

        /** The selector with nothing in it of namespaces. */
        private String local() {
            return expanded.replaceAll("\\{[^}]*\\}", "");
        }

        /** Whether it is about a component of a WSDL document. */
        boolean isOfWsdl() {
            return written.matches("(portType|service|message) .*");
        }

        /** Whether it is about parts of messages, which records have room for. */
        boolean isOfPart() {
            return local().matches("message [^/]+/[^/]+");
        }

        /** Whether it is about global types. */
        boolean isOfType() {
            return local().matches("~[^/@=]+");
        }

        /** Whether it may be about anything. */
        boolean isOfAll() {
            return written.startsWith("**");
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

    /**
     * What a correction changes.
     *
     * @param place where the contract says it
     * @param designator of which component
     */
    public record Change(Place place, String designator, String before, String after) {}

    /**
     * Makes a rule.
     *
     * @param said what it says of what it is about, as the file has it
     */
    Rule(Selector selector, Effect effect, String said, String because, Place place, boolean inContract) {
        this.said = said;
        this.inContract = inContract;
        this.selector = selector;
        this.effect = effect;
        this.because = because;
        this.place = place;
    }

    /** Why it is there, or null when nobody says. */
    public String because() {
        return because;
    }

    /** What it says of what it is about, as the file has it: keys with their values. */
    public String said() {
        return said;
    }

    /** What it changes of the contract. */
    public List<Change> changes() {
        return changes;
    }

    /** The components it is about, as the file has it. */
    public String on() {
        return selector.written();
    }

    /** Where it stands. */
    public Place place() {
        return place;
    }

    Rule withoutForeignClasses() {
        Shape shape = effect.shape() == null ? null : effect.shape().withoutForeignClasses();
        return new Rule(
                selector,
                new Effect(
                        effect.name(),
                        effect.prefix(),
                        effect.suffix(),
                        effect.packageName(),
                        effect.omitted(),
                        shape,
                        effect.correction()),
                said,
                because,
                place,
                inContract);
    }

    /** Whether the contract itself says it, so that its users need not know of it. */
    public boolean isInContract() {
        return inContract;
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
