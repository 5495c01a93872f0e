package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A named model group (XML Schema Part 1, section 3.7). */
public record ModelGroupDefinition(QName name, ModelGroup group, String documentation, Place place) {}
