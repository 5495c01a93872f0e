package org.protypos.source;

import java.net.URI;
import java.util.List;
import java.util.Map;

/**
 * Pinned copies of the documents of a contract.
 *
 * @param entries where the copies of the entry documents are
 * @param references for the copies that need it where their references lead: to the copy of the document that the
 *     original led to; a reference by namespace alone stands as that namespace
 */
public record Pins(List<URI> entries, Map<URI, Map<String, URI>> references) {
    /** Where a reference in a document leads, or null when it is to be resolved as it stands. */
    URI target(URI document, String reference) {
        return references.getOrDefault(document, Map.of()).get(reference);
    }
}
