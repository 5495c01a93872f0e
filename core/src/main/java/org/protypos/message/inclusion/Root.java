package org.protypos.message.inclusion;

import javax.xml.namespace.QName;
import org.protypos.message.model.TypeModel;
import org.protypos.schema.ElementDeclaration;

/**
 * What messages of two contracts begin with.
 *
 * @param name the name of the element in the one contract
 * @param one its declaration in the one contract, or null when no schema declares it
 * @param other its declaration in the other contract, or null likewise
 * @param typeOfOne its type in the one contract
 * @param typeOfOther its type in the other contract
 * @param of what the caller knows it by
 */
public record Root(
        QName name,
        ElementDeclaration one,
        ElementDeclaration other,
        TypeModel typeOfOne,
        TypeModel typeOfOther,
        Object of) {}
