package org.protypos.schema;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javax.xml.namespace.QName;

/** The built-in simple types (XML Schema Part 2, section 3) and the attributes of the XML namespace. */
public final class Builtins {
    private static final String XSD = "http://www.w3.org/2001/XMLSchema";
    private static final String XML = "http://www.w3.org/XML/1998/namespace";
    private static final String NAMES = "anySimpleType string normalizedString token language Name NCName NMTOKEN"
            + " NMTOKENS ID IDREF IDREFS ENTITY ENTITIES boolean decimal integer nonPositiveInteger negativeInteger"
            + " nonNegativeInteger positiveInteger long int short byte unsignedLong unsignedInt unsignedShort"
            + " unsignedByte float double dateTime date time duration gYear gYearMonth gMonth gMonthDay gDay"
            + " base64Binary hexBinary anyURI QName NOTATION";
    private static final Map<QName, SimpleType> TYPES = types();

    private Builtins() {}

    private static Map<QName, SimpleType> types() {
        Map<QName, SimpleType> types = new HashMap<>();
        for (String local : NAMES.split(" ")) {
            QName name = name(local);
            types.put(name, new SimpleType(name, SimpleType.Variety.BUILT_IN, null, List.of(), List.of(), "", null));
        }
        return types;
    }

    /** The name of a built-in type. */
    public static QName name(String local) {
        return new QName(XSD, local);
    }

    /** The built-in simple type of a name, or null. */
    public static SimpleType type(QName name) {
        return TYPES.get(name);
    }

    /** The local names of all built-in types. */
    public static List<String> names() {
        return List.of(NAMES.split(" "));
    }

    /** The attributes that XML itself defines, for contracts that use them without their schema document. */
    public static List<AttributeDeclaration> xmlAttributes() {
        return List.of(
                xmlAttribute("lang", "string"),
                xmlAttribute("space", "NCName"),
                xmlAttribute("base", "anyURI"),
                xmlAttribute("id", "ID"));
    }

    private static AttributeDeclaration xmlAttribute(String local, String type) {
        return new AttributeDeclaration(
                new QName(XML, local), TypeReference.to(name(type), null), null, null, "", null);
    }
}
