package org.protypos.authoring;

/**
 * A value that stands where none is written (XML Schema Part 1, sections 3.2.1 and 3.3.1).
 *
 * @param isFixed whether no other may be written either
 */
public record Preset(String value, boolean isFixed) {}
