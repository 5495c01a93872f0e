package org.protypos.schema.facet;

import java.util.function.UnaryOperator;
import org.protypos.diagnostic.Place;

/**
 * A constraining facet (XML Schema Part 2, section 4.3).
 *
 * @param kind which facet it is
 * @param value its value as written
 * @param namespaces gives the namespace of a prefix that the value may use, or null
 */
public record Facet(
        FacetKind kind, String value, UnaryOperator<String> namespaces, String documentation, Place place) {}
