package org.protypos.schema;

import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * The use of an attribute (XML Schema Part 1, section 3.5).
 *
 * @param reference the name of the global attribute meant, or null
 * @param declaration the attribute declared on the spot, or null
 * @param use whether it must be there
 * @param defaultValue the value when it is absent, or null
 * @param arrayItem the type of the items that {@code wsdl:arrayType} names (WSDL 1.1, section 2.2), or null
 * @param fixedValue the only value it may have, or null
 */
public record AttributeUse(
        QName reference,
        AttributeDeclaration declaration,
        Use use,
        String defaultValue,
        String fixedValue,
        QName arrayItem,
        Place place) {
    /** The only value it may have, by itself or by the declaration that it speaks of; null for none. */
    public String fixedBy(AttributeDeclaration declared) {
        return fixedValue != null ? fixedValue : declared.fixedValue();
    }

    /** Whether an attribute must be there. */
    public enum Use {
        /** It may be there. */
        OPTIONAL,
        /** It must be there. */
        REQUIRED,
        /** It must not be there, though the base type allows it. */
        PROHIBITED
    }
}
