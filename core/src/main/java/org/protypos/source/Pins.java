package org.protypos.source;

import java.net.URI;
import java.util.List;
import java.util.Map;

/**
 * Pinned copies of the documents of a contract.
 *
 * @param entries where the copies of the entry documents are
 * @param folder the folder that all of them are in
 * @param label what to call that folder when one talks about places in it, or null for its path
 * @param references for the copies that need it where their references lead: to the copy of the document that the
 *     original led to; a reference by namespace alone stands as that namespace
 */
public record Pins(List<URI> entries, URI folder, String label, Map<URI, Map<String, URI>> references) {
    /** What to call a document, or null for its path. */
    String display(URI document) {
        return label == null ? null : label + ":" + folder.relativize(document);
    }

    /** Where a reference in a document leads, or null when it is to be resolved as it stands. */
    URI target(URI document, String reference) {
        return references.getOrDefault(document, Map.of()).get(reference);
    }
}
