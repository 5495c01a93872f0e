package org.protypos.schema;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Finding;

/**
 * All schema components of a contract by name (XML Schema Part 1, section 3.15). What a document redefines is found
 * under its own name in the newest form, and under {@link #original} in the older ones.
 *
 * @param substitutions for each element the elements that name it as the head of their substitution group
 */
public record SchemaComponents(
        Map<QName, SchemaType> types,
        Map<QName, ElementDeclaration> elements,
        Map<QName, AttributeDeclaration> attributes,
        Map<QName, ModelGroupDefinition> groups,
        Map<QName, AttributeGroup> attributeGroups,
        Map<QName, Notation> notations,
        Map<QName, List<QName>> substitutions,
        List<Finding> findings) {
    /** The root of all types. */
    public static final QName ANY_TYPE = Builtins.name("anyType");

    private static final String ORIGINAL = "#original";

    /**
     * The name under which an old form of a redefined component is found.
     *
     * @param step 1 for the oldest form, 2 for what the first redefinition made of it, and so on
     */
    public static QName original(QName name, int step) {
        return new QName(name.getNamespaceURI(), name.getLocalPart() + ORIGINAL + (step == 1 ? "" : step));
    }

    /** Whether this is the old form of a redefined component. */
    public static boolean isOriginal(QName name) {
        return name.getLocalPart().indexOf(ORIGINAL.charAt(0)) >= 0;
    }

    /** The local name that a component has in the contract, also when this is the name of its old form. */
    public static String localName(QName name) {
        int mark = name.getLocalPart().indexOf(ORIGINAL);
        return mark < 0 ? name.getLocalPart() : name.getLocalPart().substring(0, mark);
    }

    /** The type behind a reference, or null when it is not there; {@code xs:anyType} has none either. */
    public SchemaType resolve(TypeReference reference) {
        return reference.name() == null ? reference.anonymous() : type(reference.name());
    }

    /** The type of a name, built-in simple types included, or null. */
    public SchemaType type(QName name) {
        SchemaType type = types.get(name);
        return type != null ? type : Builtins.type(name);
    }

    /** The group that a term is or refers to, or null. */
    public ModelGroup group(Term term) {
        ModelGroupDefinition defined = term instanceof GroupReference reference ? groups.get(reference.name()) : null;
        return defined != null ? defined.group() : term instanceof ModelGroup group ? group : null;
    }

    /** The declaration that a use of an attribute speaks of: the one on the spot or the global one, or null. */
    public AttributeDeclaration declaration(AttributeUse use) {
        return use.declaration() != null ? use.declaration() : attributes.get(use.reference());
    }

    /** The type of an element: its own, else that of its head, else {@code xs:anyType}. */
    public TypeReference typeOf(ElementDeclaration element) {
        if (element.type() != null) {
            return element.type();
        }
        ElementDeclaration declared = element;
        Set<QName> seen = new LinkedHashSet<>();
        while (declared != null && declared.type() == null && seen.add(declared.name())) {
            declared = declared.substitutionHead() == null ? null : elements.get(declared.substitutionHead());
        }
        return declared == null || declared.type() == null
                ? TypeReference.to(ANY_TYPE, element.place())
                : declared.type();
    }
}
