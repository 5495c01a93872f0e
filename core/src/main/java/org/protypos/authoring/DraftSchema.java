package org.protypos.authoring;

import java.util.List;

/**
 * A schema that is to be written, its components in the order in which they will stand.
 *
 * @param namespace its target namespace, empty when it has none
 * @param file the name of its file
 * @param qualified whether local elements are in its namespace where they do not say otherwise
 */
public record DraftSchema(
        String namespace,
        String file,
        boolean qualified,
        List<DraftParticle.Element> elements,
        List<DraftAttribute> attributes,
        List<DraftType> types) {
    public DraftSchema {
        elements = List.copyOf(elements);
        attributes = List.copyOf(attributes);
        types = List.copyOf(types);
    }
}
