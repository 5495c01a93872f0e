package org.protypos.constraint;

import java.util.LinkedHashSet;
import java.util.Set;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Place;
import org.protypos.diagnostic.Printable;
import org.protypos.schema.ComplexType;
import org.protypos.schema.SchemaComponents;
import org.protypos.schema.SchemaType;
import org.protypos.schema.Wildcard;
import org.protypos.source.Element;

/** What several constraints tell in the same words. */
final class Told {
    /** A namespace that no contract has, for all those that a wildcard lets in unnamed. */
    static final String ELSEWHERE = "urn:elsewhere";

    private Told() {}

    /** Says that a type allows what the type that it restricts does not. */
    static void wider(Findings findings, ComplexType type, Place place, String there) {
        findings.warning(
                "restriction-wider",
                place,
                name(type) + " restricts "
                        + SchemaComponents.localName(type.base().name()) + ", where " + there,
                "allow what the base allows and no more, or derive the type by xs:extension");
    }

    /** Says that an attribute holds none of the words that it knows. */
    static void noWord(Findings findings, Element element, String attribute, Set<String> allowed) {
        findings.warning(
                "attribute-value",
                element.place(attribute),
                attribute + "=\"" + Printable.of(element.attribute(attribute)) + "\" says nothing",
                "write " + String.join(" or ", allowed.stream().sorted().toList()));
    }

    /** Says of text that it stands where nobody reads any. */
    static void strayText(Findings findings, Element element, String prefix) {
        if (!element.text().isEmpty()) {
            findings.warning(
                    "stray-text",
                    element.place(),
                    "text says nothing in " + prefix + element.name() + ": \""
                            + Printable.of(element.text().strip()) + "\"",
                    "take it out, or put it into " + prefix + "documentation");
        }
    }

    /** A type as a reader knows it. */
    static String name(SchemaType type) {
        return type.name() == null ? "the type" : SchemaComponents.localName(type.name());
    }

    /** Another place in brackets behind what is said of one; nothing when there is none. */
    static String at(Place other, Place from) {
        if (other == null) {
            return "";
        }
        String document = from != null && other.document().equals(from.document()) ? "" : other.document() + ":";
        return " (" + document + other.line() + ":" + other.column() + ")";
    }

    /** Namespaces of which a wildcard lets in some: those that it names, its own, none, and one that nobody names. */
    static Set<String> probes(Wildcard wildcard) {
        Set<String> probes = new LinkedHashSet<>();
        probes.add(ELSEWHERE);
        probes.add(wildcard.targetNamespace());
        probes.add("");
        wildcard.namespaces().stream()
                .filter(namespace -> !namespace.startsWith("##"))
                .forEach(probes::add);
        return probes;
    }

    static String namespace(String namespace) {
        return namespace.isEmpty()
                ? "no namespace"
                : namespace.equals(ELSEWHERE) ? "other namespaces" : "the namespace " + namespace;
    }
}
