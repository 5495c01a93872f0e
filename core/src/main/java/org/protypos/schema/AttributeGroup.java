package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** An attribute group definition (XML Schema Part 1, section 3.6). */
public record AttributeGroup(QName name, Attributes attributes, String documentation, Place place) {}
