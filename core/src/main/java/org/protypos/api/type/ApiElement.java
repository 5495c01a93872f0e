package org.protypos.api.type;

import javax.xml.namespace.QName;
import org.protypos.schema.ElementDeclaration;

/**
 * An element that is known by its name: a global one, or one that mixed content declares itself.
 *
 * @param value what it holds
 * @param isAbstract whether only members of its substitution group occur
 * @param nillable whether it may be nil
 * @param defaultValue the value that it stands for when it is empty, or null
 * @param head the head of the substitution group that it names, or null
 */
public record ApiElement(ApiValue value, boolean isAbstract, boolean nillable, String defaultValue, QName head) {
    static ApiElement of(ElementDeclaration element, ApiValue value) {
        return new ApiElement(
                value, element.isAbstract(), element.nillable(), element.standing(), element.substitutionHead());
    }
}
