package org.protypos.source;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.protypos.diagnostic.Finding;

/**
 * All documents of a contract.
 *
 * @param entries the documents that the contract was named by
 * @param all every document, the entries first, in the order in which they were reached
 * @param links for each import, include and redefine the document that it leads to; one that leads nowhere is missing
 * @param missing each reference whose document cannot be read
 * @param findings what went wrong
 */
public record Documents(
        List<Document> entries,
        List<Document> all,
        Map<Element, Document> links,
        List<Element> missing,
        List<Finding> findings) {
    /** How many bytes all of them have. */
    public int size() {
        return all.stream().mapToInt(Document::size).sum();
    }

    /** The prefixes, not the empty one, that documents declare at their roots for a namespace, in the order of the documents. */
    public Stream<String> prefixes(String namespace) {
        return all.stream()
                .map(Document::root)
                .filter(Objects::nonNull)
                .map(root -> root.prefixOf(namespace))
                .filter(Objects::nonNull);
    }

    /** The root of every WSDL document. */
    public List<Element> definitions() {
        return all.stream()
                .map(Document::root)
                .filter(root -> root != null && root.is(Xml.WSDL, "definitions"))
                .toList();
    }

    /** Every schema: the roots of schema documents, and those that stand in the types of a WSDL (WSDL 1.1, section 2.2). */
    public List<Element> schemas() {
        return all.stream()
                .map(Document::root)
                .filter(Objects::nonNull)
                .flatMap(root -> root.is(Xml.XSD, "schema")
                        ? Stream.of(root)
                        : root.children(Xml.WSDL, "types").stream()
                                .flatMap(types -> types.children(Xml.XSD, "schema").stream()))
                .toList();
    }
}
