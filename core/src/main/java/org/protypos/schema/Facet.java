package org.protypos.schema;

import org.protypos.diagnostic.Place;

/**
 * A constraining facet (XML Schema Part 2, section 4.3).
 *
 * @param kind the name of the facet, such as {@code enumeration}
 * @param value its value as written
 */
public record Facet(String kind, String value, String documentation, Place place) {}
