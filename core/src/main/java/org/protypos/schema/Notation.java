package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** A notation declaration (XML Schema Part 1, section 3.12). */
public record Notation(QName name, String publicId, String systemId, Place place) {}
