package org.protypos.schema;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.xml.namespace.QName;
import org.protypos.schema.facet.Facet;
import org.protypos.schema.facet.FacetKind;
import org.protypos.source.Xml;

/** The built-in simple types (XML Schema Part 2, section 3) and the attributes of the XML namespace. */
public final class Builtins {
    /** Types that XML Schema 1.1 adds, each with the older type that its values are read as. */
    private static final Map<String, String> LATER = Map.of(
            "anyAtomicType", "anySimpleType",
            "dateTimeStamp", "dateTime",
            "yearMonthDuration", "duration",
            "dayTimeDuration", "duration");

    private static final Map<QName, SimpleType> TYPES = types();

    private Builtins() {}

    private static Map<QName, SimpleType> types() {
        Map<QName, SimpleType> types = new HashMap<>();
        for (BuiltIn type : BuiltIn.values()) {
            QName name = name(type.local());
            types.put(name, new SimpleType(name, SimpleType.Variety.BUILT_IN, null, List.of(), List.of(), "", null));
        }
        return types;
    }

    /** The name of a built-in type. */
    public static QName name(String local) {
        return new QName(Xml.XSD, local);
    }

    /** The built-in simple type of a name, or null. */
    public static SimpleType type(QName name) {
        return TYPES.get(name);
    }

    /** Whether a name is that of a built-in type, {@code xs:anyType} among them. */
    public static boolean isBuiltin(QName name) {
        return TYPES.containsKey(name) || name.equals(name("anyType"));
    }

    /** The older type that the values of a built-in type of XML Schema 1.1 are read as, or null for any other name. */
    public static QName olderType(QName name) {
        String older = name.getNamespaceURI().equals(Xml.XSD) ? LATER.get(name.getLocalPart()) : null;
        return older == null ? null : name(older);
    }

    /** The local names of all built-in types. */
    public static List<String> names() {
        return Stream.of(BuiltIn.values()).map(BuiltIn::local).toList();
    }

    /** Whether a built-in type is derived from another, or is that type (XML Schema Part 2, section 3). */
    public static boolean derives(String type, String from) {
        BuiltIn known = BuiltIn.of(type);
        BuiltIn other = BuiltIn.of(from);
        return type.equals(from)
                || other == BuiltIn.ANY_SIMPLE_TYPE
                || known != null && other != null && known.isA(other);
    }

    /** The attributes that XML itself defines, for contracts that use them without their schema document. */
    public static List<AttributeDeclaration> xmlAttributes() {
        return List.of(
                xmlAttribute("lang", TypeReference.to(name("string"), null)),
                xmlAttribute("space", TypeReference.to(SPACE)),
                xmlAttribute("base", TypeReference.to(name("anyURI"), null)),
                xmlAttribute("id", TypeReference.to(name("ID"), null)));
    }

    /** What {@code xml:space} may say (XML 1.0, section 2.10), as text: that it names its values makes no type of its own. */
    private static final SimpleType SPACE = new SimpleType(
            null,
            SimpleType.Variety.RESTRICTION,
            TypeReference.to(name("NCName"), null),
            List.of(),
            List.of(new Facet(FacetKind.PATTERN, "default|preserve", null, "", null)),
            "",
            null);

    private static AttributeDeclaration xmlAttribute(String local, TypeReference type) {
        return new AttributeDeclaration(new QName(Xml.XML, local), type, null, null, "", null);
    }
}
