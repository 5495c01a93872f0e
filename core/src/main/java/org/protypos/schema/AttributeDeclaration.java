package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/** An attribute declaration (XML Schema Part 1, section 3.2). */
public record AttributeDeclaration(
        QName name, TypeReference type, String defaultValue, String fixedValue, String documentation, Place place) {}
