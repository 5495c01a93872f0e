package org.protypos.contract;

import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.NearestName;
import org.protypos.diagnostic.Place;
import org.protypos.source.Documents;
import org.protypos.source.Element;
import org.protypos.source.MissingDocument;
import org.protypos.source.Xml;

/**
 * Reports names that lead nowhere, with the name that was probably meant. Where a document could not be read, all the
 * names it was needed for make one finding.
 */
final class NameFinder {
    private static final int SHOWN = 5;

    /** So many missing names are compared with those that are there; the others are told without. */
    private static final int MOST_GUESSES = 500;

    private final Findings findings;
    private final Map<String, Guess> guesses = new HashMap<>();
    private final Documents documents;
    private final Map<String, Element> missing = new HashMap<>();
    private Map<String, Element> unlocated;
    private final Map<Element, Set<String>> needed = new LinkedHashMap<>();

    NameFinder(Documents documents, Findings findings) {
        this.documents = documents;
        this.findings = findings;
        for (Element reference : documents.missing()) {
            String namespace = reference.attribute("namespace");
            String target = reference.document().root().attribute("targetNamespace");
            String expected = namespace != null || reference.name().equals("import") ? namespace : target;
            missing.putIfAbsent(expected == null ? "" : expected.strip(), reference);
        }
    }

    /** Reports a name unless it is among those that exist. */
    void require(String kind, QName name, Place place, Collection<QName> existing) {
        if (!existing.contains(name)) {
            unresolved(kind, name, place, existing);
        }
    }

    /** Reports a name that is not there. */
    void unresolved(String kind, QName name, Place place, Collection<QName> existing) {
        Element reference =
                missing.getOrDefault(name.getNamespaceURI(), unlocated().get(name.getNamespaceURI()));
        // Where one name is missing, it often is so in hundreds of places.
        boolean known = guesses.containsKey(kind + " " + name);
        if (!known && guesses.size() >= MOST_GUESSES) {
            findings.error(
                    "unresolved-name",
                    place,
                    "there is no " + kind + " " + name.getLocalPart() + in(name.getNamespaceURI()),
                    "declare it, or import the document that does");
            return;
        }
        Guess guess = guesses.computeIfAbsent(kind + " " + name, any -> guess(kind, name, existing));
        if (reference != null && holds(reference, kind) && !guess.mistyped()) {
            needed.computeIfAbsent(reference, any -> new LinkedHashSet<>()).add(name.getLocalPart());
            return;
        }
        findings.error(
                "unresolved-name",
                place,
                "there is no " + kind + " " + name.getLocalPart() + in(name.getNamespaceURI()),
                guess.cure());
    }

    /** What was probably meant by a name that is not there. */
    private record Guess(boolean mistyped, String cure) {}

    private static Guess guess(String kind, QName name, Collection<QName> existing) {
        List<String> neighbours = inNamespaceOf(name, existing);
        Optional<String> near = NearestName.of(name.getLocalPart(), neighbours);
        String cure = near.map(other -> "did you mean " + other + "?")
                .orElse(
                        neighbours.isEmpty()
                                ? "no " + kind + " of this namespace is known: import the document that declares it"
                                : "declare it, or import the document that does");
        for (QName other : existing) {
            if (other.getLocalPart().equals(name.getLocalPart())) {
                cure = "there is one" + in(other.getNamespaceURI()) + ": correct the prefix or its declaration";
                break;
            }
        }
        return new Guess(near.isPresent(), cure);
    }

    /** Reports what the documents that could not be read were needed for. */
    void finish() {
        needed.forEach((reference, names) -> {
            String shown = names.stream().limit(SHOWN).collect(Collectors.joining(", "))
                    + (names.size() > SHOWN ? " and " + (names.size() - SHOWN) + " more" : "");
            if (unlocated().containsValue(reference)) {
                String namespace = reference.attribute("namespace");
                findings.error(
                        "document-needed",
                        reference.place(),
                        "this import does not say where the document" + of(namespace) + " is, which is needed for "
                                + shown,
                        MissingDocument.cure(namespace, reference.document().location()));
                return;
            }
            String attribute = reference.attribute("location") == null ? "schemaLocation" : "location";
            findings.error(
                    "document-needed",
                    reference.place(attribute),
                    "the document that cannot be read is needed for " + shown,
                    "make it readable: the contract cannot be used without it");
        });
    }

    /** The imports that lead to no document, by their namespaces, none of which any document has. */
    private Map<String, Element> unlocated() {
        if (unlocated == null) {
            unlocated = new HashMap<>();
            List<Element> schemas = documents.schemas();
            for (Element schema : schemas) {
                for (Element reference : schema.children(Xml.XSD, "import")) {
                    if (reference.attribute("namespace") != null
                            && reference.attribute("schemaLocation") == null
                            && !documents.links().containsKey(reference)
                            && !documents.missing().contains(reference)) {
                        unlocated.putIfAbsent(reference.attribute("namespace").strip(), reference);
                    }
                }
            }
            schemas.forEach(schema -> unlocated.remove(schema.attribute("targetNamespace")));
        }
        return unlocated;
    }

    /** A document that a schema refers to holds schema components, one that a WSDL document imports the others. */
    private static boolean holds(Element reference, String kind) {
        boolean ofWsdl = Set.of("message", "port type", "binding").contains(kind);
        return ofWsdl == reference.namespace().equals(Xml.WSDL);
    }

    private static List<String> inNamespaceOf(QName name, Collection<QName> existing) {
        return existing.stream()
                .filter(other -> other.getNamespaceURI().equals(name.getNamespaceURI()))
                .map(QName::getLocalPart)
                .toList();
    }

    private static String of(String namespace) {
        return namespace.isEmpty() ? " without a namespace" : " of namespace " + namespace;
    }

    private static String in(String namespace) {
        return namespace.isEmpty() ? " without a namespace" : " in namespace " + namespace;
    }
}
