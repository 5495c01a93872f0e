package org.protypos.message.check;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javax.xml.namespace.QName;
import org.protypos.message.tree.MessageElement;

/** A selector or field of an identity constraint: the subset of XPath of XML Schema Part 1, section 3.11.6. */
public final class KeyPath {
    private final List<Branch> branches;

    /** A step is null for the element itself; a name of null is any, a namespace of null any. */
    private record Step(String namespace, String name, boolean attribute) {
        boolean matches(QName candidate) {
            return (name == null || name.equals(candidate.getLocalPart()))
                    && (namespace == null || namespace.equals(candidate.getNamespaceURI()));
        }
    }

    private record Branch(boolean anywhere, List<Step> steps) {}

    /**
     * What a field leads to.
     *
     * @param element the element that is the value, or has it as an attribute
     * @param attribute the attribute's name, or null
     */
    public record Value(MessageElement element, QName attribute) {
        /** The text of the value; null for an attribute that is not written. */
        public String text() {
            return attribute == null ? element.text() : element.attributes().get(attribute);
        }
    }

    private KeyPath(List<Branch> branches) {
        this.branches = branches;
    }

    /**
     * Reads a path.
     *
     * @param namespaces gives the namespace of a prefix
     */
    public static KeyPath of(String text, UnaryOperator<String> namespaces) {
        List<Branch> branches = new ArrayList<>();
        for (String branch : String.valueOf(text).split("\\|")) {
            String path = branch.replaceAll("\\s+", "");
            boolean anywhere = path.startsWith(".//");
            List<Step> steps = new ArrayList<>();
            for (String step : (anywhere ? path.substring(3) : path).split("/")) {
                if (!step.equals(".") && !step.isEmpty()) {
                    steps.add(step(step, namespaces));
                }
            }
            branches.add(new Branch(anywhere, steps));
        }
        return new KeyPath(branches);
    }

    private static Step step(String text, UnaryOperator<String> namespaces) {
        boolean attribute = text.startsWith("@") || text.startsWith("attribute::");
        String name = text.replaceFirst("^(@|attribute::|child::)", "");
        int colon = name.indexOf(':');
        String namespace = colon < 0 ? "" : namespaces.apply(name.substring(0, colon));
        String local = name.substring(colon + 1);
        boolean any = local.equals("*");
        return new Step(any && colon < 0 ? null : namespace, any ? null : local, attribute);
    }

    /** The elements it leads to from one. */
    public List<MessageElement> elements(MessageElement from) {
        Set<MessageElement> found = new LinkedHashSet<>();
        for (Value value : values(from)) {
            if (value.attribute() == null) {
                found.add(value.element());
            }
        }
        return List.copyOf(found);
    }

    /** The elements and attributes it leads to from an element, as far as they stand in the message. */
    public List<Value> values(MessageElement from) {
        return values(from, element -> Set.of());
    }

    /**
     * The elements and attributes it leads to from an element.
     *
     * @param given the attributes that an element has without saying so, as they have default values
     */
    List<Value> values(MessageElement from, Function<MessageElement, Set<QName>> given) {
        List<Value> found = new ArrayList<>();
        for (Branch branch : branches) {
            if (branch.anywhere()) {
                anywhere(from, branch.steps(), given, found);
            } else {
                walk(from, branch.steps(), given, found);
            }
        }
        return found;
    }

    private static void anywhere(
            MessageElement from, List<Step> steps, Function<MessageElement, Set<QName>> given, List<Value> found) {
        walk(from, steps, given, found);
        from.children().forEach(child -> anywhere(child, steps, given, found));
    }

    private static void walk(
            MessageElement from, List<Step> steps, Function<MessageElement, Set<QName>> given, List<Value> found) {
        if (steps.isEmpty()) {
            found.add(new Value(from, null));
            return;
        }
        Step step = steps.get(0);
        List<Step> rest = steps.subList(1, steps.size());
        if (step.attribute()) {
            Set<QName> names = new LinkedHashSet<>(from.attributes().keySet());
            names.addAll(given.apply(from));
            for (QName name : names) {
                if (step.matches(name)) {
                    found.add(new Value(from, name));
                }
            }
            return;
        }
        for (MessageElement child : from.children()) {
            if (step.matches(child.name())) {
                walk(child, rest, given, found);
            }
        }
    }
}
