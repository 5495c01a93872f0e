package org.protypos.target;

/**
 * A file of generated source.
 *
 * @param path its path below the output folder, with slashes
 */
public record SourceFile(String path, String text) {}
