package org.protypos.schema;

import java.util.List;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * The attributes of a complex type or an attribute group (XML Schema Part 1, sections 3.4 and 3.6).
 *
 * @param uses the attributes
 * @param groups references to attribute groups
 * @param wildcard other attributes that may stand beside them, or null
 */
public record Attributes(List<AttributeUse> uses, List<GroupUse> groups, Wildcard wildcard) {
    /** No attributes. */
    public static final Attributes NONE = new Attributes(List.of(), List.of(), null);

    /**
     * A reference to an attribute group.
     *
     * @param name the group's name
     */
    public record GroupUse(QName name, Place place) {}
}
