package org.protypos.schema;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
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

    /**
     * The types that a value of a union is of one of, in their order. In the place of a union among them, and of a
     * restriction of one, stand its own members (XML Schema Part 1, section 3.14.2): what such a restriction demands does
     * not count there. What is no simple type is taken for any of them.
     */
    public List<SimpleType> members(SimpleType union) {
        Set<SimpleType> members = Collections.newSetFromMap(new IdentityHashMap<>());
        List<SimpleType> all = new ArrayList<>();
        members(union, members, all);
        return all;
    }

    private void members(SimpleType union, Set<SimpleType> seen, List<SimpleType> all) {
        for (TypeReference reference : union.members()) {
            SimpleType member = resolve(reference) instanceof SimpleType simple
                    ? simple
                    : Builtins.type(Builtins.name("anySimpleType"));
            SimpleType united = united(member);
            if (seen.add(united == null ? member : united)) {
                if (united == null) {
                    all.add(member);
                } else {
                    members(united, seen, all);
                }
            }
        }
    }

    /** The union that a type is or restricts, or null. */
    private SimpleType united(SimpleType type) {
        SchemaType at = type;
        while (at instanceof SimpleType simple && simple.variety() == SimpleType.Variety.RESTRICTION) {
            at = resolve(simple.base());
        }
        return at instanceof SimpleType simple && simple.variety() == SimpleType.Variety.UNION ? simple : null;
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
