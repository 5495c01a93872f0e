package org.protypos.source;

import java.util.List;
import java.util.Map;
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
        List<Finding> findings) {}
