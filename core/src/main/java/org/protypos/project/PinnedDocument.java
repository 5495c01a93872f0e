package org.protypos.project;

import java.util.Map;

/**
 * The pinned copy of a document.
 *
 * @param path where it is, with slashes, relative to the folder of the contract
 * @param origin where it came from: an address, or a path relative to the project
 * @param hash the SHA-256 hash of its bytes, in hexadecimal
 * @param date the day on which it was taken, as ISO 8601 has it
 * @param entry whether the contract was named by it
 * @param references where those of its references lead, as paths of copies, that do not lead there by themselves
 */
public record PinnedDocument(
        String path, String origin, String hash, String date, boolean entry, Map<String, String> references) {}
