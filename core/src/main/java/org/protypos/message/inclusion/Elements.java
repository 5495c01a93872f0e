package org.protypos.message.inclusion;

import org.protypos.message.model.TypeModel;
import org.protypos.schema.ElementDeclaration;

/** An element as two contracts declare it; there is one for each pair. */
final class Elements {
    final ElementDeclaration one;
    final ElementDeclaration other;
    final TypeModel typeOfOne;
    final TypeModel typeOfOther;

    Elements(ElementDeclaration one, ElementDeclaration other, TypeModel typeOfOne, TypeModel typeOfOther) {
        this.one = one;
        this.other = other;
        this.typeOfOne = typeOfOne;
        this.typeOfOther = typeOfOther;
    }
}
