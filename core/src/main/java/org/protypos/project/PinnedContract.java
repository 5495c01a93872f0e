package org.protypos.project;

import java.util.List;

/**
 * What the lock file knows of an adopted contract.
 *
 * @param origins what the contract was named by when it was adopted
 * @param catalog the catalog that was used then, or null
 * @param documents its documents
 * @param names the names that its components have
 */
public record PinnedContract(List<String> origins, String catalog, List<PinnedDocument> documents, PinnedNames names) {
    /** The same with other names. */
    public PinnedContract named(PinnedNames others) {
        return new PinnedContract(origins, catalog, documents, others);
    }
}
