package org.protypos.target;

import java.util.Map;

/**
 * A beginning of an implementation.
 *
 * @param file the file
 * @param methods the methods in it as text, by name
 */
public record Beginning(SourceFile file, Map<String, String> methods) {}
